import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Comment as CommentView, CommentList } from '@contract/comments'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { evasions } from '@core/notes/evasion.fixture'
import { Notice } from '../../release/mail/models'
import { type House, openHouse } from '../../testing/house'
import { Comment, CommentBan } from './models'

let house: House
let show: Show
let episode: Episode
let path: string
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  const { id, version } = await house.makeReady(show.id, 'The harmonium that coughed')
  episode = (await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).json()
  path = new URL(episode.pageAddress!).pathname
})
afterAll(() => house.close())
beforeEach(async () => {
  await house.platform.database.query('DELETE FROM rate_counts')
  await Promise.all([Comment.destroy({ where: {} }), CommentBan.destroy({ where: {} }), Notice.destroy({ where: {} })])
  await open(true)
})

const open = (takesComments: boolean) => house.call('PUT', `/shows/${show.id}/comments`, { takesComments })
const write = (said: Record<string, string>, from = '192.0.2.1', at = path) =>
  house.app.inject({
    method: 'POST',
    url: `${at}/comments`,
    remoteAddress: from,
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    payload: new URLSearchParams(said).toString(),
  })
const list = async (query = ''): Promise<CommentList> =>
  (await house.call('GET', `/shows/${show.id}/comments${query}`)).json()
const page = async (): Promise<string> => (await house.app.inject({ url: path })).body
const change = async ({ id, version }: CommentView, wanted: object) =>
  house.call('PATCH', `/comments/${id}`, { version, ...wanted })

it('nothing is taken before the maker has opened the show to it', async () => {
  await open(false)
  expect(await page()).not.toContain('comment-form')
  expect((await write({ name: 'Ilse', words: 'Hello' })).statusCode).toBe(404)
  expect(await Comment.count()).toBe(0)
})

it('what is written is seen by nobody before it was read; then with its answer; and not any more once it is hidden', async () => {
  const sent = await write({ name: 'Ilse from the ferry', words: 'Is wax better?\r\n\r\n\r\n\r\nOr glue?' })
  // RFC 9110 section 15.4.4.
  expect([sent.statusCode, sent.headers.location]).toEqual([303, `${episode.pageAddress}/comments`])
  expect((await house.app.inject({ url: `${path}/comments` })).body).toContain('Thank you')
  expect(await page()).not.toContain('Is wax better?')
  const [waiting] = (await list('?state=waiting')).comments
  expect(waiting).toMatchObject({
    name: 'Ilse from the ferry',
    words: 'Is wax better?\n\nOr glue?',
    state: 'waiting',
    links: 0,
  })
  const shown = (await change(waiting!, { state: 'shown', answer: 'Wax, always.' })).json()
  const body = await page()
  expect(body).toContain('Is wax better?')
  expect(body).toContain('Wax, always.')
  await change(shown, { state: 'hidden' })
  expect(await page()).not.toContain('Is wax better?')
})

it.each([
  ['no name', { name: ' \u200b ', words: 'Hello' }, 'Enter a name'],
  ['a name of 81 letters', { name: 'é'.repeat(81), words: 'Hello' }, 'at most 80 characters'],
  ['no words', { name: 'Ilse', words: '\n\u202e\n' }, 'Your comment is empty'],
  ['too many words', { name: 'Ilse', words: 'x'.repeat(3001) }, 'at most 3,000 characters'],
  ['six links', { name: 'Ilse', words: 'https://a.example '.repeat(6) }, 'at most 5 links'],
])('%s is told on the page, with what was written', async (_what, said, rule) => {
  const { statusCode, body } = await write(said)
  expect([statusCode, body.includes(rule)]).toEqual([422, true])
  expect(await Comment.count()).toBe(0)
})

it('a machine that fills in what no person sees believes that it was heard', async () => {
  expect((await write({ name: 'Rook', words: 'Buy', website: 'https://rook.example' })).statusCode).toBe(303)
  expect(await Comment.count()).toBe(0)
})

it('whoever is banned believes so, too, until they are taken from again; others are heard', async () => {
  await write({ name: 'Rook', words: 'Buy reeds' })
  const [rook] = (await list()).comments
  const banned = (await change(rook!, { isBanned: true, state: 'hidden' })).json()
  expect((await write({ name: 'Rook again', words: 'Buy' })).statusCode).toBe(303)
  await write({ name: 'Ilse', words: 'Hello' }, '192.0.2.2')
  expect((await list()).comments.map(({ name, isBanned }) => [name, isBanned])).toEqual([
    ['Ilse', false],
    ['Rook', true],
  ])
  await change(banned, { isBanned: false })
  await write({ name: 'Rook a third time', words: 'Sorry' })
  expect(await Comment.count()).toBe(3)
})

it('a ban holds for all addresses of a network', async () => {
  await write({ name: 'Rook', words: 'Buy reeds' }, '2001:db8:9:1::1')
  const [rook] = (await list()).comments
  await change(rook!, { isBanned: true })
  expect((await write({ name: 'Rook again', words: 'Buy' }, '2001:db8:9:1:ffff::2')).statusCode).toBe(303)
  await write({ name: 'Ilse', words: 'Hello' }, '2001:db8:9:2::1')
  expect((await list()).comments.map(({ name }) => name)).toEqual(['Ilse', 'Rook'])
})

