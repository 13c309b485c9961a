import { afterAll, beforeAll, expect, it } from 'vitest'
import sharp from 'sharp'
import type { ShowTheme } from '@contract/siteThemes'
import type { Show } from '@contract/shows'
import { firstTheme, type SiteTheme } from '@core/site/siteTheme'
import { type House, openHouse } from '../../testing/house'

let house: House
let show: Show
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
})
afterAll(() => house.close())

const theme = async (): Promise<ShowTheme> => (await house.call('GET', `/shows/${show.id}/theme`)).json()
const wear = async (part: Partial<SiteTheme>, version?: number) => {
  const now = await theme()
  return house.call('PUT', `/shows/${show.id}/theme`, {
    version: version ?? now.version,
    theme: { ...now.tried, ...part },
  })
}
const step = async (name: string) =>
  (
    await house.call('POST', `/shows/${show.id}/theme/${name}`, { version: (await theme()).version })
  ).json() as ShowTheme
const page = async () => (await house.app.inject({ url: '/bellows-and-reeds' })).body
const tried = async (path = '') =>
  (await house.call('GET', `/shows/${show.id}/theme/page?path=${encodeURIComponent(path)}`)).body

it.each([
  ['', 'text/html; charset=utf-8'],
  ['manifest.webmanifest', 'application/manifest+json; charset=utf-8'],
])('what is tried at “%s” is sent as what it is', async (path, type) => {
  const { headers, statusCode } = await house.call('GET', `/shows/${show.id}/theme/page?path=${path}`)
  expect([statusCode, headers['content-type']]).toEqual([200, type])
  const out = await house.app.inject({ url: `/bellows-and-reeds${path && `/${path}`}` })
  expect(out.headers['content-type']).toBe(type)
})

it('a look is tried unseen, taken over at a press, and the former one put back at another', async () => {
  expect(await page()).toContain('class="layout-shore face-literata"')
  const before = await theme()
  expect(before).toMatchObject({ tried: firstTheme, out: firstTheme, former: null })
  expect(
    (await wear({ layout: 'quay', face: 'public-sans', colours: { accent: '#FFD400', band: '#0000ff' } })).statusCode,
  ).toBe(200)
  expect(await page()).toContain('class="layout-shore face-literata"')
  expect(await tried()).toContain('class="layout-quay face-public-sans"')
  expect(await tried('listen')).toContain('class="layout-quay face-public-sans"')
  expect(await step('take-over')).toMatchObject({
    out: { layout: 'quay', colours: { accent: '#ffd400' } },
    former: { layout: 'shore' },
  })
  const now = await page()
  expect(now).toContain('class="layout-quay face-public-sans"')
  // What cannot be read is mended: the yellow is dark on paper, and as chosen by night.
  expect(now).toMatch(/--accent:light-dark\(#(?!ffd400)[0-9a-f]{6},#ffd400\)/)
  expect(await step('put-back')).toMatchObject({ out: { layout: 'shore' }, former: { layout: 'quay' } })
  expect(await page()).toContain('class="layout-shore face-literata"')
  await wear({ layout: 'letter' })
  expect(await step('leave')).toMatchObject({ tried: { layout: 'shore' }, former: { layout: 'quay' } })
})

it('of two windows the second is told', async () => {
  const { version } = await theme()
  expect((await wear({ layout: 'letter' }, version)).statusCode).toBe(200)
  const second = await wear({ layout: 'quay' }, version)
  expect([second.statusCode, second.json().current.layout]).toEqual([409, 'letter'])
})

it.each([
  ['layout', { layout: 'circus' }, 'theme.layout'],
  ['colour', { colours: { accent: 'red', band: '#000000' } }, 'theme.colours.accent'],
  [
    'colour that is a style',
    { colours: { accent: '#fff;}body{display:none', band: '#000000' } },
    'theme.colours.accent',
  ],
  ['block twice', { blocks: [...firstTheme.blocks.slice(1), firstTheme.blocks[1]!] }, 'theme.blocks'],
  ['picture that nobody brought', { headerPictureId: 'a'.repeat(64) }, 'theme.headerPictureId'],
])('a %s that is none is refused', async (_what, part, field) => {
  const answer = await wear(part as Partial<SiteTheme>)
  expect([answer.statusCode, answer.json().faults?.[0]?.field]).toEqual([422, field])
})

it('blocks are switched off and moved', async () => {
  const blocks = firstTheme.blocks
    .map(({ kind }) => ({ kind, isOn: kind === 'about' || kind === 'subscribe' }))
    .toReversed()
  await wear({ blocks })
  await step('take-over')
  const body = await page()
  expect(body.indexOf('id="about"')).toBeGreaterThan(0)
  expect(body.indexOf('id="about"')).toBeLessThan(body.indexOf('id="subscribe"'))
  expect(body).not.toContain('id="tags"')
})

it('a picture at the top is seen by nobody before it is taken over', async () => {
  const bytes = await sharp({ create: { width: 1600, height: 500, channels: 3, background: '#336699' } })
    .jpeg()
    .toBuffer()
  const brought = await house.app.inject({
    method: 'POST',
    url: '/api/v1/pictures?of=header',
    headers: { cookie: house.cookie, 'content-type': 'image/jpeg' },
    payload: bytes,
  })
  const { id } = brought.json()
  await wear({ headerPictureId: id })
  expect((await house.app.inject({ url: `/media/artwork/${id}.jpg` })).statusCode).toBe(404)
  const shown = [...(await tried()).matchAll(/[^\s"]+\/([0-9a-f]{64})[^\s"]*/g)].filter(([, picture]) => picture === id)
  expect(shown.length).toBeGreaterThan(3)
  for (const [address] of shown)
    expect((await house.app.inject({ url: address, headers: { cookie: house.cookie } })).statusCode, address).toBe(200)
  await step('take-over')
  expect(await page()).toContain(`/media/artwork/${id}.jpg`)
  const wide = await house.app.inject({ url: `/media/artwork/${id}-1600.webp` })
  expect((await sharp(wide.rawPayload).metadata()).width).toBe(1600)
})

it.each([
  ['of one colour', { create: { width: 1500, height: 1500, channels: 3 as const, background: '#808080' } }],
  [
    'that is transparent',
    { create: { width: 1500, height: 1500, channels: 4 as const, background: { r: 0, g: 0, b: 0, alpha: 0 } } },
  ],
])('artwork %s has colours, too', async (_what, input) => {
  const answer = await house.app.inject({
    method: 'POST',
    url: '/api/v1/artwork',
    headers: { cookie: house.cookie, 'content-type': 'image/png' },
    payload: await sharp(input).png().toBuffer(),
  })
  expect(answer.statusCode, answer.body).toBe(201)
  const { version } = (await house.call('GET', `/shows/${show.id}`)).json()
  await house.call('PATCH', `/shows/${show.id}`, { version, artworkId: answer.json().id })
  expect((await theme()).found).toEqual({ accent: '#12495f', band: '#103747' })
})
