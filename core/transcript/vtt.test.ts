import { describe, expect, it } from 'vitest'
// W3C WebVTT, section 6: the reference parser of the registries that was written beside the standard.
import { WebVTTParser } from 'webvtt-parser'
import { wordsOf } from './bytes'
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
    expect(readVtt(writeVtt(transcript)).transcript).toEqual(transcript)
  })
})

it('what has no signature, and times with a comma, are taken and told', () => {
  const { transcript, remarks } = readVtt('0:01,5 --> 0:02,25\nOne')
  expect(transcript.cues).toMatchObject([{ fromMs: 1500, toMs: 2250, text: 'One' }])
  expect(remarks.length).toBe(2)
  expect(readVtt('WEBVTT\n\n00:60.000 --> 01:01.000\nLost').remarks[0]).toMatch(/One cue .* “Lost”/)
})

it('who speaks is the first voice, and what is edited is written anew', () => {
  const { transcript } = readVtt('WEBVTT\n\n00:01.000 --> 00:02.000\n<v.soft Bellows &amp; Reeds>It <b>is</b>.')
  const [cue] = transcript.cues
  expect([cue!.speaker, cue!.text]).toEqual(['Bellows & Reeds', 'It is.'])
  const edited = writeVtt({ cues: [{ ...cue!, text: 'It was.' }] })
  expect(edited).toContain('<v Bellows &amp; Reeds>It was.')
})
