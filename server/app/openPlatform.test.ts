import { connect, createServer } from 'node:net'
import { afterAll, expect, it, onTestFinished } from 'vitest'
import { freePort } from '../../scripts/setup/ports.mjs'
import { type House, openHouse } from '../testing/house'
import { openDatabase } from './openDatabase'
import { patiently } from './openPlatform'

let house: House
afterAll(() => house?.close())

it('a database that comes after the server is waited for; one that refuses the password is not', async () => {
  house = await openHouse()
  const real = new URL(house.platform.configuration.databaseUrl)
  const late = new URL(real)
  late.port = String(await freePort())
  const said: string[] = []
  const log = { warn: (words: string) => said.push(words) } as never
  const database = openDatabase(late.href)
  onTestFinished(() => database.close())
  const reached = patiently(log, () => database.authenticate())
  await expect.poll(() => said.length).toBeGreaterThan(0)
  const way = createServer(from => from.pipe(connect(Number(real.port), '127.0.0.1')).pipe(from))
  await new Promise<void>(resolve => way.listen(Number(late.port), '127.0.0.1', resolve))
  onTestFinished(() => void way.close())
  await reached

  const stranger = new URL(real)
  stranger.password = 'another'
  const refused = openDatabase(stranger.href)
  onTestFinished(() => refused.close())
  said.length = 0
  await expect(patiently(log, () => refused.authenticate())).rejects.toThrow(/Access denied/)
  expect(said).toEqual([])
})
