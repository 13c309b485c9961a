import { textIn } from '../read'
import type { ReadElement } from '../../xml/read'
import { type FeedRule, inChannel, inItems } from './rule'

/** What is left in a title that was escaped twice, or read in another encoding than it was written in. */
const odd: readonly RegExp[] = [
  /&(?:amp|lt|gt|quot|apos|nbsp|#\d{1,7}|#x[\da-f]{1,6});/i,
  /<\/?[a-z][^<>]{0,200}>/i,
  /\ufffd/,
  // UTF-8 that was read as windows-1252: ü, é, ’, “, – and their like.
  /[\u00c2\u00c3][\u0080-\u00bf]|\u00e2\u20ac./,
]
const look = (within: ReadElement): string | null =>
  [textIn(within, 'title'), textIn(within, 'itunes:title')].find(title => odd.some(each => each.test(title))) ?? null

export const titleLetters: FeedRule = {
  name: 'title-letters',
  severity: 'warning',
  says: 'A title has signs in it that nobody meant.',
  rule: 'A title is plain text, escaped once, in the encoding that the document tells.',
  source: 'RSS Advisory Board, Best Practices Profile, title (from memory); XML 1.0, section 2.4',
  ifItStays: 'Apps show “&amp;”, “Ã¼” or tags in the middle of it.',
  fix: 'Rewrite the title as it should be read.',
  place: 'episode.title',
  find: met => [...inChannel(look)(met), ...inItems(look)(met)],
}
