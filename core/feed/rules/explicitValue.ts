import { textIn } from '../read'
import type { ReadElement } from '../../xml/read'
import type { FeedRule } from './rule'

/** `yes`, `no` and `clean` are of an older edition, and read by all. */
const known = /^(true|false|yes|no|clean)$/i

export const explicitValue: FeedRule = {
  name: 'explicit-value',
  severity: 'warning',
  says: 'Whether it is explicit is told by a word that nobody knows.',
  rule: 'itunes:explicit is true or false.',
  source: 'itunes namespace, explicit (from memory)',
  ifItStays: 'Apps may treat it as explicit or as clean.',
  fix: 'Say yes or no.',
  place: 'show.explicit',
  find: ({ feed: { channel, items } }) => {
    const odd = (within: ReadElement, item: number | null) => {
      const value = textIn(within, 'itunes:explicit')
      return value === '' || known.test(value) ? [] : [{ item, value }]
    }
    return channel ? [...odd(channel, null), ...items.flatMap((item, index) => odd(item, index))] : []
  },
}
