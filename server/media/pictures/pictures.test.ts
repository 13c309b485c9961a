import { execFileSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import NodeID3 from 'node-id3'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import { artworkAt } from '@core/show/artwork'
import { makeSound } from '@core/audio/sound.fixture'
import { retention } from '../../app/retention/retention'
import { transact } from '../../platform/database/transact'
import { type House, openHouse, showFacts, squarePicture } from '../../testing/house'
import { Picture } from './models'
import { pictureService } from './service'

let house: House
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-pictures-'))
beforeAll(async () => {
  house = await openHouse()
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

const post = (payload: Buffer | string, type: string | undefined, query = '') =>
  house.app.inject({
    method: 'POST',
    url: `/api/v1/artwork${query}`,
    payload,
    headers: { cookie: house.cookie, ...(type !== undefined && { 'content-type': type }) },
  })
const seen = (url: string, signedIn = true) =>
  house.app.inject({ url, headers: signedIn ? { cookie: house.cookie } : {} })

describe('what is sent as artwork', () => {
  const path = join(folder, 'on-the-server.jpg')
  beforeAll(async () => writeFileSync(path, await squarePicture(1400)))

  it.each(['application/json', 'text/plain', 'application/x-www-form-urlencoded', 'text/html'])(
    'as %s is no picture, and never a path on the server',
    async type => {
      for (const query of ['', '?left=0&top=0&sidePx=1400']) {
        const answer = await post(type === 'application/json' ? JSON.stringify(path) : path, type, query)
        expect([answer.statusCode, answer.json().code], `${type}${query}`).toEqual([415, 'unsupported'])
      }
    },
  )
  it('that is a path is refused as bytes, too', async () =>
    expect((await post(path, 'application/octet-stream')).json()).toMatchObject({ code: 'picture-refused' }))
  it('that names a pipe does not hang anything', async () => {
    const pipe = join(folder, 'pipe')
    execFileSync('mkfifo', [pipe])
    for (const type of ['application/json', 'application/octet-stream', 'image/png'])
      expect((await post(JSON.stringify(pipe), type)).statusCode).toBeGreaterThanOrEqual(415)
    expect((await seen('/healthz', false)).statusCode).toBe(200)
  })
  it.each([
    ['', 'application/octet-stream'],
    ['', 'application/json'],
    ['{}', 'application/json'],
    ['null', 'application/json'],
    ['null', 'image/png'],
  ])('%j as %s is a request without a picture', async (body, type) => {
    const answer = await post(body, type)
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([
      400,
      'application/problem+json; charset=utf-8',
    ])
  })
})

describe('a picture that is taken', () => {
  const take = async (bytes: Buffer, type = 'image/jpeg') => {
    const { address, ...picture } = (await post(bytes, type)).json()
    const { rawPayload } = await seen(address)
    return { ...picture, address, bytes: rawPayload, facts: await sharp(rawPayload).metadata() }
  }

  it('is drawn anew: in sRGB, whatever it came in', async () => {
    const cmyk = await sharp({ create: { width: 1500, height: 1500, channels: 3, background: '#7a3b1e' } })
      .toColourspace('cmyk')
      .jpeg()
      .toBuffer()
    expect((await sharp(cmyk).metadata()).space).toBe('cmyk')
    const { facts, bytes } = await take(cmyk)
    expect(facts).toMatchObject({ format: 'jpeg', space: 'srgb', channels: 3, width: 1500 })
    const [red, green, blue] = (await sharp(bytes).stats()).channels.map(({ mean }) => mean)
    expect(red).toBeGreaterThan(green!)
    expect(green).toBeGreaterThan(blue!)
  })
  it('stands upright, and tells nothing of where it was taken', async () => {
    const turned = await sharp(await squarePicture(1600))
      .withExif({ IFD0: { Orientation: '6', Copyright: 'a workshop on a lake' } })
      .jpeg()
      .toBuffer()
    const { facts } = await take(turned)
    expect([facts.orientation, facts.exif]).toEqual([undefined, undefined])
  })
  it('can be a PNG with glass in it, or a WebP', async () => {
    const glass = await sharp({
      create: { width: 1400, height: 1400, channels: 4, background: { r: 20, g: 90, b: 120, alpha: 0.2 } },
    })
      .png()
      .toBuffer()
    expect((await take(glass, 'image/png')).facts).toMatchObject({ format: 'jpeg', hasAlpha: false })
    expect((await take(await sharp(glass).webp().toBuffer(), 'image/webp')).facts.format).toBe('jpeg')
  })
  it.each([
    [
      'half a JPEG',
      async () => {
        const whole = await noisy(1500)
        return whole.subarray(0, whole.length / 2)
      },
    ],
    ['an SVG', async () => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1400" height="1400"/>`)],
    [
      'a GIF',
      async () =>
        sharp({ create: { width: 1400, height: 1400, channels: 3, background: '#fff' } })
          .gif()
          .toBuffer(),
    ],
    ['a head without a picture', async () => (await squarePicture(1400)).subarray(0, 300)],
  ])('is not %s', async (_name, make) => {
    const bytes = await make()
    for (const query of ['', '?left=0&top=0&sidePx=1400']) {
      expect((await post(bytes, 'application/octet-stream', query)).json(), query).toMatchObject({
        status: 422,
        code: 'picture-refused',
      })
    }
  })
  it('comes in the size that a place needs', async () => {
    const { id } = (await post(await noisy(2400), 'image/jpeg')).json()
    const show = (await house.call('POST', '/shows', { ...showFacts, slug: 'sizes', artworkId: id })).json()
    const at = async (address: string) => sharp((await seen(new URL(address).pathname, false)).rawPayload).metadata()
    const [whole, middle, small] = [
      await at(show.artworkAddress),
      await at(artworkAt(show.artworkAddress, 480)),
      await at(artworkAt(show.artworkAddress, 160)),
    ]
    expect([whole.width, middle.width, small.width]).toEqual([2400, 480, 160])
    expect((await seen(new URL(artworkAt(show.artworkAddress, 160)).pathname, false)).rawPayload.length).toBeLessThan(
      30_000,
    )
  })
})

describe('who sees a picture', () => {
  it('is everybody once it is a show’s artwork, and stays so', async () => {
    const make = async () => (await post(await noisy(1400), 'image/jpeg')).json() as { id: string; address: string }
    const [first, second] = [await make(), await make()]
    const path = `/media/artwork/${first.id}.jpg`
    expect([
      (await seen(path, false)).statusCode,
      (await seen(first.address, false)).statusCode,
      (await seen(first.address)).statusCode,
    ]).toEqual([404, 401, 200])
    const show = (await house.call('POST', '/shows', { ...showFacts, slug: 'seen', artworkId: first.id })).json()
    expect((await seen(path, false)).statusCode).toBe(200)
    await house.call('PATCH', `/shows/${show.id}`, { version: show.version, artworkId: second.id })
    expect([
      (await seen(path, false)).statusCode,
      (await seen(`/media/artwork/${second.id}.jpg`, false)).statusCode,
    ]).toEqual([200, 200])
  })

  it('is only the studio where it was found in the tags of a draft’s file', async () => {
    const show = await house.makeShow('tagged')
    const path = join(folder, 'tagged.mp3')
    writeFileSync(
      path,
      Buffer.concat([
        NodeID3.create({
          title: 'Tagged',
          image: { mime: 'image/jpeg', type: { id: 3 }, description: '', imageBuffer: await noisy(300) } as never,
        }),
        makeSound(join(folder, 'bare.mp3'), 2, ['-b:a', '64k', '-id3v2_version', '0']),
      ]),
    )
    const { id } = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as Episode
    await house.bring(id, path)
    const { pictureAddress } = (await house.get(id)).sound.source!
    expect((await seen(pictureAddress!)).statusCode).toBe(200)
    expect((await seen(pictureAddress!, false)).statusCode).toBe(401)
    expect((await seen(pictureAddress!.replace('/api/v1/pictures', '/media/artwork'), false)).statusCode).toBe(404)
  })
})

it('a tag picture that would be drawn for minutes is left out, and the file is read at once', async () => {
  // Ten levels of ten copies each, as an SVG: ten thousand million squares.
  const levels = Array.from(
    { length: 10 },
    (_, n) => `<g id="l${n + 1}">${`<use href="#l${n}"/>`.repeat(10)}</g>`,
  ).join('')
  const bomb = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900"><defs><rect id="l0" width="9" height="9"/>${levels}</defs><use href="#l10"/></svg>`,
  )
  const path = join(folder, 'bomb.mp3')
  writeFileSync(
    path,
    Buffer.concat([
      NodeID3.create({
        title: 'Bomb',
        image: { mime: 'image/svg+xml', type: { id: 3 }, description: '', imageBuffer: bomb } as never,
      }),
      makeSound(join(folder, 'quiet.mp3'), 2, ['-b:a', '64k', '-id3v2_version', '0']),
    ]),
  )
  const show = await house.makeShow('bombed')
  const { id } = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as Episode
  await house.bring(id, path)
  expect((await house.get(id)).sound.source).toMatchObject({ pictureAddress: null, tags: { title: 'Bomb' } })
})

it('a show can begin without artwork: one is drawn, said to be provisional, and gives way to its own', async () => {
  const made = await house.call('POST', '/shows', { ...showFacts, slug: 'no-artwork' })
  expect(made.statusCode, made.body).toBe(201)
  const show = made.json()
  expect(show.artworkIsProvisional).toBe(true)
  expect((await seen(new URL(show.artworkAddress).pathname, false)).statusCode).toBe(200)
  expect((await seen('/no-artwork/feed.xml', false)).body).toContain(show.artworkAddress)
  const own = (await post(await noisy(1400), 'image/jpeg')).json()
  expect(
    (await house.call('PATCH', `/shows/${show.id}`, { version: show.version, artworkId: own.id })).json(),
  ).toMatchObject({ artworkIsProvisional: false, artworkId: own.id })
})

it('the same picture twice is kept once', async () => {
  const bytes = await noisy(1400)
  const [one, two] = [(await post(bytes, 'image/jpeg')).json(), (await post(bytes, 'image/jpeg')).json()]
  expect(two.id).toBe(one.id)
  expect(await Picture.count({ where: { id: one.id } })).toBe(1)
  expect(one.id).toBe(
    createHash('sha256')
      .update((await seen(one.address)).rawPayload)
      .digest('hex'),
  )
})

/** A picture that cannot be made much smaller. */
function noisy(side: number): Promise<Buffer> {
  const small = 64
  return sharp(randomBytes(small * small * 3), { raw: { width: small, height: small, channels: 3 } })
    .resize(side, side, { kernel: 'cubic' })
    .jpeg({ quality: 92 })
    .toBuffer()
}

it('a picture that nothing uses goes after a week; one stays with an episode, with what one had before, with a show', async () => {
  const bring = async (red: number): Promise<string> => {
    const background = { r: red, g: 90, b: 120 }
    const bytes = await sharp({ create: { width: 1400, height: 1400, channels: 3, background } })
      .jpeg()
      .toBuffer()
    return (await post(bytes, 'image/jpeg')).json<{ id: string }>().id
  }
  const { id: showId } = await house.makeShow('pictures-that-stay')
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json<Episode>()
  const write = async (artworkId: string): Promise<void> => {
    const { version } = await house.get(id)
    expect((await house.call('PATCH', `/episodes/${id}`, { version, text: { artworkId } })).statusCode).toBe(200)
  }
  const [unused, former, current, noted] = [await bring(10), await bring(40), await bring(80), await bring(120)]
  await write(former!)
  house.clock.moveBy(3600_000)
  await write(current!)
  await transact(house.platform.database, transaction =>
    pictureService(house.platform).noteUse(showId, noted!, transaction),
  )
  house.clock.moveBy(8 * 24 * 3600_000)
  await retention(house.platform).job.run()
  const left = await Picture.findAll({ where: { id: [unused!, former!, current!, noted!] } })
  expect(new Set(left.map(each => each.id))).toEqual(new Set([former, current, noted]))
})
