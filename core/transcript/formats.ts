import { longestSoundMs } from '../episode/fields'
import { readAss } from './ass'
import { wordsOf } from './bytes'
import { type Cue, isTimed, mostCues, NoTranscript, type Reading, remark, timeToSay, type Transcript } from './cue'
import { estimatedSure } from './doubtful'
import { readHtml, writeHtml } from './html'
import { readJson, writeJson } from './json'
import { lrcHead, readLrc } from './lrc'
import { readPlain, writePlain } from './plain'
import { readSrt, writeSrt } from './srt'
import { readVtt, writeVtt } from './vtt'

export const transcriptFormats = ['vtt', 'srt', 'json', 'html', 'txt'] as const
export type TranscriptFormat = (typeof transcriptFormats)[number]

/** The media type of each (IANA; SubRip as the podcast namespace names it). */
export const transcriptTypes: Readonly<Record<TranscriptFormat, string>> = {
  vtt: 'text/vtt',
  srt: 'application/x-subrip',
  json: 'application/json',
  html: 'text/html',
  txt: 'text/plain',
}

/** What is read and not written: apps for listening take none of these. */
type ReadOnlyFormat = 'ass' | 'lrc'
export type ReadFormat = TranscriptFormat | ReadOnlyFormat

const readers: Readonly<Record<ReadFormat, (words: string, known: readonly string[]) => Reading>> = {
  vtt: words => readVtt(words),
  srt: readSrt,
  json: readJson,
  html: readHtml,
  txt: readPlain,
  ass: readAss,
  lrc: readLrc,
}

const writers: Readonly<Record<TranscriptFormat, (transcript: Transcript) => string>> = {
  vtt: writeVtt,
  srt: writeSrt,
  json: writeJson,
  html: writeHtml,
  txt: writePlain,
}

/** Captions need times: a transcript without any can be written in the other formats only. */
export const formatsOf = ({ cues }: Pick<Transcript, 'cues'>): TranscriptFormat[] =>
  transcriptFormats.filter(format => (format !== 'vtt' && format !== 'srt') || cues.some(isTimed))

export const writeTranscript = (format: TranscriptFormat, transcript: Transcript): string => writers[format](transcript)

export const mostTranscriptBytes = 10_000_000

/** Elements that a page or a part of one begins with. */
const htmlHead =
  /^(?:<\?xml[^>]*>\s*)?<(?:!--|(?:!doctype\s+html|html|head|meta|title|link|style|script|body|main|article|section|header|div|p|h[1-6]|cite|time|span|table|[ou]l|dl|blockquote|figure|br|b|i|em|strong|font|a)\b)/i

/** What a text is, by its words and not by its name. */
export function formatOf(words: string): ReadFormat {
  const head = words
    .slice(0, 4000)
    .replace(/^\ufeff/, '')
    .trimStart()
  if (/^WEBVTT(?:\s|$)/.test(head)) return 'vtt'
  if (/^\[script info\]/i.test(head)) return 'ass'
  if (lrcHead.test(head.split('\n')[0]!) || /^\[\d{1,3}:\d{2}[.:]\d{2,3}\]/.test(head)) return 'lrc'
  if (/^[{[]\s*["{[\]}]/.test(head)) return 'json'
  const firstTimes = /^[-\d:.,\s]*?\d\s*(?:-+>|→)\s*-?\d[\d:.,]*/m.exec(words.slice(0, 20_000))
  if (firstTimes) return /(?:>|→)\s*[\d:]+\./.test(firstTimes[0]) && !firstTimes[0].includes(',') ? 'vtt' : 'srt'
  return htmlHead.test(head) ? 'html' : 'txt'
}

/** Texts that are something else, by how they begin. */
const otherwise: readonly (readonly [begin: RegExp, name: string])[] = [
  [/^\{\\rtf/, 'a text with formatting (RTF)'],
  [/^%PDF-/, 'a PDF'],
  [/^(?:<\?xml[^>]*>\s*)?<tt[\s>:]/, 'captions in TTML'],
  [/^<\?xml[^>]*>\s*<(?!html\b|!doctype\s+html\b|!--)/i, 'XML'],
]

/**
 * Reads a transcript whichever of the formats and encodings it is in. `known` are names of speakers. Throws NoTranscript
 * with what is wrong where it is none.
 */
export function readTranscript(bytes: Uint8Array, known: readonly string[] = []): Reading & { format: ReadFormat } {
  if (bytes.length > mostTranscriptBytes)
    throw new NoTranscript(`It has ${Math.round(bytes.length / 1e6)} MB; a transcript has at most 10 MB.`)
  const words = wordsOf(bytes)
  if (/\0/.test(words.slice(0, 10_000)))
    throw new NoTranscript('It is no text: there are bytes in it that no text has.')
  if (words.trim() === '') throw new NoTranscript('There is nothing in it.')
  const other = otherwise.find(([begin]) => begin.test(words.trimStart()))?.[1]
  if (other)
    throw new NoTranscript(
      `It is ${other}, which is not read here; save it as WebVTT, SubRip, JSON, HTML or plain text and bring that.`,
    )
  const format = formatOf(words)
  const reading = readers[format](words, known)
  const cues = reading.transcript.cues.filter(({ text }) => text.trim() !== '' || format === 'vtt')
  if (cues.length === 0) throw new NoTranscript('There are no words in it that somebody could have said.')
  if (cues.length > mostCues)
    throw new NoTranscript(
      `It has ${cues.length.toLocaleString('en')} parts; at most ${mostCues.toLocaleString('en')} are taken.`,
    )
  const [bounded, endless] = withEnds(cues)
  const remarks = [
    ...reading.remarks,
    ...remark(
      endless,
      'One time lay further on than any audio is long; it is estimated now.',
      'times lay further on than any audio is long; they are estimated now.',
    ),
  ]
  return { remarks, transcript: { ...reading.transcript, cues: bounded }, format }
}

/** Cues that end beyond any sound, though they begin within one, get an end by what they say; and how many they were. */
function withEnds(cues: readonly Cue[]): [cues: Cue[], endless: number] {
  let endless = 0
  const bounded = cues.map((cue, at) => {
    if (!isTimed(cue) || cue.fromMs >= longestSoundMs || cue.toMs < longestSoundMs) return cue
    endless++
    const next = cues[at + 1]?.fromMs ?? longestSoundMs
    const end = cue.fromMs + timeToSay(cue.text)
    return { ...cue, toMs: next > cue.fromMs ? Math.min(next, end) : end, sure: estimatedSure }
  })
  return [bounded, endless]
}
