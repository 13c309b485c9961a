import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byListenerDay, count, type Fetch, type FileSound, type ListenerDays, type Source } from './count'
import { everyPart, heardByPart, heardSteps, type HeardStep } from './heard'

// A hundred parts of 100,000 bytes behind 5,000 bytes of tags; a minute is 600,000 bytes.
const sounds: Readonly<Record<string, FileSound>> = {
  long: { audio: [5_000, 10_004_999], minuteBytes: 600_000 },
  replaced: { audio: [0, 999_999], minuteBytes: 600_000 },
}
const soundOf = (fileId: string): FileSound | undefined => sounds[fileId]

interface Heard {
  from: number
  to: number
  minute?: number
  who?: string
  source?: Source
  fileId?: string
  isRobot?: boolean
}
const fetched = ({ from, to, minute = 0, who = 'Ilse', source = 'page', fileId = 'long', isRobot = false }: Heard) =>
  ({
    at: new Date(Date.parse('2026-11-20T06:10:00Z') + minute * 60_000),
    showId: 'bellows',
    episodeId: '36',
    fileId,
    method: 'GET',
    status: 206,
    bytesSent: to - from,
    range: [from, to - 1],
    who,
    isRobot,
    isHosted: false,
    isPrefetch: false,
    times: 1,
    traits: { app: 'Kelp', device: 'phone', place: 'SE', source },
  }) satisfies Fetch

/** How many heard which part of which file, and began to. */
function sumOf(steps: readonly HeardStep[]): Record<string, number> {
  const files = new Set(steps.map(({ fileId }) => fileId))
  const sums = [...files].flatMap(file => {
    const of = (part: number): number =>
      steps.filter(step => step.fileId === file && step.part === part).reduce((sum, { by }) => sum + by, 0)
    return [...heardByPart(of), of(everyPart)].map((many, part): [string, number] => [`${file} ${part}`, many])
  })
  return Object.fromEntries(sums.filter(([, many]) => many !== 0))
}
function heard(stretches: readonly (readonly Heard[])[]): Record<string, number> {
  let open: ListenerDays = new Map()
  const steps: HeardStep[] = []
  for (const stretch of stretches) {
    const { changed } = count(open, byListenerDay(stretch.map(fetched)), soundOf)
    steps.push(...heardSteps(open, changed, soundOf))
    open = new Map([...open, ...changed])
  }
  return sumOf(steps)
}

describe('how far an episode was heard', () => {
  it('is told of players on pages, by each part that came at least by half, and by who began', () => {
    // Three parts and a little less than half of one; then all of the second one again, in another stretch.
    const first = [{ from: 0, to: 354_999 }]
    const wanted = { 'long 0': 1, 'long 1': 1, 'long 2': 1, [`long ${everyPart}`]: 1 }
    expect(heard([first])).toEqual(wanted)
    expect(heard([first, [{ from: 105_000, to: 205_000, minute: 9 }]])).toEqual(wanted)
    expect(heard([[{ from: 0, to: 355_000 }]])).toEqual({ ...wanted, 'long 3': 1 })
    expect(heard([first, [{ from: 9_905_000, to: 10_005_000, minute: 40 }]])).toEqual({ ...wanted, 'long 99': 1 })
  })

  it('is not told of apps, which fetch the whole, nor of robots', () => {
    expect(heard([[{ from: 0, to: 10_005_000, source: 'feed' }]])).toEqual({})
    expect(heard([[{ from: 0, to: 10_005_000, isRobot: true }]])).toEqual({})
  })

  it('is told of each file for itself', () => {
    const sums = heard([[{ from: 0, to: 105_000 }], [{ from: 0, to: 14_000, fileId: 'replaced', minute: 300 }]])
    expect(sums).toEqual({
      'long 0': 1,
      [`long ${everyPart}`]: 1,
      'replaced 0': 1,
      [`replaced ${everyPart}`]: 1,
    })
  })

  it('is taken back where a line that came late tells that it was an app', () => {
    const page = { from: 0, to: 2_000_000, minute: 30 }
    expect(heard([[page], [{ from: 0, to: 2_000_000, source: 'feed' }]])).toEqual({})
  })

  it('is two figures for who hears it in one go, wherever that ends', () => {
    const { changed } = count(new Map(), byListenerDay([fetched({ from: 0, to: 7_000_000 })]), soundOf)
    expect(heardSteps(new Map(), changed, soundOf).map(({ part, by }) => [part, by])).toEqual([
      [everyPart, 1],
      [0, 1],
      [70, -1],
    ])
  })

  it('comes to the same in whatever stretches and order', () => {
    const lines = fc.array(
      fc
        .record({
          from: fc.nat(9_000_000),
          length: fc.integer({ min: 1, max: 900_000 }),
          minute: fc.nat(900),
          who: fc.constantFrom('Ilse', 'Benno'),
          source: fc.constantFrom<Source>('page', 'frame', 'feed'),
          fileId: fc.constantFrom('long', 'replaced', 'gone'),
          isRobot: fc.constantFrom(false, false, false, true),
        })
        .map(({ length, ...line }) => ({ ...line, to: line.from + length })),
      { maxLength: 40 },
    )
    fc.assert(
      fc.property(
        lines,
        fc.array(fc.nat(9), { maxLength: 10 }),
        fc.infiniteStream(fc.nat()),
        (all, lengths, random) => {
          const shuffled = all
            .map(each => [random.next().value as number, each] as const)
            .toSorted(([one], [other]) => one - other)
            .map(([, each]) => each)
          const stretches = lengths.map(length => shuffled.splice(0, length))
          expect(heard([...stretches, shuffled])).toEqual(heard([all]))
        },
      ),
    )
  })
})
