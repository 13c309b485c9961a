import { describe, expect, it } from 'vitest'
import { mergeTexts } from './merge'
import { prefillFrom } from './prefill'
import { type EpisodeText, unsetText } from './fields'

const base: EpisodeText = { ...unsetText, title: 'One', number: 1, notes: '<p>a</p>' }

describe('two texts that grew from one', () => {
  it('come together where different fields changed', () => {
    expect(mergeTexts(base, { ...base, title: 'Mine' }, { ...base, notes: '<p>theirs</p>' })).toEqual({
      text: { ...base, title: 'Mine', notes: '<p>theirs</p>' },
      mine: { title: 'Mine' },
      conflicts: [],
    })
  })
  it('are a person’s to choose where the same field changed differently', () => {
    const merge = mergeTexts(base, { ...base, title: 'Mine', number: 2 }, { ...base, title: 'Theirs' })
    expect(merge.conflicts).toEqual(['title'])
    expect(merge.text).toMatchObject({ title: 'Theirs', number: 2 })
    expect(merge.mine).toEqual({ number: 2 })
  })
  it('agree where both changed to the same', () => {
    expect(mergeTexts(base, { ...base, title: 'Same' }, { ...base, title: 'Same' })).toMatchObject({
      mine: {},
      conflicts: [],
    })
  })
})

describe('title and number of a new episode', () => {
  const none = { title: null, track: null }
  it.each([
    ['012_the-wet-reed.mp3', { title: 'The wet reed', number: 12 }],
    ['Ep. 7 - Wax.m4a', { title: 'Wax', number: 7 }],
    ['bellows-and-reeds-episode-31-the-cough.mp3', { title: 'The cough', number: 31 }],
    ['A Letter.mp3', { title: 'A Letter', number: null }],
    ['2026.mp3', { title: '', number: 2026 }],
    ['.mp3', { title: '', number: null }],
  ])('from the name %s', (fileName, expected) => expect(prefillFrom({ fileName, tags: none })).toEqual(expected))
  it('are the tags’, where there are tags', () => {
    expect(prefillFrom({ fileName: '012_draft.mp3', tags: { title: ' The wet reed ', track: 13 } })).toEqual({
      title: 'The wet reed',
      number: 13,
    })
  })
})
