import { decodeHTML } from 'entities'
import { type Cue, inOrder, longestSpeaker, NoTranscript, type Reading, remark, type Transcript } from './cue'
import { estimatedSure } from './doubtful'
import { trimmed, withoutEmptyLines } from '../words/line'
import { readLooseTimestamp, readVttTimestamp, vttTimestamp } from './timestamps'

/**
 * Reads WebVTT by the standard's own parsing (W3C WebVTT, section 6.1), which takes what it can. Unless `isStrict`, times
 * that only nearly are any are taken, too, a cue of several voices becomes one for each, and what is left out is told.
 */
export function readVtt(words: string, isStrict = false): Reading {
  const lines = words
    .replace(/\0/g, '\ufffd')
    .replace(/^\ufeff/, '')
    .split('\n')
  const signature = /^WEBVTT(?:[ \t](.*))?$/.exec(lines[0] ?? '')
  if (!signature && isStrict) throw new NoTranscript('A WebVTT file begins with the word WEBVTT.')
  const cues: Cue[] = []
  const blocks: string[] = []
  let notes: string[] = []
  const header = headerIn(lines, signature ? 1 : 0)
  const met: Met = { isUnsigned: !signature, nearly: 0, placed: 0, shared: 0, unread: [], untimed: [], shift: '' }
  for (const block of blocksIn(lines, (signature ? 1 : 0) + header.length)) {
    if (block.kind === 'notes') notes.push(block.words)
    else if (block.kind === 'head') blocks.push(block.words)
    else if (block.kind === 'other') met.untimed.push(block.words.split('\n')[0]!)
    else if (block.kind === 'cue') {
      const times = timesOf(block.times, isStrict)
      if (!times) {
        met.unread.push(block.text.split('\n')[0]!)
        continue
      }
      const settings = isStrict ? times.settings : knownSettings(times.settings)
      const voices = isStrict ? [block.text] : voicesIn(block.text)
      if (times.isLoose) met.nearly++
      if (settings !== times.settings) met.placed++
      if (voices.length > 1) met.shared++
      const parts = voices.length > 1 ? cuesOf(voices, times) : [{ source: block.text }]
      for (const { source, ...part } of parts)
        cues.push(cueOf(`c${cues.length + 1}`, { ...block, text: source }, { ...times, ...part, settings }, notes))
      notes = []
    }
  }
  met.shift = [...header, ...met.untimed].find(line => line.startsWith('X-TIMESTAMP-MAP')) ?? ''
  const head = [signature?.[1] ?? '', ...header.filter(line => line !== met.shift)]
  const kept = {
    ...(head.some(line => line !== '') && { head: head.join('\n') }),
    ...(blocks.length > 0 && { blocks }),
    ...(notes.length > 0 && { notes }),
  }
  return {
    transcript: { cues, ...(Object.keys(kept).length > 0 && { kept }) },
    remarks: isStrict ? [] : remarksOf(met),
  }
}

/** What could not be taken as it stands. */
interface Met {
  isUnsigned: boolean
  /** Cues: with times that only nearly are any, with settings that are none, of several voices. */
  nearly: number
  placed: number
  shared: number
  /** First lines of cues whose times cannot be read, and of blocks without any. */
  unread: string[]
  untimed: string[]
  /** By how much a stream's times are shifted (RFC 8216, section 3.5). */
  shift: string
}

function remarksOf({ isUnsigned, nearly, placed, shared, unread, untimed, shift }: Met): string[] {
  const lost = untimed.filter(line => line !== shift)
  return [
    ...(isUnsigned ? ['The line WEBVTT was missing at the beginning.'] : []),
    ...(shift ? [`It says “${shift}”, for pieces of a stream; its times were taken as they stand.`] : []),
    ...remark(
      nearly,
      'One time was not written as WebVTT has it and was taken all the same.',
      'times were not written as WebVTT has them and were taken all the same.',
    ),
    ...remark(
      unread.length,
      `“${unread[0]}” stands in a cue whose times cannot be read and was left out.`,
      `cues have times that cannot be read and were left out; the first says “${unread[0]}”.`,
    ),
    ...remark(
      lost.length,
      `“${lost[0]}” stands in a block without times and was left out.`,
      `blocks have no times and were left out; the first says “${lost[0]}”.`,
    ),
    ...remark(
      placed,
      'One cue has settings that WebVTT does not know; they were left out.',
      'cues have settings that WebVTT does not know; they were left out.',
    ),
    ...remark(
      shared,
      'One cue held several voices; each has its own cue now, whose times are estimated.',
      'cues held several voices; each voice has its own cue now, whose times are estimated.',
    ),
  ]
}

