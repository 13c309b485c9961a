import type { ReadElement } from '../../xml/read'
import type { FeedRule } from './rule'

const inChannels = new Set(
  'title link description language copyright managingEditor webMaster pubDate lastBuildDate category generator docs cloud ttl image rating textInput skipHours skipDays item'.split(
    ' ',
  ),
)
const inAnItem = new Set('title link description author category comments enclosure guid pubDate source'.split(' '))

export const plainElements: FeedRule = {
  name: 'plain-elements',
  severity: 'warning',
  says: 'There is an element that RSS does not have.',
  rule: 'Elements that RSS 2.0 does not describe have a namespace.',
  source: 'RSS 2.0, “Extending RSS”',
  ifItStays: 'Readers pass over it; what it should say is not said.',
  fix: 'Give it its prefix, or the right name.',
  place: 'host',
  find: ({ feed: { channel, items } }) => {
    if (!channel) return []
    const odd = (within: ReadElement, known: ReadonlySet<string>, item: number | null) =>
      within.children.flatMap(({ name }) => (name.includes(':') || known.has(name) ? [] : [{ item, value: name }]))
    return [...odd(channel, inChannels, null), ...items.flatMap((item, index) => odd(item, inAnItem, index))]
  },
}
