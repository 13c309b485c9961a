import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { readLocalMoment, wallTime } from './moment'
import type { Rhythm } from './rhythm'
import { slotsAfter } from './slots'

// IANA tz database as the system's own zdump prints it. One zone moves its clock by half an hour, one never does.
const zones = [
  'Europe/Zurich',
  'America/New_York',
  'America/Santiago',
  'Pacific/Auckland',
  'Australia/Lord_Howe',
  'Asia/Kathmandu',
]

interface ClockChange {
  at: Date
  /** Minutes from UTC before it, and from it on. */
  before: number
  after: number
}

/** The changes of a zone's clock in 2026, 2027 and 2028. */
function changesOf(zone: string): ClockChange[] {
  const lines = execFileSync('zdump', ['-v', '-c', '2026,2029', zone], { encoding: 'utf8' })
    .split('\n')
    .flatMap(line => {
      const [, at, seconds] = /^\S+\s+(\w+ \w+\s+\d+ [\d:]+ \d+) UT = .* gmtoff=(-?\d+)$/.exec(line) ?? []
      return at === undefined ? [] : [{ at: new Date(`${at} UTC`), offset: Number(seconds) / 60 }]
    })
  // It prints the last second before each change, and the first one after it.
  return lines.flatMap(({ at, offset }, index) => {
    const before = lines[index - 1]
    return before && +at - +before.at === 1000 && before.offset !== offset
      ? [{ at, before: before.offset, after: offset }]
      : []
  })
}

const minuteMs = 60_000
const wallAt = (at: Date, offset: number): string => new Date(+at + offset * minuteMs).toISOString().slice(0, 16)
const later = (at: Date, minutes: number): Date => new Date(+at + minutes * minuteMs)

describe.each(zones)('the clock in %s', zone => {
  const changes = changesOf(zone)

  it(`changes ${changes.length} times in three years, and is read so around each of them`, () => {
    expect(changes.length).toBe(zone === 'Asia/Kathmandu' ? 0 : 6)
    for (const { at, before, after } of changes) {
      const width = after - before
      for (const minutes of [-180, -91, -1, 0, 1, 29, 31, 90, 180]) {
        const moment = later(at, minutes)
        expect(wallTime(moment, zone)).toBe(wallAt(moment, minutes < 0 ? before : after))
      }
      const [first, beyond] = [wallAt(at, Math.min(before, after)), wallAt(at, Math.max(before, after))]
      if (width > 0) {
        // What the clock leaps over is not there; the first minute behind it is.
        expect(readLocalMoment(first, zone)).toEqual({ kind: 'skipped', next: beyond })
        expect(readLocalMoment(wallAt(later(at, width - 1), before), zone).kind).toBe('skipped')
        expect(readLocalMoment(beyond, zone)).toEqual({ kind: 'moment', at })
      } else {
        expect(readLocalMoment(first, zone)).toEqual({ kind: 'twice', at: later(at, width), second: at })
        expect(readLocalMoment(beyond, zone)).toEqual({ kind: 'moment', at: later(at, -width) })
      }
      expect(readLocalMoment(wallAt(later(at, -1), Math.min(before, after)), zone).kind).toBe('moment')
    }
  })

  it('leaves a rhythm at its local time', () => {
    const rhythm: Rhythm = {
      unit: 'day',
      every: 1,
      days: [],
      nth: null,
      monthDay: null,
      time: '06:00',
      from: '2026-01-01',
      leftOut: [],
    }
    const still = { at: new Date('2027-01-01T00:00:00Z'), before: 345, after: 345 }
    for (const { at, before, after } of changes.length > 0 ? changes : [still]) {
      const around = slotsAfter(rhythm, zone, later(at, -36 * 60), 3)
      expect(around.every(({ local }) => local.endsWith('06:00'))).toBe(true)
      for (const slot of around) expect(slot.local).toBe(wallAt(slot.at, slot.at < at ? before : after))
    }
  })
})
