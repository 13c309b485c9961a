import { longestSpeaker } from './cue'

const before = /^(?:[-–]\s?)?\[?([\p{L}][\p{L}\p{M}\p{Nd} .'’-]{0,60}?)\]?:\s+(?=\S)/u

/** Names are a few words with large letters; a clause that ends in a colon is none. */
function isLikeName(words: string): boolean {
  const parts = words.trim().split(/\s+/)
  const isPart = (part: string): boolean =>
    /^[\p{Lu}\p{Lt}\p{Lo}\p{Nd}]/u.test(part) || /^(?:de|of|the|van|von|der|la|le|da|di)$/.test(part)
  return parts.length <= 4 && isPart(parts[0]!) && parts.every(isPart)
}

const nameBefore = (text: string): string | null => {
  if (!text.includes(':')) return null
  const name = before.exec(text)?.[1]
  return name && isLikeName(name) ? name : null
}

export interface Said {
  speaker: string | null
  text: string
}

/**
 * Who says each of some texts, where a name and a colon stand before it. They do where one of the names is known, or
 * stands before two of them or more; a single one is rather a word of its sentence.
 */
export function withSpeakers(texts: readonly string[], known: readonly string[]): Said[] {
  const counts = new Map<string, number>()
  const names = texts.map(nameBefore)
  for (const name of names) {
    if (name) counts.set(name, (counts.get(name) ?? 0) + 1)
  }
  const areNamed = [...counts].some(([name, count]) => count > 1 || known.includes(name))
  return texts.map((text, at) => {
    const name = names[at]
    return name && areNamed
      ? { speaker: name.slice(0, longestSpeaker), text: text.replace(before, '') }
      : { speaker: null, text }
  })
}

/** A text with who says it before it. */
export const withName = ({ speaker, text }: Said): string => (speaker ? `${speaker}: ${text}` : text)
