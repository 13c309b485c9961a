import { join } from 'node:path'
import { DateTime } from 'luxon'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode, EpisodePage, EpisodeSummary } from '@contract/episodes'
import type { Show, ShowPage } from '@contract/shows'
import type { TranscriptSummary } from '@contract/transcripts'
import { Account, Session } from '@server/people/accounts/models'
import { type House, openHouse } from '@server/testing/house'
import { fillDemo } from './fill'
import { demoAccount, demoShows } from './scenario'

const today = new Date('2026-07-01T10:00:00Z')
let house: House
let shows: Show[]
let episodes: EpisodeSummary[][]
let get: (url: string) => Promise<unknown>

beforeAll(async () => {
  house = await openHouse()
  await Session.destroy({ where: {} })
  await Account.destroy({ where: {} })
  await fillDemo(house.platform, house.clock, today, join(import.meta.dirname))
  house.clock.moveTo(today)
  const answer = await house.app.inject({ method: 'POST', url: '/api/v1/session', payload: demoAccount })
  const headers = { cookie: String(answer.headers['set-cookie']).split(';')[0]! }
  get = async url => (await house.app.inject({ url: `/api/v1${url}`, headers })).json()
  const { shows: listed } = (await get('/shows')) as ShowPage
  shows = (await Promise.all(listed.map(({ id }) => get(`/shows/${id}`)))) as Show[]
  episodes = await Promise.all(
    shows.map(async show => ((await get(`/shows/${show.id}/episodes`)) as EpisodePage).episodes),
  )
}, 120_000)
afterAll(() => house.close())

describe('the demo', () => {
  it('tells who speaks in it, and one episode has a picture of its own', async () => {
    const { body } = await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })
    expect(body.slice(0, body.indexOf('<item>'))).toMatch(/<podcast:person role="host"[^>]*>Tove Aldermoor</i)
    const pictures = [...body.matchAll(/<itunes:image href="([^"]+)"/g)].map(([, address]) => address!)
    expect(pictures.length).toBe(2)
    expect(new Set(pictures).size).toBe(2)
  })
  it('has two shows, at the addresses that stay', () => {
    expect(shows.map(({ feedAddress }) => new URL(feedAddress).pathname)).toEqual([
      '/bellows-and-reeds/feed.xml',
      '/slow-ferry/feed.xml',
    ])
  })

  it('has six released episodes, one scheduled and one draft, and two on the ferry', () => {
    const statuses = episodes.map(list => list.map(({ status }) => status))
    expect(statuses[0]!.toSorted()).toEqual(['draft', ...Array<string>(6).fill('released'), 'scheduled'])
    expect(statuses[1]).toEqual(['released', 'released'])
  })

  it('opens each of them, and what is released has a transcript and chapters', async () => {
    for (const { id, status } of episodes.flat()) {
      expect(((await get(`/episodes/${id}`)) as Episode).id).toBe(id)
      const { transcripts } = (await get(`/episodes/${id}/transcripts`)) as { transcripts: TranscriptSummary[] }
      const said = JSON.stringify(await get(`/episodes/${id}/preview`))
      const has = [transcripts.length, said.includes('podcast:transcript'), said.includes('podcast:chapters')]
      expect(has).toEqual(status === 'released' ? [1, true, true] : [0, false, false])
    }
  })

  it('is dated from today: nothing released lies ahead, nothing scheduled behind, the newest is at most two weeks old', () => {
    for (const { status, releaseAt } of episodes.flat()) {
      if (status === 'released') expect(new Date(releaseAt!) < today).toBe(true)
      if (status === 'scheduled') expect(new Date(releaseAt!) > today).toBe(true)
    }
    const newest = Math.max(
      ...episodes[0]!.filter(({ status }) => status === 'released').map(({ releaseAt }) => +new Date(releaseAt!)),
    )
    expect(+today - newest).toBeLessThan(14 * 86_400_000)
  })

  it('goes out at the show’s usual time by the clock of its zone, in summer and in winter', () => {
    const [{ zone }] = shows as [Show]
    for (const { releaseAt } of episodes[0]!)
      if (releaseAt) expect(DateTime.fromISO(releaseAt, { zone }).toFormat('HH:mm')).toBe('06:00')
  })

  it('tells in the feed what the scenario tells', async () => {
    const feed = (await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body
    for (const { title, status } of demoShows[0]!.episodes)
      expect(feed.includes(`<title>${title}</title>`), title).toBe(status === 'released')
  })

  it('has sounds whose tags fit their episodes', () => {
    for (const [index, show] of demoShows.entries()) {
      for (const { title, number, sound } of show.episodes) {
        const found = episodes[index]!.find(episode => episode.number === number)!
        expect(found.title).toBe(title)
        expect(found.hasAudio).toBe(sound !== null)
      }
    }
  })
})
