import { createHash } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from '../../testing/house'
import { transact } from '../database/transact'
import { blobKeeper, type Bringing } from './blobs'
import type { MediaStore } from './store'

const hourMs = 3600_000
let house: House
let blobs: ReturnType<typeof blobKeeper>
beforeAll(async () => {
  house = await openHouse()
  blobs = blobKeeper(house.platform)
})
afterAll(() => house.close())

/** Bytes on the local disk. */
async function bytesOf(words: string): Promise<Bringing> {
  const path = join(house.mediaFolder, words.replaceAll(' ', '-'))
  await writeFile(path, words)
  return { path, sha256: createHash('sha256').update(words).digest('hex') }
}
const hold = (holder: string, bytes: Bringing): Promise<void> =>
  transact(house.platform.database, transaction => blobs.hold(holder, bytes, transaction))
const letGo = (holder: string): Promise<void> =>
  transact(house.platform.database, transaction => blobs.letGo(holder, transaction))
const isThere = ({ sha256 }: Bringing): Promise<boolean> =>
  house.platform.media.open(sha256).then(
    file => file.close().then(() => true),
    () => false,
  )

it('while bytes travel into a slow store, no row is locked', async () => {
  const bytes = await bytesOf('a long crossing')
  let arrive = (): void => undefined
  const arrived = new Promise<void>(done => (arrive = done))
  let begun = (): void => undefined
  const travels = new Promise<void>(done => (begun = done))
  const slow: MediaStore = {
    ...house.platform.media,
    async take(path, sha256) {
      begun()
      await arrived
      await house.platform.media.take(path, sha256)
    },
  }
  const stored = blobKeeper({ ...house.platform, media: slow }).store(bytes)
  await travels
  // Throws at once where any of them is locked.
  await transact(house.platform.database, transaction =>
    house.platform.database.query('SELECT sha256 FROM blobs FOR UPDATE NOWAIT', {
      type: QueryTypes.SELECT,
      transaction,
    }),
  )
  arrive()
  await stored
  await hold('one', bytes)
  expect(await isThere(bytes)).toBe(true)
})

it('what is stored and not held yet stays for an hour, then it goes; what is let go goes at once', async () => {
  const [held, lost] = [await bytesOf('held'), await bytesOf('lost on the way')]
  await blobs.store(held)
  await blobs.store(lost)
  await blobs.clear()
  expect([await isThere(held), await isThere(lost)]).toEqual([true, true])
  await hold('two', held)
  house.clock.moveBy(hourMs + 1)
  await blobs.clear()
  expect([await isThere(held), await isThere(lost)]).toEqual([true, false])
  await letGo('two')
  await blobs.clear()
  expect(await isThere(held)).toBe(false)
})

it('who comes to hold bytes that another one has let go meanwhile finds them there', async () => {
  const bytes = await bytesOf('two that bring the same')
  await blobs.store(bytes)
  await hold('three', bytes)
  await letGo('three')
  await blobs.clear()
  await hold('four', bytes)
  expect(await isThere(bytes)).toBe(true)
})
