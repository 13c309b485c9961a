import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

/** What most apps draw; `itunes` names p, ol, ul, li and a. */
const drawn = new Set(
  'p br a ul ol li b strong i em u h1 h2 h3 h4 h5 h6 span div blockquote hr small sup sub'.split(' '),
)

export const notesMarkup: FeedRule = {
  name: 'notes-markup',
  severity: 'note',
  says: 'Notes have markup that apps do not draw.',
  rule: 'Apps draw paragraphs, lists, links, bold and italic, and drop the rest.',
  source: 'itunes namespace, description and content:encoded (from memory); common practice, no source',
  ifItStays: 'Pictures, tables and frames are missing there.',
  fix: 'Say it in words, and link to the rest.',
  place: 'episode.notes',
  find: inItems(item => {
    const html = textIn(item, 'content:encoded')
    const odd = [...html.matchAll(/<([a-z][a-z0-9]*)\b/gi)].map(([, name]) => name!.toLowerCase())
    const not = [...new Set(odd)].filter(name => !drawn.has(name) && !executed.has(name))
    return not.length > 0 ? not.join(', ') : null
  }),
}
const executed = new Set(['script', 'style', 'iframe', 'object', 'embed'])
