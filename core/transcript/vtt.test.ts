import { describe, expect, it } from 'vitest'
// W3C WebVTT, section 6: the reference parser of the registries that was written beside the standard.
import { WebVTTParser } from 'webvtt-parser'
import { wordsOf } from './bytes'
import { estimatedSure } from './doubtful'
import { readVtt, vttText, writeVtt } from './vtt'
import { vttFiles } from './vtt.fixture'

const bytes = (words: string): Uint8Array => new TextEncoder().encode(words)
/** Cues as both parsers tell them; the reference puts them in the order of their times. */
const ours = (words: string) =>
  readVtt(wordsOf(bytes(words)), true)
    .transcript.cues.map(cue => ({
      name: cue.kept?.name ?? '',
      times: [cue.fromMs!, cue.toMs!] as const,
      source: vttText(cue),
    }))
    .toSorted((one, other) => one.times[0] - other.times[0])
const theirs = (words: string) =>
  new WebVTTParser().parse(words, 'captions').cues.map(({ id, startTime, endTime, text }) => ({
    name: id,
    times: [Math.round(startTime * 1000), Math.round(endTime * 1000)],
    source: text,
  }))

/** The reference names the cue after the second line; the standard ends a block there (section 6.1), and so does Chromium. */
const differs = 'two lines before the times'

describe(`${vttFiles.length} files from the syntax section`, () => {
  it('are at least 60', () => expect(vttFiles.length).toBeGreaterThanOrEqual(60))
  it.each(vttFiles.filter(([name]) => name !== differs))('%s: read as the reference reads it', (_name, words) => {
    expect(ours(words)).toEqual(theirs(words))
  })
  it.each(vttFiles)('%s: written again and read again it is the same', (_name, words) => {
    const { transcript } = readVtt(wordsOf(bytes(words)))
    const inOrder = transcript.cues.toSorted((one, other) => one.fromMs! - other.fromMs!)
    // How sure a time is, WebVTT has no words for; names of our own begin with the first.
    const cues = inOrder.map(({ sure: _sure, ...cue }, at) => ({ ...cue, id: `c${at + 1}` }))
    expect(readVtt(writeVtt(transcript)).transcript).toEqual({ ...transcript, cues })
  })
})

it('each of several voices in a cue is a cue, whose times are estimates', () => {
  const words = 'WEBVTT\n\n00:01.000 --> 00:03.000\n<v Tove>Is <i>it?</i></v>\n<v Benno>It is.</v> (both laugh)'
  const { transcript, remarks } = readVtt(words)
  expect(transcript.cues.map(({ speaker, text, fromMs, toMs, sure }) => [speaker, text, fromMs, toMs, sure])).toEqual([
    ['Tove', 'Is it?', 1000, 1500, estimatedSure],
    ['Benno', 'It is.', 1500, 2000, estimatedSure],
    [null, '(both laugh)', 2000, 3000, estimatedSure],
  ])
  expect(remarks).toEqual(['One cue held several voices; each has its own cue now, whose times are estimated.'])
  expect(writeVtt(transcript)).toContain('<v Tove>Is <i>it?</i></v>')
})

it('what tells how a word is read is not said twice', () => {
  const [cue] = readVtt('WEBVTT\n\n00:01.000 --> 00:03.000\n<ruby>風<rt>かぜ</rt>琴<rt.small>きん</ruby>').transcript
    .cues
  expect(cue!.text).toBe('風琴')
})

it('a head of a stream, other formats’ places and blocks without times are told; other heads are kept', () => {
  const words = `WEBVTT
Language: en
X-TIMESTAMP-MAP=LOCAL:00:00:00.000,MPEGTS:900000
first
00:01.000 --> 00:02.000 X1:40 X2:600 align:end
One

Nobody says when.
`
  const { transcript, remarks } = readVtt(words)
  expect(transcript.cues).toMatchObject([{ text: 'One', kept: { name: 'first', settings: 'align:end' } }])
  expect(remarks).toEqual([
    'It says “X-TIMESTAMP-MAP=LOCAL:00:00:00.000,MPEGTS:900000”, for pieces of a stream; its times were taken as they stand.',
    '“Nobody says when.” stands in a block without times and was left out.',
    'One cue has settings that WebVTT does not know; they were left out.',
  ])
  expect(writeVtt(transcript)).toBe('WEBVTT\nLanguage: en\n\nfirst\n00:00:01.000 --> 00:00:02.000 align:end\nOne\n')
})

it('what has no signature, and times with a comma, are taken and told', () => {
  const { transcript, remarks } = readVtt('0:01,5 --> 0:02,25\nOne')
  expect(transcript.cues).toMatchObject([{ fromMs: 1500, toMs: 2250, text: 'One' }])
  expect(remarks.length).toBe(2)
  expect(readVtt('WEBVTT\n\n00:60.000 --> 01:01.000\nLost').remarks[0]).toMatch(
    /“Lost” stands in a cue whose times cannot be read/,
  )
})

it('who speaks is the first voice, and what is edited is written anew', () => {
  const { transcript } = readVtt('WEBVTT\n\n00:01.000 --> 00:02.000\n<v.soft Bellows &amp; Reeds>It <b>is</b>.')
  const [cue] = transcript.cues
  expect([cue!.speaker, cue!.text]).toEqual(['Bellows & Reeds', 'It is.'])
  const edited = writeVtt({ cues: [{ ...cue!, text: 'It was.' }] })
  expect(edited).toContain('<v Bellows &amp; Reeds>It was.')
})
