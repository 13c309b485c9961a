import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { type House, morning, openHouse } from '../testing/house'
import { createJobs } from './jobs'
import { Job } from './models'

let house: House
let reported: unknown[]
beforeAll(async () => { house = await openHouse() })
afterAll(() => house.close())
beforeEach(async () => {
  reported = []
  house.clock.moveTo(morning)
  await Job.destroy({ where: {} })
})

const jobs = () => createJobs(house.platform.database, house.clock, error => { reported.push(error) })

it('a job runs once, with its payload, however many processes look for it', async () => {
  const ran: string[] = []
  const processes = [jobs(), jobs(), jobs()]
  for (const each of processes) each.handle('greet', async ({ name }) => { ran.push(name!) })
  await processes[0]!.add('greet', { name: 'Benno' })
  await Promise.all(processes.map(each => each.runNext()))
  expect(ran).toEqual(['Benno'])
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1 })
})

it('a job of a transaction that is rolled back never runs', async () => {
  const one = jobs()
  one.handle('greet', async () => { throw new Error('must not run') })
  await house.platform.database.transaction(async transaction => {
    await one.add('greet', {}, transaction)
    throw new Error('changed my mind')
  }).catch(() => undefined)
  expect(await one.runNext()).toBe(false)
})

it('a job whose process died is taken up by another after a minute', async () => {
  const dead = jobs()
  dead.handle('long', () => new Promise(() => undefined))
  await dead.add('long', {})
  void dead.runNext()
  await expect.poll(async () => (await Job.findOne())?.heldUntil).not.toBeNull()
  const ran: string[] = []
  const heir = jobs()
  heir.handle('long', async () => { ran.push('heir') })
  expect(await heir.runNext()).toBe(false)
  house.clock.moveBy(61_000)
  expect(await heir.runNext()).toBe(true)
  expect(ran).toEqual(['heir'])
})

it('a job that fails is tried again, ever later, and given up after five times with its reason', async () => {
  const one = jobs()
  let tries = 0
  one.handle('fail', async () => {
    tries++
    throw new Error('no reeds left')
  })
  await one.add('fail', {})
  const gaps: number[] = []
  for (let n = 0; n < 5; n++) {
    expect(await one.runNext()).toBe(true)
    expect(await one.runNext()).toBe(false)
    const { runAfter } = (await Job.findOne())!
    gaps.push(+runAfter - +house.clock.now())
    house.clock.moveTo(new Date(+runAfter + 1))
  }
  expect(tries).toBe(5)
  expect(gaps).toEqual([...gaps].sort((a, b) => a - b))
  expect(await one.runNext()).toBe(false)
  expect(await Job.findOne()).toMatchObject({ state: 'failed', error: 'Error: no reeds left' })
  expect(reported).toHaveLength(5)
})

it('a job of a kind that this process does not know stays for one that does', async () => {
  const [one, other] = [jobs(), jobs()]
  one.handle('known', async () => undefined)
  other.handle('unknown', async () => undefined)
  await one.add('unknown', {})
  expect(await one.runNext()).toBe(false)
  expect(await other.runNext()).toBe(true)
})