describe('too much', () => {
  it('from one address waits for a while', async () => {
    const answers = []
    for (let count = 0; count < 8; count++) answers.push((await write({ name: 'Rook', words: `${count}` })).statusCode)
    expect(answers).toEqual([303, 303, 303, 303, 303, 429, 429, 429])
    house.clock.moveBy(11 * 60_000)
    expect((await write({ name: 'Rook', words: 'Later' })).statusCode).toBe(303)
  })
  it('from one network of IPv6, or of one place, does so, however many addresses it has; from others it is heard', async () => {
    const taken = async (addresses: string[]): Promise<number> => {
      const before = await Comment.count()
      for (const address of addresses) await write({ name: 'Rook', words: address }, address)
      return (await Comment.count()) - before
    }
    expect(await taken(Array.from({ length: 60 }, (_, at) => `2001:db8:1:1::${at.toString(16)}`))).toBe(5)
    expect(await taken(Array.from({ length: 60 }, (_, at) => `2001:db8:1:${(at + 2).toString(16)}::1`))).toBe(15)
    expect(await taken(['2001:db8:2::1', '192.0.2.9', '::ffff:192.0.2.10'])).toBe(3)
    expect(await taken(Array.from({ length: 9 }, () => '::ffff:192.0.2.10'))).toBe(4)
  })
  it('at once from one place does so; others are heard meanwhile', async () => {
    const flood = Array.from({ length: 100 }, (_, at) => write({ name: 'Rook', words: `${at}` }, `2001:db8:3:${at}::1`))
    const others = Array.from({ length: 30 }, (_, at) => write({ name: 'Ilse', words: `${at}` }, `198.51.100.${at}`))
    expect((await Promise.all(others)).map(({ statusCode }) => statusCode)).toEqual(others.map(() => 303))
    expect((await Promise.all(flood)).filter(({ statusCode }) => statusCode === 303).length).toBeLessThanOrEqual(20)
  })
  it('unread from one network does so, until somebody has read some of it', async () => {
    for (let round = 0; round < 5; round++) {
      for (let count = 0; count < 5; count++) await write({ name: 'Rook', words: `${round} ${count}` }, '192.0.2.30')
      house.clock.moveBy(11 * 60_000)
    }
    expect(await Comment.count()).toBe(20)
    expect((await write({ name: 'Ilse', words: 'Hello' }, '192.0.2.31')).statusCode).toBe(303)
  })
  it('at once, 5 MB, is refused before it is read', async () => {
    expect((await write({ name: 'Rook', words: 'x'.repeat(5_000_000) })).statusCode).toBe(413)
  })
})

it.each(evasions.slice(0, 200))('is words and nothing else: %s', async attack => {
  const words = (typeof attack === 'string' ? attack : JSON.stringify(attack)).slice(0, 3000)
  await Comment.create({
    id: crypto.randomUUID(),
    showId: show.id,
    episodeId: episode.id,
    name: words.slice(0, 80),
    words,
    answer: words,
    state: 'shown',
    asker: 'x',
    cameAt: house.clock.now(),
  })
  await open(true)
  const list = /<ol class="comments">.*?<\/ol>/s.exec(await page())![0]
  const tags = new Set([...list.matchAll(/<\/?([a-z]+)/g)].map(([, tag]) => tag))
  expect([...tags].filter(tag => !['ol', 'li', 'p', 'b', 'time', 'blockquote'].includes(tag!))).toEqual([])
})

it('every writing stays as it was written', async () => {
  const writings = [
    'Ελληνικά',
    'кириллица',
    'עברית',
    'العربية',
    'हिन्दी',
    'বাংলা',
    'ไทย',
    '中文',
    '日本語',
    '한국어',
    'ქართული',
    'አማርኛ',
    '🪗 👩‍🔧',
  ]
  for (const [at, words] of writings.entries()) await write({ name: words, words }, `203.0.113.${at}`)
  expect((await list()).comments.map(({ words }) => words).toReversed()).toEqual(writings)
})

it('the maker is written to of all that came in an hour, once', async () => {
  await write({ name: 'Ilse', words: 'One' })
  await write({ name: 'Benno', words: 'Two' }, '192.0.2.7')
  expect(await Notice.count({ where: { kind: 'commented' } })).toBe(1)
  house.clock.moveBy(3600_000)
  await write({ name: 'Ilse', words: 'Three' })
  expect(await Notice.count({ where: { kind: 'commented' } })).toBe(2)
})

// RFC 4180; and common practice, no source: a cell that begins like a formula is marked as words.
it('all of it is taken along as a table', async () => {
  await write({ name: '=1+1', words: 'He said "wax",\nand meant it.' })
  const { body, headers } = await house.call('GET', `/shows/${show.id}/comments.csv`)
  expect(headers['content-type']).toBe('text/csv; charset=utf-8')
  expect(body.split('\r\n').slice(0, 2).join('|')).toContain(
    `"The harmonium that coughed","'=1+1","He said ""wax"",\nand meant it.","waiting",""`,
  )
  for (const [words, cell] of [
    ['Wax;=1+1', `"Wax;'=1+1"`],
    ['＝1+1', `"'＝1+1"`],
    ['＠SUM(1)', `"'＠SUM(1)"`],
    ['Glue\n-2+3', `"Glue\n'-2+3"`],
    ['Half-way; 1 - 2', '"Half-way; 1 - 2"'],
  ] as const) {
    await write({ name: 'Ilse', words }, `203.0.113.${words.length}`)
    expect((await house.call('GET', `/shows/${show.id}/comments.csv`)).body).toContain(cell)
  }
})

it('of two windows the second is told', async () => {
  await write({ name: 'Ilse', words: 'Hello' })
  const [comment] = (await list()).comments
  expect((await change(comment!, { state: 'shown' })).statusCode).toBe(200)
  expect((await change(comment!, { state: 'hidden' })).statusCode).toBe(409)
})
