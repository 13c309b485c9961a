import { decodeHTML } from 'entities'
import { type Cue, isTimed, longestSpeaker, NoTranscript, type Reading, type Transcript } from './cue'
import { trimmed, withoutEmptyLines } from '../words/line'
import { looseMoment, vttMoment, vttStamp } from './stamps'

/**
 * Reads WebVTT by the standard's own parsing (W3C WebVTT, section 6.1), which takes what it can. Times that only nearly
 * are any are taken, too, unless `isStrict`, and told.
 */
export function readVtt(words: string, isStrict = false): Reading {
  const lines = words
    .replace(/\0/g, '\ufffd')
    .replace(/^\ufeff/, '')
    .split('\n')
  const signature = /^WEBVTT(?:[ \t](.*))?$/.exec(lines[0] ?? '')
  const remarks: string[] = []
  if (!signature) {
    if (isStrict) throw new NoTranscript('A WebVTT file begins with the word WEBVTT.')
    remarks.push('The line WEBVTT was missing at the beginning.')
  }
  const cues: Cue[] = []
  const blocks: string[] = []
  let notes: string[] = []
  let nearly = 0
  const unread: string[] = []
  for (const block of blocksIn(lines, signature ? 1 : 0)) {
    if (block.kind === 'notes') notes.push(block.words)
    else if (block.kind === 'head') blocks.push(block.words)
    else if (block.kind === 'cue') {
      const times = timesOf(block.times, isStrict)
      if (!times) {
        unread.push(block.text.split('\n')[0]!)
        continue
      }
      if (times.isLoose) nearly++
      cues.push(cueOf(`c${cues.length + 1}`, block, times, notes))
      notes = []
    }
  }
  if (nearly > 0) remarks.push(`${nearly} times were not written as WebVTT wants them, and were taken all the same.`)
  if (unread.length > 0)
    remarks.push(
      `${unread.length === 1 ? 'One cue has' : `${unread.length} cues have`} times that are none, and were left out; the first says “${unread[0]}”.`,
    )
  const kept = {
    ...(signature?.[1] && { head: signature[1] }),
    ...(blocks.length > 0 && { blocks }),
    ...(notes.length > 0 && { notes }),
  }
  return { transcript: { cues, ...(Object.keys(kept).length > 0 && { kept }) }, remarks }
}

type Block =
  | { kind: 'notes' | 'head' | 'other'; words: string }
  | { kind: 'cue'; name: string | null; times: string; text: string }

/** The blocks of a file: apart by empty lines, and where another line of times begins (section 6.1, collect a block). */
function blocksIn(lines: readonly string[], from: number): Block[] {
  const found: Block[] = []
  let at = from
  // Behind the signature lines may follow that are no block of their own.
  if (from > 0 && lines[at] && !lines[at]!.includes('-->')) while (lines[at]) at++
  let hasCue = false
  while (at < lines.length) {
    if (lines[at] === '') {
      at++
      continue
    }
    const begin = at
    let times: number | null = null
    while (at < lines.length && lines[at] !== '') {
      if (lines[at]!.includes('-->')) {
        if (times !== null || at - begin > 1) break
        times = at
      }
      at++
    }
    if (times !== null) {
      hasCue = true
      const text = lines.slice(times + 1, at).join('\n')
      found.push({ kind: 'cue', name: times > begin ? lines[begin]! : null, times: lines[times]!, text })
    } else found.push({ kind: kindOf(lines[begin]!, hasCue), words: lines.slice(begin, at).join('\n') })
  }
  return found
}

function kindOf(first: string, hasCue: boolean): 'notes' | 'head' | 'other' {
  if (/^NOTE(?:[ \t]|$)/.test(first)) return 'notes'
  return !hasCue && /^(?:STYLE|REGION)[ \t]*$/.test(first) ? 'head' : 'other'
}

interface Times {
  fromMs: number
  toMs: number
  settings: string
  isLoose: boolean
}

function timesOf(line: string, isStrict: boolean): Times | null {
  const at = line.indexOf('-->')
  const [begin, rest] = [line.slice(0, at).trim(), line.slice(at + 3).trimStart()]
  const [, end = ''] = /^([\d:.,]+)/.exec(rest) ?? []
  const settings = rest.slice(end.length).trim()
  const [fromMs, toMs] = [vttMoment(begin), vttMoment(end)]
  if (fromMs !== null && toMs !== null) return { fromMs, toMs, settings, isLoose: false }
  if (isStrict) return null
  const [from, to] = [looseMoment(begin), looseMoment(end)]
  return from === null || to === null ? null : { fromMs: from, toMs: to, settings, isLoose: true }
}

function cueOf(
  id: string,
  { name, text: source }: Extract<Block, { kind: 'cue' }>,
  { fromMs, toMs, settings }: Times,
  notes: readonly string[],
): Cue {
  const { text, speaker } = spoken(source)
  const isMarked = written(text, speaker) !== source
  const kept = {
    ...(name !== null && { name }),
    ...(settings && { settings }),
    ...(isMarked && { marked: { format: 'vtt' as const, source, text, speaker } }),
    ...(notes.length > 0 && { notes }),
  }
  return { id, fromMs, toMs, speaker, text, ...(Object.keys(kept).length > 0 && { kept }) }
}

const tag = /<([^>]*)(?:>|$)/g
const voice = /^v(?:\.[^\s]*)?[ \t\n]+([^]*)$/

/** What a cue's markup says, and who says it: its first voice (section 6.4). */
function spoken(source: string): { text: string; speaker: string | null } {
  let speaker: string | null = null
  const plain = source.replace(tag, (_tag, inside: string) => {
    const name = voice.exec(inside)?.[1]
    if (name !== undefined) speaker ??= decodeHTML(name).replace(/\s+/g, ' ').trim().slice(0, longestSpeaker) || null
    return ''
  })
  return { text: decodeHTML(plain), speaker }
}

const escaped = (text: string): string =>
  /[&<>]/.test(text) ? text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;') : text

/** A cue's text as it is written where it has no markup of its own; an empty line would end it. */
function written(text: string, speaker: string | null): string {
  const lines = withoutEmptyLines(escaped(text))
  return speaker ? `<v ${escaped(speaker)}>${lines}` : lines
}

/** What a cue says as it stands in a file. */
export function vttText({ text, speaker, kept }: Pick<Cue, 'text' | 'speaker' | 'kept'>): string {
  const { marked } = kept ?? {}
  const isAsRead = marked?.format === 'vtt' && marked.text === text && marked.speaker === speaker
  return isAsRead ? marked.source : written(text, speaker)
}

/** Writes WebVTT; what it was read with goes back, where the text is still the one that it belongs to. */
export function writeVtt({ cues, kept = {} }: Transcript): string {
  const blocks = [
    `WEBVTT${kept.head ? ` ${kept.head}` : ''}`,
    ...(kept.blocks ?? []),
    ...cues.filter(isTimed).flatMap(cue => {
      const { name, settings, notes = [] } = cue.kept ?? {}
      const lines = [
        ...(name === undefined ? [] : [name]),
        `${vttStamp(cue.fromMs)} --> ${vttStamp(cue.toMs)}${settings ? ` ${settings}` : ''}`,
        vttText(cue),
      ]
      return [...notes, trimmed(lines.join('\n'), '\n')]
    }),
    ...(kept.notes ?? []),
  ]
  return `${blocks.join('\n\n')}\n`
}
