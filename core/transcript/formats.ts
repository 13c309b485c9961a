import { wordsOf } from './bytes'
import { isTimed, mostCues, NoTranscript, type Reading, type Transcript } from './cue'
import { readHtml, writeHtml } from './html'
import { readJson, writeJson } from './json'
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

const readers: Readonly<Record<TranscriptFormat, (words: string, known: readonly string[]) => Reading>> = {
  vtt: words => readVtt(words),
  srt: readSrt,
  json: readJson,
  html: readHtml,
  txt: readPlain,
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

/** What a text is, by its words and not by its name. */
export function formatOf(words: string): TranscriptFormat {
  const head = words
    .slice(0, 4000)
    .replace(/^\ufeff/, '')
    .trimStart()
  if (/^WEBVTT(?:\s|$)/.test(head)) return 'vtt'
  if (/^[{[]\s*["{[\]}]/.test(head)) return 'json'
  const firstTimes = /^[\d:.,\s]*?\d(?:\s*)-->\s*[\d:.,]+/m.exec(words.slice(0, 20_000))
  if (firstTimes) return /-->\s*[\d:]+\./.test(firstTimes[0]) && !firstTimes[0].includes(',') ? 'vtt' : 'srt'
  return /^<(?:!doctype|html|body|head|div|section|article|p|cite|time|h[1-6])\b/i.test(head) ? 'html' : 'txt'
}

/**
 * Reads a transcript whichever of the formats and encodings it is in. `known` are names of speakers. Throws NoTranscript
 * with what is wrong where it is none.
 */
export function readTranscript(
  bytes: Uint8Array,
  known: readonly string[] = [],
): Reading & { format: TranscriptFormat } {
  if (bytes.length > mostTranscriptBytes)
    throw new NoTranscript(`It has ${Math.round(bytes.length / 1e6)} MB; a transcript has at most 10 MB.`)
  const words = wordsOf(bytes)
  if (/\0/.test(words.slice(0, 10_000)))
    throw new NoTranscript('It is no text: there are bytes in it that no text has.')
  if (words.trim() === '') throw new NoTranscript('There is nothing in it.')
  const format = formatOf(words)
  const reading = readers[format](words, known)
  const cues = reading.transcript.cues.filter(({ text }) => text.trim() !== '' || format === 'vtt')
  if (cues.length === 0) throw new NoTranscript('There are no words in it that somebody could have said.')
  if (cues.length > mostCues)
    throw new NoTranscript(
      `It has ${cues.length.toLocaleString('en')} parts; at most ${mostCues.toLocaleString('en')} are taken.`,
    )
  return { ...reading, transcript: { ...reading.transcript, cues }, format }
}
