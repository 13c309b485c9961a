import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { oneCut, timelineOf } from '../audio/timeline'
import type { Cue } from './cue'
import {
  deliveredCues,
  findWords,
  heardAt,
  joinCue,
  moveEdge,
  renameSpeaker,
  replaceWords,
  shiftCues,
  speakersIn,
  splitCue,
  stretchCues,
} from './edit'
import { cueFindings } from './findings'

const cue = (id: string, fromMs: number, toMs: number, text: string, rest: Partial<Cue> = {}): Cue => ({
  id,
  fromMs,
  toMs,
  speaker: null,
  text,
  ...rest,
})
const two = [
  cue('a', 1000, 3000, 'Is it the reed?'),
  cue('b', 3000, 5000, 'It is never the reed.', { speaker: 'Benno' }),
]
const short = ({ id, fromMs, toMs, text }: Cue) => [id, fromMs, toMs, text]

describe('cues', () => {
  it('are split where the cursor is, at what is heard or by the letters', () => {
    expect(splitCue(two, 'b', 12, 'c', 4200).map(short)).toEqual([
      ['a', 1000, 3000, 'Is it the reed?'],
      ['b', 3000, 4200, 'It is never'],
      ['c', 4200, 5000, 'the reed.'],
    ])
    expect(splitCue(two, 'a', 6, 'c', 9000)[0]!.toMs).toBe(1800)
    expect(splitCue(two, 'a', 0, 'c')).toEqual(two)
    expect(splitCue(two, 'nobody', 3, 'c')).toEqual(two)
    expect(splitCue(two, 'b', 12, 'c')[2]!.speaker).toBe('Benno')
  })
  it('are joined with the one before', () => {
    expect(joinCue(two, 'b').map(short)).toEqual([['a', 1000, 5000, 'Is it the reed? It is never the reed.']])
    expect(joinCue(two, 'a')).toEqual(two)
  })
  it('that are split and joined again are as they were', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), offset => {
        const [, joined] = joinCue(splitCue(two, 'b', offset, 'c'), 'c')
        expect([joined!.fromMs, joined!.toMs, joined!.text.replace(/ /g, '')]).toEqual([
          3000,
          5000,
          'Itisneverthereed.',
        ])
      }),
    )
  })
  it('are shifted, one or all after, never before the beginning', () => {
    expect(shiftCues(two, 'a', 500, 'one').map(short)[1]).toEqual(short(two[1]!))
    expect(shiftCues(two, 'a', -9000, 'all after').map(({ fromMs }) => fromMs)).toEqual([0, 2000])
  })
  it('are stretched between two moments, and back', () => {
    const there = stretchCues(two, { isMs: 1000, shouldMs: 2000 }, { isMs: 5000, shouldMs: 10_000 })
    expect(there.map(({ fromMs, toMs }) => [fromMs, toMs])).toEqual([
      [2000, 6000],
      [6000, 10_000],
    ])
    expect(stretchCues(there, { isMs: 2000, shouldMs: 1000 }, { isMs: 10_000, shouldMs: 5000 })).toEqual(two)
    expect(() => stretchCues(two, { isMs: 1, shouldMs: 1 }, { isMs: 1, shouldMs: 5 })).toThrow(RangeError)
    expect(() => stretchCues(two, { isMs: 1, shouldMs: 9 }, { isMs: 2, shouldMs: 5 })).toThrow(RangeError)
  })
  it('know their speakers, who can be renamed at once', () => {
    expect(speakersIn(renameSpeaker(two, 'Benno', 'Benno Quillhart'))).toEqual(['Benno Quillhart'])
  })
  it('are searched, and words replaced in the places that were chosen', () => {
    const places = findWords(two, 'THE reed')
    expect(places).toEqual([
      { id: 'a', at: 6 },
      { id: 'b', at: 12 },
    ])
    expect(replaceWords(two, places.slice(1), 'the reed', 'wax').map(({ text }) => text)).toEqual([
      'Is it the reed?',
      'It is never wax.',
    ])
    expect(findWords([cue('a', 0, 1, 'aaaa')], 'aa').map(({ at }) => at)).toEqual([0, 2])
  })
  it('are heard from their beginning to that of the next', () => {
    expect([0, 980, 2900, 3000, 9000].map(ms => heardAt(two, ms))).toEqual([-1, 0, 0, 1, 1])
  })
  it('follow a cut of the sound', () => {
    expect(deliveredCues(two, oneCut(2000, 2500)).map(short)).toEqual([
      ['a', 0, 1000, 'Is it the reed?'],
      ['b', 1000, 2500, 'It is never the reed.'],
    ])
    expect(deliveredCues(two, oneCut(3000, 500)).map(({ id }) => id)).toEqual(['b'])
  })
  it('follow several cuts: what was cut out of one is gone from its time, and one that was cut out whole falls away', () => {
    const timeline = timelineOf([
      { fromMs: 0, toMs: 1500 },
      { fromMs: 2500, toMs: 3000 },
      { fromMs: 6000, toMs: 9000 },
    ])
    expect(deliveredCues(two, timeline).map(({ id, fromMs, toMs }) => [id, fromMs, toMs])).toEqual([['a', 1000, 2000]])
  })
})

