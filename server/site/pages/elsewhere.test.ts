import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import sharp from 'sharp'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { readXml } from '@core/xml/read'
import { type House, openHouse } from '../../testing/house'

/** What other sites, search engines and devices have of a show. */

let house: House
let show: Show
let released: Episode
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  const { id, version } = await house.makeReady(show.id, 'Bellows & "Reeds" <3')
  await house.workOnSound()
  released = (await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).json()
})
afterAll(() => house.close())
const get = (url: string, headers: Record<string, string> = {}) => house.app.inject({ url, headers })
const oembed = (query: Record<string, string>) => get(`/embed/oembed?${new URLSearchParams(query)}`)
const pathOf = (address: string): string => new URL(address).pathname

// oEmbed 1.0, section 2.3.4: type and version are required, for rich also html, width and height; thumbnails come with their sizes.
describe('a player for other sites', () => {
  it.each([
    ['a show', () => show.pageAddress, 'Bellows & Reeds'],
    ['an episode', () => released.pageAddress!, 'Bellows & "Reeds" <3'],
  ])('is found by the address of %s', async (_of, address, title) => {
    const answer = await oembed({ url: address() })
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'application/json; charset=utf-8'])
    const told = answer.json()
    expect(told).toMatchObject({ type: 'rich', version: '1.0', title, thumbnail_width: 480, thumbnail_height: 480 })
    expect(told.html).toMatch(/^<iframe src="[^"<>]+\/embed" title="[^"<>]*" width="600" [^<>]*><\/iframe>$/)
    const frame = await get(pathOf(/src="([^"]+)"/.exec(told.html)![1]!))
    expect(frame.statusCode).toBe(200)
    expect(frame.body).toContain('data-player="alone"')
  })
  it('is told as XML, too, and in no other format', async () => {
    const { headers, body } = await oembed({ url: released.pageAddress!, format: 'xml' })
    expect(headers['content-type']).toBe('text/xml; charset=utf-8')
    const { root } = readXml(body, {})
    expect(root).toMatchObject({ name: 'oembed' })
    expect((await oembed({ url: released.pageAddress!, format: 'yaml' })).statusCode).toBe(501)
  })
  it('is no larger than it may be', async () => {
    const told = (await oembed({ url: show.pageAddress, maxwidth: '320', maxheight: '150' })).json()
    expect([told.width, told.height]).toEqual([320, 150])
  })
  it.each([
    [{}, 422],
    [{ url: 'http://elsewhere.example/bellows-and-reeds' }, 404],
    [{ url: 'http://lake.example/nowhere' }, 404],
    [{ url: 'http://lake.example/bellows-and-reeds/nothing' }, 404],
    [{ url: 'http://lake.example.evil.example/bellows-and-reeds' }, 404],
    [{ url: 'http://lake.example/bellows-and-reeds', maxwidth: '-1' }, 422],
  ])('is not there for %j: %d', async (query, status) => {
    expect((await oembed(query as Record<string, string>)).statusCode).toBe(status)
  })
  it('is named in the head of the page', async () => {
    const { body } = await get(pathOf(released.pageAddress!))
    const [, address] = /<link rel="alternate" type="application\/json\+oembed" [^>]*href="([^"]+)"/.exec(body)!
    const { pathname, search } = new URL(address!.replaceAll('&amp;', '&'))
    expect((await get(pathname + search)).json().type).toBe('rich')
  })
  it('may be framed by anybody, and no other page by anyone', async () => {
    const policy = async (path: string) => String((await get(path)).headers['content-security-policy'])
    const embed = await get('/bellows-and-reeds/embed')
    expect(embed.headers['x-frame-options']).toBeUndefined()
    expect(await policy('/bellows-and-reeds/embed')).toContain('frame-ancestors *')
    expect(await policy(`${pathOf(released.pageAddress!)}/embed`)).toContain('frame-ancestors *')
    for (const path of ['/bellows-and-reeds', '/bellows-and-reeds/search', pathOf(released.pageAddress!)])
      expect(await policy(path)).toContain("frame-ancestors 'none'")
  })
  it('has the colours that were chosen, as far as they can be read', async () => {
    const { body } = await get('/bellows-and-reeds/embed?scheme=dark&accent=ffff00')
    expect(body).toContain('data-theme="dark"')
    expect(body).toMatch(/--accent:light-dark\(#[0-9a-f]{6},#ffff00\)/)
  })
})

