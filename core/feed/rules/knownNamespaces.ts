import { namespaces } from '../xml'
import type { FeedRule } from './rule'

const older = 'https://github.com/podcastindex-org/podcast-namespace/blob/main/docs/1.0.md'

export const knownNamespaces: FeedRule = {
  name: 'known-namespaces',
  severity: 'error',
  says: 'A prefix is bound to a namespace that readers do not expect.',
  rule: 'A namespace is told by its whole address, letter by letter; the prefix is only short for it.',
  source: 'Namespaces in XML 1.0, section 2.3; the itunes, podcast and atom namespaces',
  ifItStays: 'Apps pass over every element with that prefix: artwork, categories, durations.',
  fix: 'Declare the namespace with its published address.',
  place: 'host',
  find: ({ feed: { document } }) =>
    Object.entries(namespaces).flatMap(([prefix, wanted]) => {
      const declared = document.namespaces.get(prefix)
      const fits = declared === undefined || declared === wanted || declared === older
      return fits ? [] : [{ item: null, value: `xmlns:${prefix}="${declared}"` }]
    }),
}
