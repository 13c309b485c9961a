import { timestampText } from '../words/timestamps'
import { type Cue, type Reading, timeToSay, type Transcript } from './cue'
import { withName, withSpeakers } from './names'
import { readLooseTimestamp } from './timestamps'

/** A time at a line's beginning, in brackets or not. */
const time = /^[[(]?(\d{1,3}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?)[\])]?(?:\s*[-–—]\s*)?\s*/

interface Part {
  fromMs: number | null
  /** Its lines; put together at the end, so that no text grows line by line. */
  lines: string[]
}

/**
 * Reads plain text: a part for each paragraph, or for each line where every line is one; before it the time and the name
 * of who speaks, where they stand there, also on a line of their own. Where no times are, nobody knows them yet.
 */
export function readPlain(words: string, known: readonly string[] = []): Reading {
  const parts = partsIn(words.replace(/^\ufeff/, '').split('\n'))
  const said = withSpeakers(
    parts.map(({ lines }) => textOf(lines)),
    known,
  )
  const hasTimes = parts.length > 0 && parts.every(({ fromMs }) => fromMs !== null)
  const cues = parts.map(({ fromMs }, at): Cue => {
    const next = parts[at + 1]?.fromMs ?? null
    const begin = hasTimes ? fromMs : null
    // The last one is as long as it takes to say it.
    const end = begin === null ? null : (next ?? begin + timeToSay(said[at]!.text))
    return { id: `c${at + 1}`, fromMs: begin, toMs: end, ...said[at]! }
  })
  const some = parts.filter(({ fromMs }) => fromMs !== null).length
  const remarks = some > 0 && !hasTimes ? [`Only ${some} of ${parts.length} parts have a time, so none was taken.`] : []
  return { transcript: { cues }, remarks }
}

function partsIn(lines: readonly string[]): Part[] {
  const parts: Part[] = []
  let open: Part | null = null
  /** A time that stands on a line by itself belongs to what follows. */
  let waiting: number | null = null
  for (const line of lines) {
    const [head = '', stamp] = time.exec(line.trim()) ?? []
    const fromMs = stamp === undefined ? null : readLooseTimestamp(stamp)
    const text = fromMs === null ? line.trim() : line.trim().slice(head.length)
    if (text === '' && fromMs !== null) {
      waiting = fromMs
      open = null
    } else if (text === '') open = null
    else if (open && fromMs === null) open.lines.push(text)
    else {
      open = { fromMs: fromMs ?? waiting, lines: [text] }
      waiting = null
      parts.push(open)
    }
  }
  return parts
}

/** What follows a line that ends in a colon is said by whom it names. */
const textOf = (lines: readonly string[]): string =>
  lines.map((line, at) => (at === 0 ? line : `${lines[at - 1]!.endsWith(':') ? ' ' : '\n'}${line}`)).join('')

/** Writes plain text: a paragraph for each part, who speaks before it, and if wanted its time. */
export const writePlain = ({ cues }: Pick<Transcript, 'cues'>, withTimes = false): string =>
  `${cues
    .map(cue => `${withTimes && cue.fromMs !== null ? `[${timestampText(cue.fromMs)}] ` : ''}${withName(cue)}`)
    .join('\n\n')}\n`
