import { type Cue, type Reading, remark } from './cue'
import { withSpeakers } from './names'
import { readLooseTimestamp } from './timestamps'

const usualFields = 'Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text'

/**
 * Reads what is said in SubStation Alpha, also advanced (no standard; common practice, no source): the lines `Dialogue:`
 * of its `[Events]`, whose fields the line `Format:` names. Places, styles and drawings fall away.
 */
export function readAss(words: string, known: readonly string[] = []): Reading {
  let fields = fieldsIn(usualFields)
  const found: { fromMs: number; toMs: number; speaker: string | null; text: string }[] = []
  let unread = 0
  let isInEvents = false
  for (const line of words.split('\n')) {
    if (line.startsWith('[')) isInEvents = /^\[events\]/i.test(line)
    if (!isInEvents) continue
    if (/^format:/i.test(line)) fields = fieldsIn(line.slice('format:'.length))
    if (!/^dialogue:/i.test(line)) continue
    const values = valuesOf(line.slice('dialogue:'.length), fields.length)
    const value = (name: string): string => values[fields.indexOf(name)]?.trim() ?? ''
    const [fromMs, toMs] = [readLooseTimestamp(value('start')), readLooseTimestamp(value('end'))]
    const text = plain(value('text'))
    if (fromMs === null || toMs === null) unread++
    else if (text) found.push({ fromMs, toMs, speaker: value('name') || value('actor') || null, text })
  }
  found.sort((one, other) => one.fromMs - other.fromMs)
  const said = found.some(({ speaker }) => speaker)
    ? found
    : withSpeakers(
        found.map(({ text }) => text),
        known,
      )
  const cues = found.map(({ fromMs, toMs }, at): Cue => {
    const { speaker, text } = said[at]!
    return { id: `c${at + 1}`, fromMs, toMs, speaker, text }
  })
  const remarks = remark(
    unread,
    'One line has times that cannot be read and was left out.',
    'lines have times that cannot be read and were left out.',
  )
  return { transcript: { cues }, remarks }
}

const fieldsIn = (line: string): string[] => line.split(',').map(name => name.trim().toLowerCase())

/** The values of a line; the last one holds commas of its own. */
function valuesOf(line: string, count: number): string[] {
  const parts = line.split(',')
  return [...parts.slice(0, count - 1), parts.slice(count - 1).join(',')]
}

/** Words without what stands in braces; nothing of what is drawn. */
function plain(text: string): string {
  if (/\{[^{}]*\\p[1-9]/.test(text)) return ''
  return text
    .replace(/\{[^{}]*\}/g, '')
    .replace(/\\N/g, '\n')
    .replace(/\\[nh]/g, ' ')
    .split('\n')
    .map(line => line.trim())
    .filter(line => line !== '')
    .join('\n')
}