// Sitemap protocol 0.9: urlset and loc are required, lastmod is a W3C date; addresses are of the host that tells them.
describe('search engines', () => {
  it('find every page of every show', async () => {
    const robots = await get('/robots.txt')
    expect(robots.body).toMatch(/^User-agent: \*\n/)
    const [, index] = /^Sitemap: (.*)$/m.exec(robots.body)!
    const locIn = (xml: string) => [...xml.matchAll(/<loc>([^<]+)<\/loc>/g)].map(([, loc]) => loc!)
    const [sitemap] = locIn((await get(pathOf(index!))).body)
    const { body, headers } = await get(pathOf(sitemap!))
    expect(headers['content-type']).toBe('application/xml; charset=utf-8')
    expect(body).toContain('<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">')
    for (const [, date] of body.matchAll(/<lastmod>([^<]+)</g)) expect(new Date(date!).toISOString()).toBe(date)
    const found = locIn(body)
    expect(found).toContain(released.pageAddress)
    for (const address of found) expect((await get(pathOf(address))).statusCode, address).toBe(200)
  })
  it('find nothing of a private show', async () => {
    const hidden = await house.makeShow('hidden')
    await house.call('PATCH', `/shows/${hidden.id}`, { version: 1, feedFacts: { isPrivate: true } })
    expect((await get('/sitemap.xml')).body).not.toContain('hidden')
    for (const path of ['', '/sitemap.xml', '/search?q=a', '/embed', '/share.jpg', '/manifest.webmanifest'])
      expect((await get(`/hidden${path}`)).statusCode, path).toBe(404)
    expect((await oembed({ url: hidden.pageAddress })).statusCode).toBe(404)
  })
})

// W3C Web Application Manifest: name, start_url and icons, whose sizes are those of the files.
it('a device finds a show’s name, colours and icons', async () => {
  const manifest = (await get('/bellows-and-reeds/manifest.webmanifest')).json()
  expect(manifest).toMatchObject({ name: 'Bellows & Reeds', start_url: show.pageAddress })
  for (const { src, sizes } of manifest.icons) {
    const { width, height } = await sharp((await get(pathOf(src))).rawPayload).metadata()
    expect(`${width}x${height}`).toBe(sizes)
  }
})

describe('the picture for whoever is sent a link', () => {
  it('is as large as the page says, and kept until something of it changes', async () => {
    const { body } = await get(pathOf(released.pageAddress!))
    const meta = (name: string) => new RegExp(`<meta property="og:${name}" content="([^"]*)">`).exec(body)![1]!
    const picture = await get(pathOf(meta('image')))
    const { width, height, format } = await sharp(picture.rawPayload).metadata()
    expect([String(width), String(height), `image/${format}`]).toEqual([
      meta('image:width'),
      meta('image:height'),
      meta('image:type'),
    ])
    // RFC 9110 section 13.1.2.
    const again = await get(pathOf(meta('image')), { 'if-none-match': String(picture.headers.etag) })
    expect([again.statusCode, again.rawPayload.length]).toEqual([304, 0])
  })
  it('is another one where the waveform is another', async () => {
    const show = await sharp((await get('/bellows-and-reeds/share.jpg')).rawPayload).stats()
    const episode = await sharp((await get(`${pathOf(released.pageAddress!)}/share.jpg`)).rawPayload).stats()
    expect(episode.channels[0]!.mean).not.toBeCloseTo(show.channels[0]!.mean, 0)
  })
})

it('artwork comes as WebP, smaller than as JPEG, in the widths that are offered and no other', async () => {
  const { body } = await get('/bellows-and-reeds')
  const set = /srcset="([^"]+)"/
    .exec(body)![1]!
    .split(', ')
    .map(each => each.split(' '))
  for (const [address, width] of set) {
    const answer = await get(pathOf(address!))
    expect(answer.headers['content-type']).toBe('image/webp')
    const facts = await sharp(answer.rawPayload).metadata()
    expect([facts.format, `${facts.width}w`]).toEqual(['webp', width])
  }
  const [first] = set
  expect((await get(pathOf(first![0]!).replace('-160.', '-161.'))).statusCode).toBe(404)
})
