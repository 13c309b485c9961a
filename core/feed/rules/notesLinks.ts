import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const notesLinks: FeedRule = {
  name: 'notes-links',
  severity: 'warning',
  says: 'A link in notes leads nowhere from an app.',
  rule: 'A link has its whole address, with http or https.',
  source: 'RFC 3986, section 4.1: what has no scheme is relative to where it stands',
  ifItStays: 'It does not work for anyone who follows it.',
  fix: 'Give its whole address.',
  place: 'episode.notes',
  find: inItems(item =>
    [...textIn(item, 'content:encoded').matchAll(/<a\b[^>]*?\bhref\s*=\s*["']([^"']*)["']/gi)]
      .map(([, address]) => address!)
      .find(address => !/^(https?:\/\/|mailto:|tel:)/i.test(address.trim())),
  ),
}
