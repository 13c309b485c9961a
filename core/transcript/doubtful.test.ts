import { describe, expect, it } from 'vitest'
import type { Cue } from './cue'
import { accepted, doubtfulPlaces, doubtfulWords, isDoubtful, placeAfter } from './doubtful'
import { readDraft } from './draft'
import { joinCue, splitCue } from './edit'

const cue = (text: string, ...doubtful: string[]): Cue => ({
  id: text.slice(0, 3),
  fromMs: 0,
  toMs: 2000,
  speaker: null,
  text,
  doubtful,
})
const wordsIn = (each: Cue): string[] => doubtfulWords(each).map(({ words }) => words)

describe('doubtful words', () => {
  it('stand where they are read, one after the other, and not inside other words', () => {
    const said = cue('Already the read reeds, and a read key.', 'read', 'read', 'quay')
    expect(doubtfulWords(said)).toEqual([
      { words: 'read', at: 12 },
      { words: 'read', at: 30 },
    ])
    expect(isDoubtful(said)).toBe(true)
  })

  it('that were written over are doubtful no more', () => {
    const said = cue('A sigh for from Quill Heart.', 'sigh for', 'Quill Heart')
    expect(wordsIn({ ...said, text: 'A cipher from Quill Heart.' })).toEqual(['Quill Heart'])
    expect(isDoubtful({ ...said, text: 'A cipher from Quillhart.' })).toBe(false)
  })

  it('that are right as they stand are told so one by one', () => {
    const said = cue('read and read', 'read', 'read')
    const left = { ...said, ...accepted(said, 0) }
    expect(left.doubtful).toEqual(['read'])
    expect(accepted(left, 0).doubtful).toBeUndefined()
  })

  it('go with their halves when a cue is split, and come together when cues are joined', () => {
    const said = cue('A sigh for from Quill Heart.', 'sigh for', 'Quill Heart')
    const halves = splitCue([said], said.id, 10, 'new')
    expect(halves.map(wordsIn)).toEqual([['sigh for'], ['Quill Heart']])
    expect(wordsIn(joinCue(halves, 'new')[0]!)).toEqual(['sigh for', 'Quill Heart'])
  })

  it('are walked through in order, from where somebody is, and around', () => {
    const cues = [
      cue('One quay.', 'quay'),
      cue('None.'),
      { ...cue('Not sure when.'), sure: 0.2 },
      cue('A hole.', 'hole'),
    ]
    const places = doubtfulPlaces(cues)
    expect(places).toEqual([
      { index: 0, at: 4, length: 4 },
      { index: 2, at: 0, length: 0 },
      { index: 3, at: 2, length: 4 },
    ])
    expect(placeAfter(places, { index: -1, at: 0 })).toBe(places[0])
    expect(placeAfter(places, { index: 0, at: 8 })).toBe(places[1])
    expect(placeAfter(places, { index: 3, at: 6 })).toBe(places[0])
    expect(placeAfter([], { index: 0, at: 0 })).toBeUndefined()
  })
})

describe('a copyist’s draft', () => {
  const read = (vtt: string) => readDraft(new TextEncoder().encode(vtt)).cues

  it('is WebVTT with voices, and spans for what is doubtful; other marks fall away', () => {
    const [one] = read(
      'WEBVTT\n\nNOTE made by a machine\n\n7\n00:01.000 --> 00:02.500 align:start\n<v Speaker 1>A <c.doubtful>sigh &amp; more</c>, <i>he</i> said.\n',
    )
    expect(one).toEqual({
      id: 'c1',
      fromMs: 1000,
      toMs: 2500,
      speaker: 'Speaker 1',
      text: 'A sigh & more, he said.',
      doubtful: ['sigh & more'],
    })
  })

  it('doubts so many words at most, and no whole pages', () => {
    const spans = (count: number, words: string) => `<c.doubtful>${words}</c> `.repeat(count)
    const [many, long] = read(
      `WEBVTT\n\n00:01.000 --> 00:02.000\n${spans(600, 'word')}\n\n00:02.000 --> 00:03.000\n${spans(1, 'x'.repeat(201))}\n`,
    )
    expect(many!.doubtful!.length).toBe(500)
    expect(long!.doubtful).toBeUndefined()
  })

  it('leaves cues out that say nothing', () => {
    expect(
      read('WEBVTT\n\n00:01.000 --> 00:02.000\n\n00:02.000 --> 00:03.000\nSaid.\n').map(({ text }) => text),
    ).toEqual(['Said.'])
  })

  it.each(['<html>', '{"state":"done"}', ''])('that is none is refused: %s', words => {
    expect(() => read(words)).toThrow('A WebVTT file begins with the word WEBVTT.')
  })
})
