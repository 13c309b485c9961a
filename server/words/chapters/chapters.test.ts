import { execFileSync } from 'node:child_process'
import { parseFile } from 'music-metadata'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse, squarePicture } from '../../testing/house'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const bringPicture = async (of: 'person' | 'chapter', payload: Buffer, cookie = house.cookie) =>
  house.app.inject({
    method: 'POST',
    url: `/api/v1/pictures?of=${of}`,
    headers: { cookie, 'content-type': 'application/octet-stream' },
    payload,
  })
const write = async (id: string, text: object) =>
  house.call('PATCH', `/episodes/${id}`, { version: (await house.get(id)).version, text })
const chapter = (id: string, fromMs: number, title: string, rest: object = {}) => ({
  id,
  fromMs,
  title,
  address: null,
  pictureId: null,
  isListed: true,
  ...rest,
})
const pathOf = (address: string): string => new URL(address).pathname
const filePath = async (id: string): Promise<string> => {
  const { sound } = await house.get(id)
  const { path, release: done } = await house.platform.media.onDisk((sound.finished ?? sound.source)!.fingerprint)
  await done()
  return path
}

it('an episode’s own chapters go out in a file of their own, the feed, the page and the sound’s tags, moved with the cut', async () => {
  const { id } = await house.makeReady(showId, 'The last boat')
  await house.workOnSound()
  const picture = (await bringPicture('chapter', await squarePicture(1600, 900))).json()
  expect([picture.widthPx, picture.heightPx]).toEqual([1400, 788])
  const answer = await write(id, {
    notes: '<p>0:00 not this</p><p>0:09 nor that</p><p>{chapters}</p>',
    chapters: [
      chapter('late', 20_000, 'Lamps & oil', { address: 'https://lake.example/lamps', pictureId: picture.id }),
      chapter('early', 0, 'The quay'),
      chapter('quiet', 12_500, 'Only a picture', { isListed: false }),
    ],
  })
  expect(answer.statusCode, answer.body).toBe(200)
  const { sound } = await house.get(id)
  const recipe = { ...sound.usual, fromMs: 2000, toMs: null, encoding: 'speech' }
  await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe })
  await house.workOnSound()
  const { pageAddress } = await house.release(id)

  const feed = (await house.app.inject('/bellows-and-reeds/feed.xml')).body
  const [, address] = /<podcast:chapters url="([^"]+)" type="application\/json\+chapters"\/>/.exec(feed)!
  expect(address).toBe(`${pageAddress}/chapters.json`)
  const file = await house.app.inject(pathOf(address!))
  expect(file.headers['content-type']).toBe('application/json+chapters')
  expect(file.headers['access-control-allow-origin']).toBe('*')
  // JSON Chapters 1.2 of the podcast namespace, from memory: seconds, `toc` false for what no list shows.
  const publicPicture = `http://lake.example/media/artwork/${picture.id}.jpg`
  expect(file.json()).toEqual({
    version: '1.2.0',
    title: 'The last boat',
    podcastName: 'Bellows & Reeds',
    chapters: [
      { startTime: 0, title: 'The quay' },
      { startTime: 10.5, title: 'Only a picture', toc: false },
      { startTime: 18, title: 'Lamps & oil', img: publicPicture, url: 'https://lake.example/lamps' },
    ],
  })
  expect((await house.app.inject(pathOf(publicPicture))).statusCode).toBe(200)

  const page = (await house.app.inject(pathOf(pageAddress!))).body
  expect(page).toContain('#t=18"')
  expect(page).not.toContain('Only a picture')
  expect(page).toContain('<li>0:18 Lamps &amp; oil</li>')

  // Read back by ffprobe and by a second library (ID3v2 chapter frame addendum 1.0: CHAP, CTOC).
  const path = await filePath(id)
  const probe = JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', path], { encoding: 'utf8' }),
  ) as { chapters: { start_time: string; tags: { title: string } }[] }
  expect(probe.chapters.map(({ start_time: from, tags }) => [Number(from), tags.title])).toEqual([
    [0, 'The quay'],
    [10.5, 'Only a picture'],
    [18, 'Lamps & oil'],
  ])
  const { native } = await parseFile(path)
  const frames = Object.values(native).flat()
  const chaps = frames.filter(({ id: name }) => name === 'CHAP').map(({ value }) => value as Chap)
  expect(chaps.length).toBe(3)
  expect(chaps[2]!.info.startTime).toBe(18_000)
  expect(chaps[2]!.frames.get('APIC')).toBeDefined()
})
interface Chap {
  info: { startTime: number }
  frames: Map<string, unknown>
}

