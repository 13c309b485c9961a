import { describe, expect, it } from 'vitest'
import { unsetFeedFacts } from './facts'
import { bareTitle } from './rules/bareTitle'
import { blockedShow } from './rules/blockedShow'
import { completeShow } from './rules/completeShow'
import { feedSize } from './rules/feedSize'
import { manyKeywords } from './rules/manyKeywords'
import { movingShow } from './rules/movingShow'
import type { FeedRule, FixableText, Numbered } from './rules/rule'
import { sameNumber } from './rules/sameNumber'
import { serialNumbers } from './rules/serialNumbers'

const episode = (change: Partial<FixableText> = {}): FixableText => ({
  title: 'The early boat',
  number: 6,
  season: null,
  kind: 'full',
  ...change,
})
const numbered = (number: number | null, season: number | null = null, kind: Numbered['kind'] = 'full'): Numbered => ({
  number,
  season,
  kind,
})
const mended = (
  rule: FeedRule,
  text: FixableText,
  { all = [], before = all }: { all?: Numbered[]; before?: Numbered[] } = {},
) => rule.fixEpisode!(text, { all, before })

describe('what a press mends in an episode', () => {
  it.each([
    ['6: The early boat', 'The early boat'],
    ['Episode 06 – The early boat', 'The early boat'],
    ['#6 The early boat', 'The early boat'],
    ['Ep. 6. The early boat', 'The early boat'],
    ['6) 7 boats', '7 boats'],
  ])('takes the number out of the title %s', (title, bare) => {
    expect(mended(bareTitle, episode({ title }))).toEqual({ says: `Call it “${bare}”`, text: { title: bare } })
  })
  it('leaves a title that is nothing but the number', () => {
    expect(mended(bareTitle, episode({ title: 'Episode 6' }))).toBeNull()
    expect(mended(bareTitle, episode({ title: '6 boats', number: null }))).toBeNull()
  })

  it('gives a number that is there twice the next one of its season and kind', () => {
    const all = [numbered(6), numbered(9), numbered(30, 2), numbered(40, null, 'bonus'), numbered(null)]
    expect(mended(sameNumber, episode(), { all })).toEqual({ says: 'Give it 10', text: { number: 10 } })
  })

  it('gives an episode of a serial show the number behind those before it, where that is free', () => {
    const before = [numbered(1), numbered(2)]
    expect(mended(serialNumbers, episode({ number: null }), { all: [...before, numbered(4)], before })).toEqual({
      says: 'Give it 3',
      text: { number: 3 },
    })
    expect(mended(serialNumbers, episode({ number: null }), { all: [...before, numbered(3)], before })).toBeNull()
    expect(mended(serialNumbers, episode({ number: null }))!.text).toEqual({ number: 1 })
  })
})

describe('what a press mends in a show', () => {
  const keywords = Array.from({ length: 14 }, (_none, index) => `word ${index}`)
  it.each([
    [blockedShow, { isBlocked: false }],
    [completeShow, { isComplete: false }],
    [movingShow, { movedTo: null, isRedirected: false }],
    [feedSize, { itemsPerPart: 100 }],
    [manyKeywords, { keywords: keywords.slice(0, 12) }],
  ])('takes back what $name finds', ({ fixShow }, facts) => {
    expect(fixShow!({ ...unsetFeedFacts, keywords }).facts).toEqual(facts)
  })
})
