import { isBlank, letters } from '../words/line'

export const mostNameLetters = 80
export const mostCommentLetters = 3000
/** Nobody needs more links than this to say something about an episode. */
export const mostLinks = 5

export const commentStates = ['waiting', 'shown', 'hidden'] as const
export type CommentState = (typeof commentStates)[number]

/** What somebody wrote, without what cannot be seen: control characters, and marks that turn the direction of all that follows. */
const unseen = /[\p{Cc}\u202a-\u202e\u2066-\u2069\ufeff]/gu
export const cleanName = (words: string): string => words.replace(unseen, ' ').replace(/\s+/gu, ' ').trim()
export const cleanWords = (words: string): string =>
  words
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map(line => line.replace(unseen, '').trimEnd())
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim()

/** How many addresses stand in what somebody wrote. */
export const linksIn = (words: string): number => (words.match(/https?:\/\/|www\./gi) ?? []).length

export type CommentFault = 'no name' | 'name too long' | 'no words' | 'too many words' | 'too many links'

/** What is wrong with a comment; null where nothing is. */
export function commentFault({ name, words }: { name: string; words: string }): CommentFault | null {
  if (isBlank(name)) return 'no name'
  if (letters(name.slice(0, 1000)) > mostNameLetters) return 'name too long'
  if (isBlank(words)) return 'no words'
  if (words.length > mostCommentLetters * 4 || letters(words) > mostCommentLetters) return 'too many words'
  return linksIn(words) > mostLinks ? 'too many links' : null
}
