/** Words as they are compared where case, accents and the way letters are put together do not matter. */
export const fold = (words: string): string =>
  words.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/gu, ' ').trim()
