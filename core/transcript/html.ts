import { escapeText } from 'entities'
import { clock } from '../words/amounts'
import { parseHtml } from '../xml/html'
import { type Cue, type Reading, timeToSay, type Transcript } from './cue'
import { readPlain } from './plain'
import { readLooseTimestamp, vttTimestamp } from './timestamps'

interface Part {
  speaker: string | null
  fromMs: number | null
  text: string
}

const leftOut = new Set(['script', 'style', 'head', 'title', 'template', 'noscript'])
const breaks = new Set(['p', 'div', 'li', 'br', 'h1', 'h2', 'h3', 'h4', 'section', 'article', 'tr', 'blockquote'])

/**
 * Reads a transcript in HTML: `cite` with who speaks, `time` with when, `p` with what (transcript page of the podcast
 * namespace, from memory). Of HTML without these the words are read as plain text.
 */
export function readHtml(words: string, known: readonly string[] = []): Reading {
  const parts: Part[] = []
  let plain = ''
  let [open, hidden] = ['', 0]
  let next: Omit<Part, 'text'> = { speaker: null, fromMs: null }
  let heard = ''
  parseHtml(words, {
    onopentag(name, { datetime }) {
      if (leftOut.has(name)) hidden++
      if (name === 'cite' || name === 'time' || name === 'p') [open, heard] = [name, '']
      if (name === 'time' && datetime) next.fromMs = readLooseTimestamp(datetime)
      if (name === 'br' && open === 'p') heard += '\n'
    },
    ontext(text) {
      if (hidden > 0) return
      heard += text
      plain += text
    },
    onclosetag(name) {
      if (leftOut.has(name)) hidden--
      if (breaks.has(name)) plain += name === 'br' ? '\n' : '\n\n'
      if (name !== 'cite' && name !== 'time' && name !== 'p') return
      const told = heard.replace(/[^\S\n]+/g, ' ').trim()
      if (name === 'cite') next.speaker = told.replace(/:$/, '') || null
      else if (name === 'time') next.fromMs ??= readLooseTimestamp(told.replace(/[()[\]]/g, ''))
      else if (told) {
        parts.push({ ...next, text: told })
        next = { speaker: null, fromMs: null }
      } else return
      ;[open, heard] = ['', '']
    },
  })
  if (!parts.some(({ speaker, fromMs }) => speaker !== null || fromMs !== null))
    return readPlain(plain.replace(/[^\S\n]+/g, ' '), known)
  const isTimed = parts.every(({ fromMs }) => fromMs !== null)
  const cues = parts.map(({ speaker, fromMs, text }, at): Cue => {
    const end = parts[at + 1]?.fromMs ?? (fromMs ?? 0) + timeToSay(text)
    return { id: `c${at + 1}`, fromMs: isTimed ? fromMs : null, toMs: isTimed ? end : null, speaker, text }
  })
  return { transcript: { cues }, remarks: [] }
}

/** Writes the part of an HTML page that holds what was said. */
export const writeHtml = ({ cues }: Pick<Transcript, 'cues'>): string =>
  cues
    .map(({ speaker, fromMs, text }) =>
      [
        ...(speaker ? [`<cite>${escapeText(speaker)}:</cite>`] : []),
        ...(fromMs === null ? [] : [`<time datetime="${vttTimestamp(fromMs)}">${clock(fromMs)}</time>`]),
        `<p>${escapeText(text).replace(/\n/g, '<br>')}</p>`,
      ].join('\n'),
    )
    .join('\n')
