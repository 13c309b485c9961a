import { type Cue, inOrder, type Reading, remark, type Transcript } from './cue'
import { type Said, withName, withSpeakers } from './names'
import { withoutEmptyLines } from '../words/line'
import { readLooseTimestamp, srtTimestamp } from './timestamps'

/** SubRip has no standard; this is as it is commonly written, and with the arrows that people type. */
const times = /^\s*(-?[\d:.,]+)\s*(?:-+>|→)\s*(-?[\d:.,]+)(?:\s.*)?$/
const longestTimes = 300
/** What would be times, and is none that can be read. */
const nearly = /^[\s\d:.,-]*\d:\d[\d:.,\s-]*(?:>|→)/

/** Reads SubRip: numbered or not, with point or comma, with what is written around times. `known` are names of speakers. */
export function readSrt(words: string, known: readonly string[] = []): Reading {
  const lines = words.replace(/^\ufeff/, '').split('\n')
  const places: { at: number; fromMs: number; toMs: number }[] = []
  const unread: string[] = []
  let early = 0
  for (const [at, line] of lines.entries()) {
    if (line.length > longestTimes || !/[>→]/.test(line)) continue
    const [, begin, end] = times.exec(line) ?? []
    const [fromMs, toMs] = [timestamp(begin ?? ''), timestamp(end ?? '')]
    if (fromMs !== null && toMs !== null && toMs >= 0) {
      if (fromMs < 0) early++
      places.push({ at, fromMs: Math.max(0, fromMs), toMs })
    } else if (nearly.test(line)) unread.push(line.trim())
  }
  const numbered = places.map(({ at }) => numberAt(lines, at - 1))
  const found = places.map(({ at, fromMs, toMs }, index) => {
    const next = places[index + 1]
    const isNumberNext = next !== undefined && isNumberOf(lines, next.at, numbered[index] ?? null)
    const end = next === undefined ? lines.length : next.at - (isNumberNext ? 1 : 0)
    const source = lines
      .slice(at + 1, end)
      .map(line => line.trimEnd())
      .filter(line => line !== '')
      .join('\n')
    return { fromMs, toMs, source }
  })
  const said = withSpeakers(
    found.map(({ source }) => (/[<{]/.test(source) ? source.replace(markup, '') : source)),
    known,
  )
  const cues = found.map(({ fromMs, toMs, source }, index): Cue => {
    const { text, speaker } = said[index]!
    const isMarked = written(said[index]!) !== source
    return {
      id: `c${index + 1}`,
      fromMs,
      toMs,
      speaker,
      text,
      ...(isMarked && { kept: { marked: { format: 'srt', source, text, speaker } } }),
    }
  })
  const unnumbered = numbered.filter(number => number === null).length
  return {
    transcript: { cues },
    remarks: [
      ...remark(
        unnumbered < cues.length ? unnumbered : 0,
        'One cue had no number and was taken all the same.',
        'cues had no number and were taken all the same.',
      ),
      ...remark(
        early,
        'One cue began before 0:00 and now begins there.',
        'cues began before 0:00 and now begin there.',
      ),
      ...remark(
        unread.length,
        `“${unread[0]}” looks like times that cannot be read, and stands among the words.`,
        `lines look like times that cannot be read and stand among the words; the first is “${unread[0]}”.`,
      ),
    ],
  }
}

/** Milliseconds of a time, which lies before the beginning where a sign stands before it. */
function timestamp(text: string): number | null {
  if (!text.startsWith('-')) return readLooseTimestamp(text)
  const ms = readLooseTimestamp(text.slice(1))
  return ms === null ? null : -ms
}

const numberAt = (lines: readonly string[], at: number): number | null =>
  /^\s*\d{1,9}\s*$/.test(lines[at] ?? '') ? Number(lines[at]) : null

/**
 * Whether the line above times is their number, rather than the last words of the cue before: it stands below an empty
 * line, or is the one that follows the number before.
 */
function isNumberOf(lines: readonly string[], at: number, before: number | null): boolean {
  const number = numberAt(lines, at - 1)
  if (number === null) return false
  return (lines[at - 2] ?? '').trim() === '' || (before !== null && number === before + 1)
}

/** Tags, and places in braces, that players know. */
const markup = /<\/?(?:[biu]|font)(?:\s[^>]*)?>|\{\\[^}]*\}/gi

/** As it is written where it has no markup of its own. Players of SubRip know no escapes. */
const written = (said: Said): string => withoutEmptyLines(withName(said))

/** Lines of SubRip have at most so many letters (podcast namespace, transcript page, from memory). */
const longestLine = 32

/** A text whose lines are broken between words where they are too long; a longer word stays whole. */
const broken = (text: string): string => text.split('\n').flatMap(brokenLine).join('\n')
function brokenLine(line: string): string[] {
  if (line.length <= longestLine) return [line]
  const lines: string[][] = [[]]
  let length = 0
  for (const word of line.split(' ')) {
    if (length > 0 && length + word.length > longestLine) {
      lines.push([])
      length = 0
    }
    lines.at(-1)!.push(word)
    length += word.length + 1
  }
  return lines.map(words => words.join(' '))
}

/** Writes SubRip; markup that it was read with goes back, where the text is still the one that it belongs to. */
export const writeSrt = ({ cues }: Pick<Transcript, 'cues'>): string =>
  inOrder(cues)
    .map(({ fromMs, toMs, text, speaker, kept }, index) => {
      const { marked } = kept ?? {}
      const isAsRead = marked?.format === 'srt' && marked.text === text && marked.speaker === speaker
      return `${index + 1}\n${srtTimestamp(fromMs)} --> ${srtTimestamp(toMs)}\n${isAsRead ? marked.source : broken(written({ text, speaker }))}\n`
    })
    .join('\n')
