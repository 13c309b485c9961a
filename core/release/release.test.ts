import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { readLocalMoment, wallTime } from './moment'
import { type Goer, hindering, hindrancesOf, withTitle } from './readiness'
import { after, statuses, type Step } from './status'

describe('a wall time in a zone', () => {
  it('means one moment on most days', () => {
    expect(readLocalMoment('2026-12-03T06:00', 'Europe/Zurich')).toEqual({
      kind: 'moment',
      at: new Date('2026-12-03T05:00:00Z'),
    })
    expect(readLocalMoment('2026-12-03T06:00', 'Asia/Kathmandu')).toEqual({
      kind: 'moment',
      at: new Date('2026-12-03T00:15:00Z'),
    })
  })
  it('is said to be skipped in the hour that the clock jumps over, with the next one named', () => {
    expect(readLocalMoment('2026-03-29T02:30', 'Europe/Zurich')).toEqual({ kind: 'skipped', next: '2026-03-29T03:00' })
    expect(readLocalMoment('2026-03-08T02:00', 'America/New_York')).toEqual({
      kind: 'skipped',
      next: '2026-03-08T03:00',
    })
    expect(readLocalMoment('2026-10-04T02:10', 'Australia/Lord_Howe')).toEqual({
      kind: 'skipped',
      next: '2026-10-04T02:30',
    })
  })
  it('has two moments in the hour that the clock shows twice', () => {
    expect(readLocalMoment('2026-10-25T02:30', 'Europe/Zurich')).toEqual({
      kind: 'twice',
      at: new Date('2026-10-25T00:30:00Z'),
      second: new Date('2026-10-25T01:30:00Z'),
    })
  })
  it.each(['', 'tomorrow', '2026-02-30T06:00', '2026-12-03T25:00', '2026-12-03'])('cannot be read from %j', local => {
    expect(readLocalMoment(local, 'Europe/Zurich').kind).toBe('unreadable')
  })
  it('cannot be read in a zone that does not exist', () =>
    expect(readLocalMoment('2026-12-03T06:00', 'Lake/Odrem').kind).toBe('unreadable'))

  // Common practice, no source: just after midnight on the day; at 01:00 in a zone five hours west, so that listeners in the
  // east have it when they get up.
  it('lets listeners in the east have it when they get up', () => {
    const read = readLocalMoment('2026-12-03T01:00', 'America/New_York')
    expect(read.kind === 'moment' && wallTime(read.at, 'Europe/London')).toBe('2026-12-03T06:00')
    const midnight = readLocalMoment('2026-12-03T00:05', 'Europe/Zurich')
    expect(midnight.kind === 'moment' && wallTime(midnight.at, 'Europe/Zurich').slice(0, 10)).toBe('2026-12-03')
  })

  // IANA tz database, as the system's own `date` reads it.
  it.each(['Europe/Zurich', 'America/New_York', 'Pacific/Auckland', 'Asia/Tehran', 'America/Sao_Paulo'])(
    'agrees with the system’s clock in %s',
    zone => {
      for (const local of ['2026-01-15T06:00', '2026-04-15T23:59', '2026-07-15T12:00', '2026-11-15T00:00']) {
        const epoch = execFileSync('date', ['-d', `TZ="${zone}" ${local.replace('T', ' ')}`, '+%s'], {
          encoding: 'utf8',
        }).trim()
        expect(readLocalMoment(local, zone)).toMatchObject({ at: new Date(Number(epoch) * 1000) })
        expect(wallTime(new Date(Number(epoch) * 1000), zone)).toBe(local)
      }
    },
  )
})

const ready: Goer = { title: 'A', source: { type: 'audio/mpeg', isReachable: true }, finish: null }

describe('the status of an episode', () => {
  const from = (step: Step) => statuses.filter(status => after(step, status))
  it('can be released or scheduled from draft and from scheduled only', () => {
    expect(from('release')).toEqual(['draft', 'scheduled'])
    expect(from('schedule')).toEqual(['draft', 'scheduled'])
  })
  it('never leads from released back to draft', () => {
    expect(
      ['release', 'schedule', 'unschedule', 'retire', 'restore'].map(step => after(step as Step, 'released')),
    ).toEqual([null, null, null, 'retired', null])
  })
  it('needs audio and a title first', () => {
    expect(hindrancesOf({ title: ' \u200b', source: null, finish: null })).toEqual(['no audio', 'no title'])
    expect(hindrancesOf(ready)).toEqual([])
  })
  it.each([
    [{ finish: 'working' }, ['being finished'], ['being finished'], []],
    [{ finish: 'failed' }, ['not finished'], ['not finished'], []],
    [{ source: { type: 'audio/flac', isReachable: true } }, ['other format'], ['other format'], []],
    [{ source: { type: 'audio/mpeg', isReachable: false } }, ['not there'], [], []],
    [{ source: null }, ['no audio'], ['no audio'], ['no audio']],
    [{ title: '' }, ['no title'], ['no title'], ['no title']],
  ] as const)('with %j waits for %j; by hand for %j, to be scheduled for %j', (other, found, released, scheduled) => {
    const hindrances = hindrancesOf({ ...ready, ...other })
    expect([hindrances, hindering('release', hindrances), hindering('schedule', hindrances)]).toEqual([
      found,
      released,
      scheduled,
    ])
  })
  it('is looked at with the title that is being written', () => {
    expect(withTitle(['no audio', 'no title'], 'A')).toEqual(['no audio'])
    expect(withTitle(['no audio'], ' ')).toEqual(['no audio', 'no title'])
  })
})
