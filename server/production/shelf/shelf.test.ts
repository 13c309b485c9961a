import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Shelf } from '@contract/shelf'
import { EpisodeFile } from '../../show/episodes/models'
import { account, type House, openHouse, sounds } from '../../testing/house'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const shelf = async (): Promise<Shelf> => (await house.call('GET', `/shows/${showId}/files`)).json()
const create = async (): Promise<Episode> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()

it('the shelf tells every file, who uses it, and the room', async () => {
  expect(await shelf()).toMatchObject({ files: [], usedBytes: 0 })
  const one = await create()
  await house.bring(one.id, join(sounds, 'sf-5.mp3'))
  await house.workOnSound()
  const { files, usedBytes, freeBytes } = await shelf()
  expect(files).toHaveLength(1)
  expect(files[0]).toMatchObject({ name: 'sf-5.mp3', measuring: 'done', usedBy: [{ id: one.id, as: 'source' }] })
  expect(usedBytes).toBe(files[0]!.bytes)
  expect(freeBytes).toBeGreaterThan(1e6)
})

it('a file is used again without being sent again, and downloaded under its name', async () => {
  const [file] = (await shelf()).files
  const two = await create()
  const used = await house.call('PUT', `/episodes/${two.id}/source`, { fileId: file!.id })
  expect(used.statusCode).toBe(200)
  expect(await house.get(two.id)).toMatchObject({
    text: { title: 'The last boat, with the lamps lit', number: 5 },
    sound: { source: { id: file!.id }, alsoIn: [{ number: 5 }] },
  })
  expect((await shelf()).files[0]!.usedBy).toHaveLength(2)
  const download = await house.app.inject({
    url: `/api/v1/files/${file!.id}/download`,
    headers: { cookie: house.cookie },
  })
  expect(download.headers['content-disposition']).toBe("attachment; filename*=UTF-8''sf-5.mp3")
  expect(download.rawPayload.length).toBe(file!.bytes)
})

it('of many that use a file some are named, and the others counted', async () => {
  const [file] = (await shelf()).files
  const others = await Promise.all(Array.from({ length: 7 - file!.uses }, create))
  for (const { id } of others) await house.call('PUT', `/episodes/${id}/source`, { fileId: file!.id })
  const [used] = (await shelf()).files
  expect([used!.uses, used!.usedBy.length]).toEqual([7, 5])
  const refused = await house.call('DELETE', `/shows/${showId}/files/${file!.id}`)
  expect(refused.json().detail).toMatch(/, 2 more\.$/)
  await EpisodeFile.destroy({ where: { episodeId: others.map(({ id }) => id) } })
})

it('only what no episode uses can be deleted, and its bytes go with it', async () => {
  const [file] = (await shelf()).files
  const refused = await house.call('DELETE', `/shows/${showId}/files/${file!.id}`)
  expect(refused.json()).toMatchObject({
    code: 'file-in-use',
    status: 409,
    detail: expect.stringContaining('5 The last boat'),
  })
  for (const { id } of file!.usedBy) await house.bring(id, join(sounds, 'sf-4.m4a'))
  expect((await house.call('DELETE', `/shows/${showId}/files/${file!.id}`)).statusCode).toBe(204)
  expect((await shelf()).files.map(({ name }) => name)).toEqual(['sf-4.m4a'])
  expect((await house.call('DELETE', `/shows/${showId}/files/${file!.id}`)).statusCode).toBe(404)
  await house.platform.jobs.runNext('retention')
  await expect(
    new Promise((resolve, reject) =>
      house.platform.media.read(file!.fingerprint).once('error', reject).once('data', resolve),
    ),
  ).rejects.toThrow(/ENOENT/)
})

it('a shelf comes in pages that have each file once, and tells what all of it takes', async () => {
  const whole = await shelf()
  const page = async (query: string): Promise<Shelf> =>
    (await house.call('GET', `/shows/${showId}/files?${query}`)).json()
  const names: string[] = []
  for (let after: string | null = ''; after !== null;) {
    const next: Shelf = await page(`limit=1${after && `&after=${after}`}`)
    expect(next).toMatchObject({ total: whole.total, usedBytes: whole.usedBytes, unused: whole.unused })
    names.push(...next.files.map(({ name }) => name))
    after = next.after
  }
  expect(names).toEqual(whole.files.map(({ name }) => name))
  expect(whole.unused).toBe(whole.files.filter(({ usedBy }) => usedBy.length === 0).length)
})

it('bytes that two shows hold stay while one of them deletes its file, however the two cross', async () => {
  const other = await house.makeShow('crossing')
  const sha256 = (await house.makeReady(other.id, 'Kept', 'br-33.mp3')).sound.source!.fingerprint
  for (let n = 0; n < 5; n++) {
    const { id } = await create()
    await house.bring(id, join(sounds, 'br-33.mp3'))
    const { sound } = await house.get(id)
    await house.bring(id, join(sounds, 'br-34.mp3'))
    // Deleted here, brought again there, and cleared away, all at once.
    const again = await create()
    const [deleted] = await Promise.all([
      house.call('DELETE', `/shows/${showId}/files/${sound.source!.id}`),
      house.bring(again.id, join(sounds, 'br-33.mp3')),
      house.platform.jobs.runNext('retention'),
    ])
    expect([204, 409]).toContain(deleted.statusCode)
    while (await house.platform.jobs.runNext('retention'));
    const held = (await house.get(again.id)).sound.source!
    expect(held.fingerprint).toBe(sha256)
    await expect(house.platform.media.open(sha256).then(file => file.close())).resolves.toBeUndefined()
  }
})

it('a released file, and one that still answers at its old address, cannot be deleted', async () => {
  const { id } = await create()
  await house.bring(id, join(sounds, 'br-31.mp3'))
  const { version } = (await house.call('GET', `/episodes/${id}`)).json() as Episode
  await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
  await house.bring(id, join(sounds, 'br-32.mp3'))
  const replaced = (await house.call('GET', `/episodes/${id}`)).json() as Episode
  const old = (await shelf()).files.find(({ name }) => name === 'br-31.mp3')!
  expect(old.usedBy).toMatchObject([{ as: 'delivered' }])
  await house.call('POST', `/episodes/${id}/send-changes`, { version: replaced.version })
  expect((await shelf()).files.find(({ name }) => name === 'br-31.mp3')!.usedBy).toMatchObject([{ as: 'past' }])
  expect((await house.call('DELETE', `/shows/${showId}/files/${old.id}`)).statusCode).toBe(409)
  house.clock.moveBy(31 * 24 * 3600_000)
  // The session has run out meanwhile, too.
  const entered = await house.app.inject({ method: 'POST', url: '/api/v1/session', payload: account })
  const headers = { cookie: String(entered.headers['set-cookie']).split(';')[0]! }
  const url = `/api/v1/shows/${showId}/files`
  const later = (await house.app.inject({ url, headers })).json() as Shelf
  expect(later.files.find(({ name }) => name === 'br-31.mp3')!.usedBy).toEqual([])
  expect((await house.app.inject({ method: 'DELETE', url: `${url}/${old.id}`, headers })).statusCode).toBe(204)
})
