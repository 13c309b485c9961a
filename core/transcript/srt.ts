import { type Cue, isTimed, type Reading, type Transcript } from './cue'
import { type Said, withName, withSpeakers } from './names'
import { withoutEmptyLines } from '../words/line'
import { looseMoment, srtStamp } from './stamps'

/** SubRip has no standard; this is as it is commonly written. */
const times = /^\s*([\d:.,]+)\s*-{2,}>\s*([\d:.,]+)(?:\s.*)?$/

/** Reads SubRip: numbered or not, with point or comma, with what is written around times. `known` are names of speakers. */
export function readSrt(words: string, known: readonly string[] = []): Reading {
  const lines = words.replace(/^\ufeff/, '').split('\n')
  const places: { at: number; fromMs: number; toMs: number }[] = []
  for (const [at, line] of lines.entries()) {
    if (!line.includes('-->')) continue
    const [, begin, end] = times.exec(line) ?? []
    const [fromMs, toMs] = [looseMoment(begin ?? ''), looseMoment(end ?? '')]
    if (fromMs !== null && toMs !== null) places.push({ at, fromMs, toMs })
  }
  let unnumbered = 0
  const found = places.map(({ at, fromMs, toMs }, index) => {
    const isNumbered = /^\s*\d+\s*$/.test(lines[at - 1] ?? '')
    if (!isNumbered) unnumbered++
    const next = places[index + 1]
    const end = next === undefined ? lines.length : next.at - (isNumberOf(lines, next.at) ? 1 : 0)
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
  const remarks =
    unnumbered > 0 && unnumbered < cues.length
      ? [`${unnumbered} cues had no number; they were taken all the same.`]
      : []
  return { transcript: { cues }, remarks }
}

/** Whether the line above times is their number, rather than the last words of the cue before. */
const isNumberOf = (lines: readonly string[], at: number): boolean =>
  /^\s*\d+\s*$/.test(lines[at - 1] ?? '') && (lines[at - 2] ?? '').trim() === ''

/** Tags, and places in braces, that players know. */
const markup = /<\/?(?:[biu]|font)(?:\s[^>]*)?>|\{\\[^}]*\}/gi

/** As it is written where it has no markup of its own. Players of SubRip know no escapes. */
const written = (said: Said): string => withoutEmptyLines(withName(said))

/** Writes SubRip; markup that it was read with goes back, where the text is still the one that it belongs to. */
export const writeSrt = ({ cues }: Pick<Transcript, 'cues'>): string =>
  cues
    .filter(isTimed)
    .map(({ fromMs, toMs, text, speaker, kept }, index) => {
      const { marked } = kept ?? {}
      const isAsRead = marked?.format === 'srt' && marked.text === text && marked.speaker === speaker
      return `${index + 1}\n${srtStamp(fromMs)} --> ${srtStamp(toMs)}\n${isAsRead ? marked.source : written({ text, speaker })}\n`
    })
    .join('\n')
