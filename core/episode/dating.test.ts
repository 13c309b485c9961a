import { describe, expect, it } from 'vitest'
import type { Around } from '../release/layout'
import { arranged, type Dateable, type Dated, datesOf } from './dating'
import { unsetText } from './fields'

const around: Around = {
  rhythm: {
    unit: 'week',
    every: 1,
    days: ['TU'],
    nth: null,
    monthDay: null,
    time: '06:00',
    from: '2026-01-06',
    leftOut: [],
  },
  zone: 'Europe/Zurich',
  taken: [],
  now: new Date('2026-03-10T05:30:00Z'),
}
const episode = (number: number | null, more: Partial<Dateable> & { title?: string } = {}): Dateable => ({
  text: { ...unsetText, title: more.title ?? `No. ${number}`, number },
  status: 'draft',
  releaseAt: null,
  fileName: `take ${number}.wav`,
  hindrances: [],
  ...more,
})
const layOut = (order: 'number' | 'file name' | 'as listed'): Dated => ({
  kind: 'lay out',
  layout: { way: 'from', day: '2026-03-11', step: { kind: 'slots' } },
  order,
})
const numbers = (episodes: readonly Dateable[]): (number | null)[] => episodes.map(({ text }) => text.number)
const at = (time: string): { at: Date } => ({ at: new Date(time) })

describe('laying out', () => {
  it.each([
    ['number', [2, 10, null]],
    ['file name', [10, 2, null]],
    ['as listed', [10, null, 2]],
  ] as const)('goes by %s', (order, expected) => {
    const all = [
      episode(10, { fileName: 'boat 2.wav' }),
      episode(null, { fileName: 'boat 10a.wav' }),
      episode(2, { fileName: 'boat 9.wav' }),
    ]
    expect(numbers(arranged(layOut(order), all))).toEqual(expected)
  })

  it('gives what can go out a slot each, and says why the others have none', () => {
    const all = [
      episode(1),
      episode(2, { hindrances: ['no audio'] }),
      episode(3, { hindrances: ['no audio', 'no title'] }),
      episode(4, { status: 'released', releaseAt: around.now }),
      episode(5, { status: 'retired' }),
      episode(6, { hindrances: ['being finished'] }),
    ]
    expect(datesOf(layOut('as listed'), all, around)).toEqual([
      at('2026-03-17T05:00:00Z'),
      { refused: 'It lacks audio.' },
      { refused: 'It lacks audio and a title.' },
      { refused: 'It is released; change its date on its desk.' },
      { refused: 'It is retired; put it back into the feed first.' },
      at('2026-03-24T05:00:00Z'),
    ])
  })

  it('leaves alone what has its slot already', () => {
    const has = episode(1, { status: 'scheduled', releaseAt: new Date('2026-03-17T05:00:00Z') })
    expect(datesOf(layOut('number'), [has], around)).toEqual([null])
  })

  it('by slots needs a rhythm', () =>
    expect(datesOf(layOut('number'), [episode(1)], { ...around, rhythm: null })).toEqual([
      { refused: 'The show has no rhythm with slots for it.' },
    ]))

  it('never dates back behind the year 2000', () => {
    const layout = { way: 'up to', day: '2026-03-10', step: { kind: 'days', every: 366, time: '06:00' } } as const
    const all = Array.from({ length: 40 }, (_none, index) => episode(index))
    const dates = datesOf({ kind: 'lay out', layout, order: 'number' }, all, around)
    expect(dates[0]).toEqual({ refused: 'It would be dated before the year 2000.' })
    expect(dates.at(-1)).toEqual(at('2026-03-10T05:00:00Z'))
  })
})

describe('order', () => {
  const dated = (number: number, day: string): Dateable =>
    episode(number, { status: 'scheduled', releaseAt: new Date(`${day}T05:00:00Z`) })

  it('is mended by exchanging dates: the earliest for the lowest number', () => {
    const all = arranged({ kind: 'dates by number' }, [dated(13, '2026-04-07'), dated(12, '2026-04-14')])
    expect(numbers(all)).toEqual([12, 13])
    expect(datesOf({ kind: 'dates by number' }, all, around)).toEqual([
      at('2026-04-07T05:00:00Z'),
      at('2026-04-14T05:00:00Z'),
    ])
  })

  it('at one moment is made by a minute each, and what follows close gives way', () => {
    const change: Dated = { kind: 'minute apart' }
    const all = arranged(change, [
      dated(3, '2026-04-07'),
      dated(1, '2026-04-07'),
      dated(2, '2026-04-07'),
      { ...dated(9, '2026-04-07'), releaseAt: new Date('2026-04-07T05:01:00Z') },
    ])
    expect(datesOf(change, all, around)).toEqual([
      null,
      at('2026-04-07T05:01:00Z'),
      at('2026-04-07T05:02:00Z'),
      at('2026-04-07T05:03:00Z'),
    ])
  })
})
