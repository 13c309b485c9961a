import { describe, expect, it } from 'vitest'
import { type EpisodeText, unsetText } from './fields'
import { type Affected, mayBulkEdit, outcomesOf, outcomeWords, type BulkEdit } from './bulkEdit'

const episode = (part: Partial<EpisodeText>, status: Affected['status'] = 'draft'): Affected => ({
  text: { ...unsetText, ...part },
  status,
  releaseAt: null,
  fileName: null,
  hindrances: [],
})
const around = { rhythm: null, zone: 'Europe/Zurich', taken: [], now: new Date('2026-03-10T05:00:00Z') }
const outcomes = (change: BulkEdit, all: readonly Affected[]) => outcomesOf(change, all, around)
const guest = (name: string, address: string | null = null) => ({ name, role: 'Guest' as const, address })

describe('one change of many episodes', () => {
  it('gives numbers in the order they go out, to full ones only', () => {
    const all = [episode({}), episode({ kind: 'trailer' }), episode({ number: 8 }), episode({ number: 3 })]
    expect(outcomes({ kind: 'renumber', from: 7 }, all)).toEqual([
      { text: { number: 7 } },
      { refused: 'A trailer takes no number.' },
      null,
      { text: { number: 9 } },
    ])
  })

  it('adds tags once, whatever their spelling, and takes them away', () => {
    const [added] = outcomes({ kind: 'add tags', tags: ['Reeds', 'bellows'] }, [episode({ tags: ['reed'] })])
    expect(added).toEqual({ text: { tags: ['reed', 'bellows'] } })
    expect(outcomes({ kind: 'remove tags', tags: ['Reeds'] }, [episode({ tags: ['reed', 'wax'] })])).toEqual([
      { text: { tags: ['wax'] } },
    ])
    expect(outcomes({ kind: 'remove tags', tags: ['wax'] }, [episode({ tags: ['reed'] })])).toEqual([null])
  })

  it('refuses what breaks a rule, in the words of the rule', () => {
    const tags = Array.from({ length: 100 }, (_none, at) => `word ${at}`)
    expect(outcomes({ kind: 'add tags', tags: ['one more'] }, [episode({ tags })])).toEqual([
      { refused: 'At most 100 tags.' },
    ])
    expect(outcomes({ kind: 'renumber', from: 99_999 }, [episode({}), episode({})])[1]).toEqual({
      refused: 'At most 99999.',
    })
  })

  it('writes a tag and a person one way', () => {
    const tags = episode({ tags: ['Reed', 'reeds', 'wax'] })
    expect(outcomes({ kind: 'merge tags', tags: ['Reed', 'reeds'], into: 'reeds' }, [tags])).toEqual([
      { text: { tags: ['reeds', 'wax'] } },
    ])
    const people = episode({ people: [guest('T. Aldermoor'), { ...guest('Tove Aldermoor'), role: 'Host' }] })
    const into = guest('Tove Aldermoor', 'https://lake.example/tove')
    expect(outcomes({ kind: 'merge people', people: [guest('T. Aldermoor')], into }, [people])).toEqual([
      { text: { people: [into, { ...guest('Tove Aldermoor'), role: 'Host' }] } },
    ])
  })

  it('removes drafts only, and takes back to draft what is scheduled', () => {
    const all = [episode({}), episode({}, 'scheduled'), episode({}, 'released')]
    expect(outcomes({ kind: 'remove' }, all)).toEqual([
      { isRemoved: true },
      { refused: 'It is scheduled; only a draft can be removed.' },
      { refused: 'It is released; only a draft can be removed.' },
    ])
    expect(outcomes({ kind: 'to draft' }, all)[1]).toEqual({ step: 'unschedule' })
  })

  it.each([
    [{ kind: 'renumber', from: 7 }, { number: 3 }, '3', '7'],
    [{ kind: 'season', season: null }, { season: 2 }, '2', ''],
    [{ kind: 'explicit', explicit: true }, {}, 'as the show', 'yes'],
    [{ kind: 'add tags', tags: ['wax'] }, { tags: ['Reeds'] }, 'Reeds', 'Reeds, wax'],
    [{ kind: 'remove' }, {}, 'draft', 'removed'],
  ] as [BulkEdit, Partial<EpisodeText>, string, string][])('is told in words: %j', (change, part, before, after) => {
    const one = episode(part)
    expect(outcomeWords(one, outcomes(change, [one])[0]!, around)).toEqual({ before, after })
  })

  it('lets who writes words do words, and who makes the rest', () => {
    expect(mayBulkEdit('writer', { kind: 'season', season: 2 })).toBe(true)
    expect(mayBulkEdit('writer', { kind: 'remove' })).toBe(false)
    expect(mayBulkEdit('maker', { kind: 'remove' })).toBe(true)
  })
})
