import { fold } from '../words/fold'

/** A tag as it is compared: `Reeds`, `reeds` and `réeds` are one; so is `reed`, whose plural it is (English and Romance ones). */
export const tagKey = (tag: string): string => singular(fold(tag).replace(/^#+/, ''))

/** A word without its plural ending, as far as that can be told without a dictionary. */
function singular(word: string): string {
  if (word.length <= 3 || /(ss|us|is)$/.test(word)) return word
  if (/[^aeiou]ies$/.test(word)) return `${word.slice(0, -3)}y`
  if (/(ch|sh|x|z|s)es$/.test(word)) return word.slice(0, -2)
  return word.endsWith('s') ? word.slice(0, -1) : word
}

/** Tags out of what was typed or pasted: separated by commas, semicolons and lines; each once, with the spelling that is used already. */
export function readTags(words: string, used: readonly string[] = []): string[] {
  const spelling = new Map(used.map(tag => [tagKey(tag), tag]))
  const found = new Map<string, string>()
  for (const given of words.split(/[,;\n]/)) {
    const tag = given.replace(/\s+/g, ' ').trim().replace(/^#+/, '')
    if (tag && !found.has(tagKey(tag))) found.set(tagKey(tag), spelling.get(tagKey(tag)) ?? tag)
  }
  return [...found.values()]
}
