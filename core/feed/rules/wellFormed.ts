import type { FeedRule } from './rule'

export const wellFormed: FeedRule = {
  name: 'well-formed',
  severity: 'error',
  says: 'It is no well-formed XML document.',
  rule: 'A feed is an XML document; what is not well-formed is none, from the first fault on.',
  source: 'XML 1.0, sections 1.2 and 2.1; RSS 2.0, “All RSS files must conform to the XML 1.0 specification”',
  ifItStays: 'Apps and directories cannot read it at all.',
  fix: 'Correct it there, in whatever writes the feed.',
  place: 'host',
  find: ({ feed: { document } }) =>
    document.fault
      ? [
          {
            item: null,
            value: `line ${document.fault.line}, column ${document.fault.column}: ${document.fault.says}`,
          },
        ]
      : [],
}
