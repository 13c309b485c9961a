/** So many letters are looked for at most. */
export const mostSearchLetters = 200
