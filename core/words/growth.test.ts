import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Reading } from './growth.fixture'
import { shapes } from './growthShapes.fixture'
import { countBuiltIns, counted, workOf } from './work.fixture'

/** Twice as many letters take at most so many times the work, of these or of twice as many; a few steps more are let go. */
const length = 1_000
const mostGrowth = 2.5
const few = 1_000

/** The work for a text, for twice as much of it, and for four times; what is done up to a limit only grows once. */
function grown(read: Reading, shape: string): number[] {
  const work = (times: number): number => workOf(() => read(shape.repeat(Math.ceil((times * length) / shape.length))))
  const [once, twice] = [work(1), work(2)]
  return isMore(once, twice) ? [once, twice, work(4)] : [once, twice]
}
const isMore = (once: number, twice: number): boolean => twice > mostGrowth * once + few
const isTooMuch = ([once, twice, fourTimes]: number[]): boolean =>
  fourTimes !== undefined && isMore(once!, twice!) && isMore(twice!, fourTimes)

let end: () => void
beforeAll(() => {
  end = countBuiltIns()
})
afterAll(() => end())

describe('what reads text of others works as much as the text is long', () => {
  it.each<[string, Reading]>([
    [
      'looks at the end of a text that grows',
      text => [...text].reduce((all, letter) => ((all + letter).endsWith(':') ? all : all + letter), ''),
    ],
    ['looks for each letter in all of them', text => [...text].map((_letter, at) => text.indexOf('!', at))],
    ['copies what it has for each', text => [...text].reduce<string[]>((all, letter) => [...all, letter], [])],
    ['matches from each place to the end', text => [...text].map((_letter, at) => /!/.exec(text.slice(at)))],
  ])('and by this measure what %s is told', (_what, read) => {
    expect(isTooMuch(grown(read, 'ab '))).toBe(true)
  })
  it('and what goes through it once is let go', () => {
    expect(isTooMuch(grown(text => text.split(' ').map(word => word.trim().toUpperCase()), 'ab '))).toBe(false)
  })

  let readings: Readonly<Record<string, Reading>>
  beforeAll(async () => {
    readings = (await counted<{ readings: typeof readings }>('core/words/growth.fixture.ts')).readings
  })
  it('reads, cleans, looks up and writes: every reader, with each of the shapes', () => {
    const found = Object.entries(readings).flatMap(([name, read]) =>
      shapes.flatMap(shape => {
        const growth = grown(read, shape)
        return isTooMuch(growth) ? [`${name}, ${JSON.stringify(shape)}: ${growth.join(' → ')}`] : []
      }),
    )
    expect(found).toEqual([])
    expect(Object.keys(readings).length * shapes.length).toBeGreaterThan(4_000)
  }, 120_000)
})