describe('the edge of a cue', () => {
  const three = [...two, cue('c', 6000, 7000, 'Nor the key.')]
  const times = (cues: Cue[]) => cues.map(({ fromMs, toMs }) => [fromMs, toMs])

  it('is moved, and meant from then on', () => {
    const [, , last] = moveEdge([...two, cue('c', 6000, 7000, 'Nor the key.', { sure: 0.2 })], 'c', 'fromMs', 5600.4)
    expect(last).toEqual(cue('c', 5600, 7000, 'Nor the key.', { isPinned: true }))
  })

  it('takes a neighbour that touches it along, and pushes one that is in its way', () => {
    expect(times(moveEdge(three, 'a', 'toMs', 2500))).toEqual([
      [1000, 2500],
      [2500, 5000],
      [6000, 7000],
    ])
    expect(times(moveEdge(three, 'b', 'toMs', 5500))).toEqual([
      [1000, 3000],
      [3000, 5500],
      [6000, 7000],
    ])
    expect(times(moveEdge(three, 'b', 'toMs', 6500))).toEqual([
      [1000, 3000],
      [3000, 6500],
      [6500, 7000],
    ])
    expect(times(moveEdge(three, 'c', 'fromMs', 4000))).toEqual([
      [1000, 3000],
      [3000, 4000],
      [4000, 7000],
    ])
  })

  it('leaves every cue in order, and a tenth of a second of each, wherever it is moved', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('a', 'b', 'c'),
        fc.constantFrom('fromMs' as const, 'toMs' as const),
        fc.integer(),
        (id, edge, ms) => {
          const moved = moveEdge(three, id, edge, ms)
          const all = moved.flatMap(({ fromMs, toMs }) => [fromMs!, toMs!])
          expect(all).toEqual(all.toSorted((one, other) => one - other))
          expect(moved.every(({ fromMs, toMs }) => fromMs! >= 0 && toMs! - fromMs! >= 100)).toBe(true)
        },
      ),
    )
  })

  it('of a cue without times, or between cues that lie over each other, is left as it is', () => {
    const untimed = [{ ...two[0]!, fromMs: null, toMs: null }]
    expect(moveEdge(untimed, 'a', 'fromMs', 100)).toEqual(untimed)
    const over = [cue('a', 1000, 9000, 'All'), cue('b', 500, 600, 'Before')]
    expect(moveEdge(over, 'b', 'fromMs', 0)).toEqual(over)
  })
})

describe('what is found in a transcript', () => {
  const codes = (cues: Cue[], endMs: number | null = null, pauses: Parameters<typeof cueFindings>[2] = null) =>
    cueFindings(cues, endMs, pauses).map(({ code, id }) => [code, id])
  it.each([
    ['nothing in a good one', two, []],
    ['overlap', [two[0]!, cue('b', 2000, 5000, 'It is.')], [['overlap', 'b']]],
    ['backwards', [cue('a', 3000, 1000, 'It is.')], [['backwards', 'a']]],
    ['out of order', [two[1]!, two[0]!], [['backwards', 'a']]],
    ['empty', [cue('a', 0, 1000, ' ')], [['empty', 'a']]],
    // Common guidelines have 160 to 180 words a minute.
    ['too fast', [cue('a', 0, 1000, 'It is never the reed, never.')], [['fast', 'a']]],
    ['lines too long', [cue('a', 0, 9000, `${'word '.repeat(10)}\nend`)], [['long-line', 'a']]],
    ['three lines', [cue('a', 0, 9000, 'a\nb\nc')], [['long-line', 'a']]],
    ['not sure', [cue('a', 0, 9000, 'a', { sure: 0.2 })], [['doubtful', 'a']]],
  ] as [string, Cue[], unknown][])('%s', (_name, cues, expected) => expect(codes(cues)).toEqual(expected))
  it('past the end, over silence, and speech without a cue', () => {
    expect(codes(two, 4000)).toEqual([['past-end', 'b']])
    expect(codes(two, 5000, [{ fromMs: 3000, toMs: 5000 }])).toEqual([['silent', 'b']])
    expect(codes(two, 20_000, [])).toEqual([['unsaid', 'b']])
    expect(codes(two, 20_000, [{ fromMs: 6000, toMs: 20_000 }])).toEqual([])
    expect(codes([cue('a', 9000, 10_000, 'x')], 10_000, [])).toEqual([['unsaid', null]])
  })
})
