import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const notesScript: FeedRule = {
  name: 'notes-script',
  severity: 'error',
  says: 'Notes carry a script, a style or a frame.',
  rule: 'Notes are words with light markup; nothing in them runs.',
  source: 'OWASP Cross Site Scripting Prevention cheat sheet',
  ifItStays: 'Careful apps drop the notes as a whole; careless ones run it.',
  fix: 'Paste the words without their formatting.',
  place: 'episode.notes',
  find: inItems(item => {
    const html = `${textIn(item, 'content:encoded')} ${textIn(item, 'description')}`
    return /<(script|style|iframe|object|embed)\b|\bon[a-z]+\s*=\s*["']|javascript:/i.exec(html)?.[0]
  }),
}