it('what goes out as it came is not cut, and a recipe that says both is refused', async () => {
  const { id } = await house.makeReady(showId, 'As it came')
  await house.workOnSound()
  await write(id, { chapters: [chapter('a', 0, 'The quay'), chapter('b', 9000, 'The crossing')] })
  const { sound } = await house.get(id)
  const recipe = { ...sound.usual, fromMs: null, toMs: null, encoding: 'as it came' }
  const finish = (ends: object) =>
    house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: { ...recipe, ...ends } })
  for (const [end, ms] of [
    ['fromMs', 5000],
    ['toMs', 9000],
  ] as const) {
    const refused = await finish({ [end]: ms })
    expect([refused.statusCode, refused.json().faults]).toMatchObject([
      422,
      [{ field: `recipe.${end}`, value: `${ms}` }],
    ])
  }
  expect((await finish({})).statusCode).toBe(200)
  await house.workOnSound()
  const { pageAddress } = await house.release(id)
  const file = await house.app.inject(`${pathOf(pageAddress!)}/chapters.json`)
  expect(file.json().chapters.map(({ startTime }: { startTime: number }) => startTime)).toEqual([0, 9])
  expect((await house.get(id)).sound.tagsAreOld).toBe(false)
})

it('a new version of them keeps its address, with another validator', async () => {
  const { id } = await house.makeReady(showId, 'Corrected')
  await write(id, { chapters: [chapter('a', 0, 'Teh quay')] })
  const { pageAddress } = await house.release(id)
  const ask = (headers = {}) => house.app.inject({ url: `${pathOf(pageAddress!)}/chapters.json`, headers })
  const first = await ask()
  await write(id, { chapters: [chapter('a', 0, 'The quay')] })
  expect((await ask({ 'if-none-match': first.headers.etag })).statusCode).toBe(304)
  await house.call('POST', `/episodes/${id}/send-changes`, { version: (await house.get(id)).version })
  const second = await ask({ 'if-none-match': first.headers.etag })
  expect([second.statusCode, second.json().chapters[0].title]).toEqual([200, 'The quay'])
})

it('where there are none, nothing is named, and nothing is there', async () => {
  const { id } = await house.makeReady(showId, 'Without')
  const { pageAddress } = await house.release(id)
  expect((await house.app.inject(`${pathOf(pageAddress!)}/chapters.json`)).statusCode).toBe(404)
  const feed = (await house.app.inject('/bellows-and-reeds/feed.xml')).body
  expect(feed).not.toContain(`${pageAddress}/chapters.json`)
})

it('people have pictures, square, which the feed and the page show, and the next episode knows', async () => {
  const { id } = await house.makeReady(showId, 'With a face')
  const picture = (await bringPicture('person', await squarePicture(900, 1600))).json()
  expect([picture.widthPx, picture.heightPx]).toEqual([600, 600])
  const person = { name: 'Sister Amabel', role: 'Guest', address: null, pictureId: picture.id }
  expect((await write(id, { people: [person] })).statusCode).toBe(200)
  const { pageAddress } = await house.release(id)
  const feed = (await house.app.inject('/bellows-and-reeds/feed.xml')).body
  expect(feed).toContain(`img="http://lake.example/media/artwork/${picture.id}.jpg"`)
  expect((await house.app.inject(pathOf(pageAddress!))).body).toContain(`/media/artwork/${picture.id}.jpg`)
  expect((await house.call('GET', `/shows/${showId}/vocabulary`)).json().people).toContainEqual(person)
})

it('999 chapters go in and out, one more is refused, and so is a picture of nobody’s', async () => {
  const { id } = await house.makeReady(showId, 'A chapter a second')
  const all = Array.from({ length: 999 }, (_each, at) => chapter(`c${at}`, at * 30, `פרק ${at}`))
  expect((await write(id, { chapters: all })).statusCode).toBe(200)
  expect((await house.get(id)).text.chapters!.length).toBe(999)
  const more = await write(id, { chapters: [...all, chapter('more', 1, 'One more')] })
  expect(more.json().faults[0]).toMatchObject({ field: 'text.chapters', rule: 'At most 999 chapters.' })
  const foreign = await write(id, { chapters: [chapter('a', 0, 'x', { pictureId: 'f'.repeat(64) })] })
  expect(foreign.json().faults[0]).toMatchObject({
    field: 'text.chapters.0.pictureId',
    rule: 'Upload the picture first.',
  })
})

it.each([
  ['of 40 MB', Buffer.alloc(40_000_000, 1), 413],
  ['that is none', Buffer.from('<html>no picture</html>'), 422],
  ['too small to see', null, 422],
] as const)('a chapter picture %s is refused in words', async (_name, bytes, status) => {
  const answer = await bringPicture('chapter', bytes ?? (await squarePicture(60)))
  expect(answer.statusCode).toBe(status)
  expect(answer.json().detail).toMatch(/\w/)
})

it('a picture of 100 megapixels is drawn small or refused in words, and the server lives', async () => {
  const large = { width: 12_000, height: 12_000, channels: 3, background: '#123' } as const
  const answer = await bringPicture('chapter', await sharp({ create: large, limitInputPixels: false }).png().toBuffer())
  expect(answer.statusCode).toBe(422)
  expect(answer.json().detail).toMatch(/large/)
  expect((await house.app.inject('/healthz')).statusCode).toBe(200)
})