type Block =
  | { kind: 'notes' | 'head' | 'other'; words: string }
  | { kind: 'cue'; name: string | null; times: string; text: string }

/** The lines behind the signature that are no block of their own. */
function headerIn(lines: readonly string[], from: number): string[] {
  if (from === 0) return []
  let at = from
  while (lines[at] && !lines[at]!.includes('-->')) at++
  // What stands right above times is their name.
  if (at > from && lines[at]?.includes('-->')) at--
  return lines.slice(from, at)
}

/** The blocks of a file: apart by empty lines, and where another line of times begins (section 6.1, collect a block). */
function blocksIn(lines: readonly string[], from: number): Block[] {
  const found: Block[] = []
  let at = from
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
  const [fromMs, toMs] = [readVttTimestamp(begin), readVttTimestamp(end)]
  if (fromMs !== null && toMs !== null) return { fromMs, toMs, settings, isLoose: false }
  if (isStrict) return null
  const [from, to] = [readLooseTimestamp(begin), readLooseTimestamp(end)]
  return from === null || to === null ? null : { fromMs: from, toMs: to, settings, isLoose: true }
}

/** Settings as the standard has them (section 4.4); other formats' places on a picture have crept in with some. */
const knownSettings = (settings: string): string =>
  settings
    .split(/[ \t]+/)
    .filter(setting => /^(?:vertical|line|position|size|align|region):\S/.test(setting))
    .join(' ')

function cueOf(
  id: string,
  { name, text: source }: Extract<Block, { kind: 'cue' }>,
  { fromMs, toMs, settings, sure }: Times & { sure?: number },
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
  return {
    ...{ id, fromMs, toMs, speaker, text },
    ...(Object.keys(kept).length > 0 && { kept }),
    ...(sure !== undefined && { sure }),
  }
}

/** What each voice of a cue says, with its markup; one part where one voice says all of it. */
function voicesIn(source: string): string[] {
  const begins = [...source.matchAll(/<v[.\s]|<\/v>/g)].map(({ 0: words, index }) =>
    words === '</v>' ? index + words.length : index,
  )
  const parts = [0, ...begins]
    .map((from, at) => source.slice(from, begins[at]).trim())
    .filter(part => spoken(part).text.trim() !== '')
  return parts.length > 1 && new Set(parts.map(part => spoken(part).speaker)).size > 1 ? parts : [source]
}

/** The time of a cue, shared by how much each of its voices says. */
function cuesOf(voices: readonly string[], { fromMs, toMs }: Times) {
  const lengths = voices.map(source => spoken(source).text.length)
  const all = lengths.reduce((sum, each) => sum + each, 0)
  let said = 0
  const timestamp = (): number => Math.round(fromMs + ((toMs - fromMs) * said) / all)
  return voices.map((source, at) => {
    const begin = timestamp()
    said += lengths[at]!
    return { source, fromMs: begin, toMs: timestamp(), sure: estimatedSure }
  })
}

const tag = /<([^>]*)(?:>|$)/g
/** What stands above other words to tell how they are read is not said a second time. */
const readings = /<rt(?:[.\s][^<>]*)?>[^<]*(?:<\/rt>)?/g
const voice = /^v(?:\.[^\s]*)?[ \t\n]+([^]*)$/

/** What a cue's markup says, and who says it: its first voice (section 6.4). */
function spoken(source: string): { text: string; speaker: string | null } {
  let speaker: string | null = null
  const plain = source.replace(readings, '').replace(tag, (_tag, inside: string) => {
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
    `WEBVTT${kept.head ? `${kept.head.startsWith('\n') ? '' : ' '}${kept.head}` : ''}`,
    ...(kept.blocks ?? []),
    ...inOrder(cues).map(cue => {
      const { name, settings, notes = [] } = cue.kept ?? {}
      const lines = [
        ...(name === undefined ? [] : [name]),
        `${vttTimestamp(cue.fromMs)} --> ${vttTimestamp(cue.toMs)}${settings ? ` ${settings}` : ''}`,
        vttText(cue),
      ]
      return [...notes, trimmed(lines.join('\n'), '\n')].join('\n\n')
    }),
    ...(kept.notes ?? []),
  ]
  return `${blocks.join('\n\n')}\n`
}
