import { type Cue, type Reading, remark, timeToSay } from './cue'
import { withSpeakers } from './names'
import { readLooseTimestamp } from './timestamps'

const stamp = /\[(\d{1,3}:\d{2}(?:[.:,]\d{1,3})?)\] ?/y
function stampAt(line: string, at: number): RegExpExecArray | null {
  stamp.lastIndex = at
  return stamp.exec(line)
}
const words = /<\d{1,3}:\d{2}(?:[.:,]\d{1,3})?>/g
/** What a line of the head tells: `[ti:A letter from a chapel]`. */
export const lrcHead = /^\s*\[(ti|ar|al|au|by|re|ve|la|lr|offset|length|tool|#):([^\]]*)\]\s*$/i

/**
 * Reads timed lines of lyrics (LRC has no standard; common practice, no source): one or several times in brackets before
 * each line; a time without words ends the line before, and `offset` says by how many milliseconds all come earlier.
 */
export function readLrc(text: string, known: readonly string[] = []): Reading {
  const found: { fromMs: number; text: string }[] = []
  let offset = 0
  let untimed = 0
  for (const written of text.split('\n')) {
    const line = written.trim()
    const [, name, value] = lrcHead.exec(line) ?? []
    if (name?.toLowerCase() === 'offset') offset = Number(value) || 0
    if (name !== undefined || line === '') continue
    const begins: number[] = []
    let at = 0
    for (let match = stampAt(line, at); match; match = stampAt(line, at)) {
      // Some write a colon for the point before hundredths.
      begins.push(readLooseTimestamp(match[1]!.replace(/^(\d+:\d+):/, '$1.')) ?? 0)
      at += match[0].length
    }
    const said = line.slice(at).replace(words, '').trim()
    if (begins.length === 0) untimed++
    for (const fromMs of begins) found.push({ fromMs, text: said })
  }
  found.sort((one, other) => one.fromMs - other.fromMs)
  const spoken = withSpeakers(
    found.map(line => line.text),
    known,
  )
  const cues = found.flatMap(({ fromMs, text: line }, at): Cue[] => {
    if (line === '') return []
    const begin = Math.max(0, fromMs - offset)
    const end = Math.max(begin, (found[at + 1]?.fromMs ?? fromMs + timeToSay(line)) - offset)
    return [{ id: `c${at + 1}`, fromMs: begin, toMs: end, ...spoken[at]! }]
  })
  const remarks = remark(untimed, 'One line has no time and was left out.', 'lines have no time and were left out.')
  return { transcript: { cues }, remarks }
}
