import { parseHtml } from '../../xml/html'
import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

/** Elements whose end HTML leaves to the reader (HTML Living Standard, “Optional tags”). */
const endByThemselves = new Set(
  'html head body p li dt dd tr td th thead tbody tfoot colgroup caption option optgroup rt rp'.split(' '),
)
const voids = new Set('area base br col embed hr img input link meta source track wbr'.split(' '))

export const notesClosed: FeedRule = {
  name: 'notes-closed',
  severity: 'warning',
  says: 'Notes have a tag that is never closed.',
  rule: 'A link, a list or anything emphasised ends with its closing tag.',
  source: 'HTML Living Standard, “Optional tags”; itunes namespace, content:encoded (from memory)',
  ifItStays: 'Everything after it becomes a link, or bold, in some apps as far as the next episode.',
  fix: 'Close it where it should end.',
  place: 'episode.notes',
  find: inItems(item => {
    const open = new Set<string>()
    parseHtml(textIn(item, 'content:encoded') || textIn(item, 'description'), {
      onclosetag(name, isImplied) {
        if (isImplied && !endByThemselves.has(name) && !voids.has(name)) open.add(name)
      },
    })
    return open.size > 0 ? [...open].map(name => `<${name}>`).join(', ') : null
  }),
}
