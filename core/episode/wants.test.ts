import { describe, expect, it } from 'vitest'
import { unsetText } from './fields'
import type { MixDocument } from '../mix/document'
import { emptyMix } from '../mix/edits'
import { mixOf, pieceOf } from '../mix/mix.fixture'
import { firstSentence, mixWants, saysNothing, wantsOf } from './wants'

describe('a first sentence', () => {
  it.each([
    'In this episode we talk about harmoniums.',
    'In this week’s episode.',
    'Welcome to Bellows & Reeds!',
    'Bellows & Reeds',
    'Hello everyone.',
    '',
  ])('%j says nothing', sentence => expect(saysNothing(sentence, 'Bellows & Reeds')).toBe(true))
  it.each([
    'A harmonium arrives on a handcart.',
    'Hello from a chapel where one note will not stop.',
    'Welcome to the workshop of a man who tunes by the ferry bell.',
    'Today we take apart a concertina that spent a winter in a lifeboat.',
  ])('%j says something', sentence => expect(saysNothing(sentence, 'Bellows & Reeds')).toBe(false))
  it('ends where it ends', () => {
    expect(firstSentence('“Our organ will not stop.” Half an hour.\nMore.')).toBe('“Our organ will not stop.”')
    expect(firstSentence('“It will not stop. Please advise.”')).toBe('It will not stop.')
    expect(firstSentence('No end\nbut a line')).toBe('No end')
  })
})

describe('what a text wants', () => {
  const codes = (change: object) => wantsOf({ ...unsetText, ...change }, 'Bellows & Reeds').map(({ code }) => code)
  it('is little, and never more than notes, hook and tags', () =>
    expect(codes({})).toEqual(['no-notes', 'no-hook', 'few-tags']))
  it('is nothing where all is written', () =>
    expect(codes({ notes: '<p>A harmonium arrives.</p>', hook: 'Why it coughs', tags: ['reeds', 'lake'] })).toEqual([]))
  it('is an address where a link has none', () =>
    expect(codes({ notes: '<p>See <a>here</a> for it.</p>', hook: 'x', tags: ['a', 'b'] })).toEqual([
      'link-without-address',
    ]))
})

it('what is put together and is not the audio is worth a look, not what a newer house put together', () => {
  const [mix, other] = [1, 2].map(n => mixOf([pieceOf(n, [[0, 1_000]])])) as [MixDocument, MixDocument]
  const codesOf = (...parts: Parameters<typeof mixWants>) => mixWants(...parts).map(({ code }) => code)
  expect(codesOf(mix, null)).toEqual(['not-the-mix'])
  expect(codesOf(mix, other)).toEqual(['not-the-mix'])
  expect(codesOf(mix, structuredClone(mix))).toEqual([])
  expect(codesOf(null, mix)).toEqual([])
  expect(codesOf(emptyMix, null)).toEqual([])
  expect(codesOf({ ...mix, version: 99 as 1 }, null)).toEqual([])
})
