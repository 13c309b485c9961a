import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { filesOfMix, type MixDocument } from '../mix/document'
import { bedOf, mixOf, pieceOf } from '../mix/mix.fixture'
import { conflict, list, parts, whole } from './field'
import { fields, unsetText } from './fields'
import { currentSchema, readSnapshot, snapshotOf } from './snapshot'

const told = { kept: z.any(), since: 1, name: 'field', appears: { feed: [], page: null, tag: null } }

describe('a field that is one thing', () => {
  const field = whole({ ...told, schema: z.string(), unset: '' })
  it.each([
    ['only I changed it', 'a', 'b', 'a', 'b'],
    ['only they changed it', 'a', 'a', 'b', 'b'],
    ['both changed it to the same', 'a', 'b', 'b', 'b'],
    ['nobody changed it', 'a', 'a', 'a', 'a'],
    ['both changed it, to different things', 'a', 'b', 'c', conflict],
  ])('%s', (_name, base, mine, theirs, merged) => expect(field.merge(base, mine, theirs)).toBe(merged))
})

describe('a field of parts', () => {
  const field = parts({
    ...told,
    schema: z.object({ name: z.string(), place: z.string() }),
    unset: { name: '', place: '' },
  })
  const base = { name: 'Benno', place: 'Lake' }
  it('is the same whatever the order of its parts', () =>
    expect(field.isSame(base, { place: 'Lake', name: 'Benno' })).toBe(true))
  it('comes together where different parts changed', () => {
    expect(field.merge(base, { ...base, name: 'Benno W.' }, { ...base, place: 'Harbour' })).toEqual({
      name: 'Benno W.',
      place: 'Harbour',
    })
  })
  it('is a person’s to choose where the same part changed differently', () => {
    expect(field.merge(base, { ...base, name: 'B.' }, { ...base, name: 'W.' })).toBe(conflict)
  })
})

describe('a field that is a list', () => {
  interface Link {
    address: string
    words: string
  }
  const field = list(
    { ...told, schema: z.array(z.object({ address: z.string(), words: z.string() })), unset: [] },
    ({ address }: Link) => address,
  )
  const [one, two, three] = ['one', 'two', 'three'].map(name => ({
    address: `https://${name}.example`,
    words: name,
  })) as [Link, Link, Link]
  it('keeps what both added', () => expect(field.merge([one], [one, two], [one, three])).toEqual([one, three, two]))
  it('loses what either took away', () => expect(field.merge([one, two], [one], [two])).toEqual([]))
  it('takes over a changed entry beside an added one', () => {
    expect(field.merge([one], [{ ...one, words: 'first' }], [one, two])).toEqual([{ ...one, words: 'first' }, two])
  })
  it('keeps the order of whoever moved its entries', () =>
    expect(field.merge([one, two], [two, one], [one, two])).toEqual([two, one]))
  it('is a person’s to choose where one changed an entry that the other changed, or took away', () => {
    expect(field.merge([one], [{ ...one, words: 'a' }], [{ ...one, words: 'b' }])).toBe(conflict)
    expect(field.merge([one], [{ ...one, words: 'a' }], [])).toBe(conflict)
  })
  it('is the same only in the same order', () => expect(field.isSame([one, two], [two, one])).toBe(false))
})

describe('the registry', () => {
  it.each(Object.entries(fields))('%s: what a new episode has may be written, and is read', (_name, field) => {
    expect(field.schema.parse(field.unset)).toEqual(field.unset)
    expect(field.kept.parse(field.unset)).toEqual(field.unset)
  })
  it.each(Object.entries(fields))('%s: what may be written is read', (_name, field) => {
    for (const value of ['A title', 31, 'bonus'].filter(each => field.schema.safeParse(each).success))
      expect(field.kept.safeParse(value).success).toBe(true)
  })
})

describe('a released snapshot', () => {
  const text = { ...unsetText, title: 'The wet reed', season: 2 }
  it('is read back as it was written', () =>
    expect(readSnapshot(snapshotOf(text, { chapters: [], soundbites: [], transcripts: [] }))).toEqual(text))
  it('from before a field came has it as an episode that never wrote any, whatever stands there', () => {
    const known = { ...fields, season: { since: currentSchema + 1 } }
    expect(readSnapshot(snapshotOf(text, { chapters: [], soundbites: [], transcripts: [] }), known)).toEqual({
      ...text,
      season: null,
    })
    expect(readSnapshot({ schema: 1, text: { title: 'Old' } })).toEqual({ ...unsetText, title: 'Old' })
  })
})

describe('pieces and beds in two windows', () => {
  const [one, two] = [pieceOf(1, [[0, 9_000]]), pieceOf(2, [[0, 5_000]])]
  const base = mixOf([one, two], [bedOf(3, 2, 4_000)])

  it('change a piece and a bed, and both stay', () => {
    const mine = { ...base, pieces: [{ ...one, gainDb: -3 }, two] }
    const theirs = { ...base, beds: [bedOf(3, 2, 6_000)] }
    expect(fields.mix.merge(base, mine, theirs)).toEqual({ ...mine, beds: theirs.beds })
  })
  it('move and cut', () => {
    const cut = { ...two, kept: [{ fromMs: 0, toMs: 2_000 }] }
    expect(fields.mix.merge(base, { ...base, pieces: [two, one] }, { ...base, pieces: [one, cut] })).toEqual({
      ...base,
      pieces: [cut, one],
    })
  })
  it('leave it to a person where one took away what the other laid a bed under', () => {
    const theirs = { ...base, pieces: [one], beds: [] }
    const mine = { ...base, beds: [...base.beds, bedOf(4, 2, 1_000)] }
    expect(fields.mix.merge(base, mine, theirs)).toBe(conflict)
  })
  it('leave it to a person where both changed one piece', () => {
    const [mine, theirs] = [-3, -6].map(gainDb => ({ ...base, pieces: [{ ...one, gainDb }, two] }))
    expect(fields.mix.merge(base, mine!, theirs!)).toBe(conflict)
  })
})

it('a mix in words tells how long it is', () => {
  const mix = mixOf([pieceOf(1, [[0, 60_000]]), pieceOf(2, [[0, 5_000]], { overlapMs: 1_000 })], [bedOf(3, 1, 3_000)])
  expect(fields.mix.shown(mix)).toBe('2 pieces, 1 bed, 1:04')
})

it('a mix of a newer house is read, shown, and not written', () => {
  const newer = { version: 2, tracks: [] }
  expect(fields.mix.kept.parse(newer)).toEqual(newer)
  expect(fields.mix.schema.safeParse(newer).success).toBe(false)
  expect(fields.mix.shown(newer as unknown as MixDocument)).toContain('newer version')
  expect(filesOfMix(newer as unknown as MixDocument)).toEqual([])
})
