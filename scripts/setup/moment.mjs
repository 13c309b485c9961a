import { execFileSync } from 'node:child_process'
import { Halt } from './halt.mjs'
import { root } from './place.mjs'

const dayMs = 24 * 3600_000
const isLastSunday = (at, month) =>
  at.getUTCMonth() === month && at.getUTCDay() === 0 && new Date(+at + 7 * dayMs).getUTCMonth() !== month

/**
 * The days on which tests that lean on today fail: each with its name, what tells it, and the time of day in UTC. Summer time
 * begins and ends on the last Sundays of March and October at 01:00 UTC (Directive 2000/84/EC); midnight in Zurich is 22:00
 * or 23:00 UTC. Tests begin some minutes before what they are to meet.
 */
const days = [
  ['1st of a month', at => at.getUTCDate() === 1, '09:00'],
  ['28th', at => at.getUTCDate() === 28, '12:00'],
  ['29th', at => at.getUTCDate() === 29, '12:00'],
  ['30th', at => at.getUTCDate() === 30, '12:00'],
  ['31st', at => at.getUTCDate() === 31, '12:00'],
  ['29 February', at => at.getUTCMonth() === 1 && at.getUTCDate() === 29, '12:00'],
  ['31 December', at => at.getUTCMonth() === 11 && at.getUTCDate() === 31, '22:30'],
  ['summer time begins', at => isLastSunday(at, 2), '00:58'],
  ['summer time ends', at => isLastSunday(at, 9), '00:58'],
  ['a Sunday', at => at.getUTCDay() === 0, '12:00'],
  ['midnight UTC', () => true, '23:58'],
  ['midnight in Zurich', at => at.getUTCMonth() === 0, '22:58'],
]

/** The next of each kind, at least a day after a moment: `{ name, at }`. */
export function trickyMoments(from) {
  return days.map(([name, isIt, time]) => {
    const at = new Date(`${new Date(+from + 2 * dayMs).toISOString().slice(0, 10)}T${time}:00Z`)
    while (!isIt(at)) at.setTime(+at + dayMs)
    return { name, at }
  })
}

/** The commit that is tested, as a number of 32 bits; null where there is none. */
export function commitNumber() {
  try {
    const name = execFileSync('git', ['rev-parse', 'HEAD'], { cwd: root, stdio: ['ignore', 'pipe', 'ignore'] })
    return parseInt(name.toString().slice(0, 8), 16)
  } catch {
    return null
  }
}

/** At which moment the tests are to begin: NOW as ISO 8601 with its zone, or `commit` for one chosen by the commit; null for that of the world. */
export function momentOf(now) {
  if (!now) return null
  if (now === 'commit') {
    const number = commitNumber()
    const moments = trickyMoments(new Date())
    return number === null ? null : moments[number % moments.length].at
  }
  const at = new Date(now)
  if (Number.isNaN(+at) || !/(Z|[+-]\d\d:\d\d)$/.test(now))
    throw new Halt(
      `NOW=${now} is no moment; write it as 2026-12-30T22:30Z, or NOW=commit for one chosen by the commit.`,
    )
  if (+at < Date.now()) throw new Halt(`NOW=${now} is past; the clock of the tests moves forward only.`)
  return at
}
