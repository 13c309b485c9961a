import NodeID3 from 'node-id3'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import type { FeedComparisonView } from '@contract/feed'
import type { Preview } from '@contract/preview'
import { type House, openHouse } from '../../testing/house'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('bellows-and-reeds')
  showId = show.id
  await house.call('PATCH', `/shows/${showId}`, { version: show.version, titlePattern: '{number}. {title}' })
})
afterAll(() => house.close())

const text = {
  title: 'A letter from a chapel',
  number: 37,
  hook: 'One note will not stop.',
  notes: '<p>{hook}</p><p>0:05 the letter</p><p>0:40 the floor</p><p>{links}</p>',
  tags: ['reed organ', 'troubleshooting'],
  links: [{ words: 'The list', address: 'https://lake.example/list' }],
  people: [{ name: 'Sister Amabel', role: 'Guest', address: null }],
}
const look = async (id: string): Promise<Preview> => (await house.call('GET', `/episodes/${id}/preview`)).json()
const write = async (id: string, part: object): Promise<EpisodeView> =>
  (await house.call('PATCH', `/episodes/${id}`, { version: (await house.get(id)).version, text: part })).json()
const words = ({ item }: Preview): string[] => item.map(({ line }) => line.trim())

describe('a look before the release', () => {
  it('shows a draft without audio as far as there is something, and says what is missing', async () => {
    const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as EpisodeView
    const seen = await look(id)
    expect([seen.hindrances, seen.at]).toEqual([['no audio', 'no title'], null])
    expect(words(seen).some(line => line.startsWith('<enclosure') || line.startsWith('<pubDate'))).toBe(false)
    expect(seen.inherited).toEqual(['title pattern', 'artwork', 'author', 'explicit', 'link'])
    expect((await house.call('GET', `/episodes/${id}/preview/page`)).statusCode).toBe(200)
  })

  it('shows just the item that stands in the feed then, but for its moment', async () => {
    const { id } = await house.makeReady(showId, '')
    const brought = await house.app.inject({
      method: 'POST',
      url: '/api/v1/artwork',
      headers: { cookie: house.cookie, 'content-type': 'application/octet-stream' },
      payload: await sharp({ create: { width: 1500, height: 1500, channels: 3, background: '#123' } })
        .jpeg()
        .toBuffer(),
    })
    await write(id, { ...text, artworkId: brought.json().id })
    const before = await look(id)
    expect(words(before).join()).toMatch(/<itunes:image href="http:\/\/lake.example\/media\/artwork\//)
    expect(before.title).toBe('37. A letter from a chapel')
    const { version } = await house.get(id)
    expect((await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).statusCode).toBe(
      200,
    )
    const feed = (await house.app.inject('/bellows-and-reeds/feed.xml')).body
    const [, item = ''] = /<item>([^]*)<\/item>/.exec(feed) ?? []
    const released = item
      .split('\n')
      .map(line => line.trim())
      .filter(line => line !== '' && !line.startsWith('<pubDate>'))
    const seen = words(before).filter(line => !['', '<item>', '</item>'].includes(line))
    expect(seen).toEqual(released)
    expect(seen.join()).toContain('https://lake.example/list')
  })

  it('says what becomes another thing in the feed when changes are sent, and nothing of what does not', async () => {
    const { id } = await house.makeReady(showId, 'Before')
    const change = () => house.call('GET', `/episodes/${id}/feed-change`)
    expect([(await change()).statusCode, (await change()).json().code]).toEqual([409, 'wrong-status'])
    const { version } = await house.get(id)
    await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    expect((await change()).json().words).toEqual(['Nothing that listeners would notice.'])
    await write(id, { number: 52, hook: 'Why it hums.', notes: '<p>Another word.</p>' })
    const { words: told, comparison } = (await change()).json() as FeedComparisonView
    expect(told[0]).toMatch(/^Episode 52: .*hook added/)
    expect(told.at(-1)).toBe('Apps will not show episode 52 as new.')
    expect(comparison.changed[0]!.differences).toContainEqual({
      what: 'hook',
      how: 'added',
      earlier: null,
      later: 'Why it hums.',
    })
  })

  it('marks what comes from the show', async () => {
    const { id } = await house.makeReady(showId, 'Marked')
    const inherited = async (): Promise<string[]> =>
      (await look(id)).item.filter(({ isInherited }) => isInherited).map(({ line }) => line.trim().replace(/>.*/, '>'))
    expect(await inherited()).toEqual(['<title>', '<link>', '<itunes:explicit>'])
    const extras = (await house.get(id)).text.extras
    await write(id, { extras: { ...extras, explicit: true, page: 'https://lake.example/own', author: 'Benno' } })
    expect(await inherited()).toEqual(['<title>'])
    expect((await look(id)).inherited).toEqual(['title pattern', 'artwork'])
  })

  it('lists the tags that a second library reads in the finished file', async () => {
    const { id } = await house.makeReady(showId, '')
    await write(id, text)
    await house.workOnSound()
    const { sound } = await house.get(id)
    const begun = await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: sound.usual })
    expect(begun.statusCode, begun.body).toBe(200)
    await house.workOnSound()
    const { tags } = await look(id)
    const { sound: done } = await house.get(id)
    const address = new URL(done.finished!.playAddress, 'http://house.example').pathname
    const bytes = (await house.app.inject({ url: address, headers: { cookie: house.cookie } })).rawPayload
    const read = NodeID3.read(bytes, { noRaw: true })
    const value = (frame: string, name?: string) =>
      tags.find(each => each.frame === frame && (!name || each.name === name))?.value
    expect([value('TIT2'), value('TIT3'), value('TALB'), value('TRCK'), value('COMM')]).toEqual([
      read.title,
      read.subtitle,
      read.album,
      read.trackNumber,
      read.comment?.text,
    ])
    expect(value('TXXX', 'Keywords')).toBe(
      read.userDefinedText?.find(({ description }) => description === 'KEYWORDS')?.value,
    )
    expect(tags.filter(({ frame }) => frame === 'CHAP').map(each => each.value)).toEqual(
      read.chapter?.map(chapter => chapter.tags?.title),
    )
  })

  it('the page runs no script but its own, and stands in a frame of the studio only', async () => {
    const { id } = await house.makeReady(showId, 'Framed')
    await write(id, {
      notes: '<p onclick="x()">Hello<script>alert(1)</script></p>',
      title: '<img src=x onerror=alert(1)>',
    })
    const page = await house.call('GET', `/episodes/${id}/preview/page`)
    const policy = String(page.headers['content-security-policy'])
    expect(policy).toContain("default-src 'self'")
    expect(policy).not.toContain('script-src')
    expect(page.headers['content-security-policy']).toContain("frame-ancestors 'self'")
    expect(page.headers['x-frame-options']).toBe('SAMEORIGIN')
    expect(page.body).toContain('Hello')
    expect(page.body).not.toMatch(/alert\(1\)<\/script>|<img src=x/)
    expect(page.body).toContain('/api/v1/files/')
  })
})
