import { describe, expect, it } from 'vitest'
import { logReader } from './reader'

const path = '/media/01a231d4-f01b-749b-b97e-7d4de11e4602/0123456789abcdef.mp3'
const line = {
  at: new Date('2026-11-20T05:10:00Z'),
  method: 'GET',
  path,
  status: 206,
  bytesSent: 960_000,
  range: null,
  agent: 'Kelp/3.1 (iPhone; iOS 17.1)',
  address: '192.0.2.7',
}

describe('a line of a log', () => {
  // The form that web servers call combined, as their handbooks show it (from memory).
  it.each([
    ['+0000', '20/Nov/2026:05:10:00 +0000'],
    ['a zone ahead', '20/Nov/2026:06:10:00 +0100'],
    ['a zone behind', '20/Nov/2026:00:10:00 -0500'],
  ])('is read in the combined form, in %s', (_zone, time) => {
    const text = `192.0.2.7 - - [${time}] "GET ${path} HTTP/1.1" 206 960000 "-" "Kelp/3.1 (iPhone; iOS 17.1)"`
    expect(logReader()(text)).toEqual(line)
  })

  it.each([
    ['seconds', { at: 1_795_151_400 }],
    ['milliseconds', { timestamp: 1_795_151_400_000 }],
    ['ISO 8601', { time: '2026-11-20T05:10:00Z' }],
    ['ISO 8601 of another zone', { time: '2026-11-20T06:10:00+01:00' }],
  ])('is read as JSON, with its time in %s', (_form, time) => {
    const given = {
      ...time,
      method: 'GET',
      url: `https://lake.example${path}`,
      status: '206',
      bytes: 960_000,
      content_range: 'bytes 0-959999/20000001',
      user_agent: 'Kelp/3.1 (iPhone; iOS 17.1)',
      client_ip: '192.0.2.7',
    }
    expect(logReader()(JSON.stringify(given))).toEqual({ ...line, range: { start: 0, end: 959_999 } })
  })

  // Extended Log File Format, W3C working draft WD-logfile-960323: its own directives and fields.
  it('is read in the extended form, by the columns that its directive names', () => {
    const read = logReader()
    expect(read('#Version: 1.0')).toBeNull()
    expect(
      read('#Fields: date time c-ip cs-method cs-uri-stem cs-uri-query sc-status sc-bytes cs(User-Agent)'),
    ).toBeNull()
    const text = `2026-11-20 05:10:00 192.0.2.7 GET ${path} from=page 206 960000 Kelp/3.1%20(iPhone;%20iOS%2017.1)`
    expect(read(text)).toEqual({ ...line, path: `${path}?from=page` })
    expect(read(`2026-11-20 05:10:00 192.0.2.7 GET ${path} - 206 960000 Kelp/3.1+(iPhone;+iOS+17.1)`)).toEqual(line)
    expect(read('#Fields: time\tdate\tcs-method')).toBeNull()
    expect(read('05:10:00\t2026-11-20\tGET')).toBeNull()
  })

  it.each([
    ['half of one', `192.0.2.7 - - [20/Nov/2026:05:10:00 +0000] "GET ${path}`],
    ['half of one in JSON', '{"at":1795151400,"meth'],
    ['JSON of something else', '[1, 2]'],
    ['no time', `{"method":"GET","path":"${path}","status":200}`],
    ['a day that is none', `192.0.2.7 - - [31/Feb/2026:05:10:00 +0000] "GET ${path} HTTP/1.1" 200 1 "-" "x"`],
    ['a status that is none', `{"at":1,"method":"GET","path":"${path}","status":9}`],
    ['a megabyte', `{"at":1,"method":"GET","path":"${'x'.repeat(1_000_000)}","status":200}`],
    ['nothing', ''],
  ])('is none where it is %s', (_what, text) => expect(logReader()(text)).toBeNull())

  it('is read in time that grows with its length', () => {
    const read = logReader()
    for (const text of [
      '"\\'.repeat(30_000),
      `1 - - [${' '.repeat(30)}] "GET ${'x'.repeat(60_000)}`,
      '-'.repeat(65_000),
    ])
      expect(read(text)).toBeNull()
  })
})
