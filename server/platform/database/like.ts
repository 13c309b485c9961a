/** A pattern that finds words anywhere in a text; signs of the pattern language in them are only signs. */
export const anywhere = (words: string): string => `%${words.replace(/[\\%_]/g, '\\$&')}%`
