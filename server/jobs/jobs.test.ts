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
  await processes[0]!.add({ kind: 'greet', payload: { name: 'Benno' } })
  await Promise.all(processes.map(each => each.runNext()))
  expect(ran).toEqual(['Benno'])
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1 })
})

it('a job of a transaction that is rolled back never runs', async () => {
  const one = jobs()
  one.handle('greet', async () => { throw new Error('must not run') })
  await house.platform.database.transaction(async transaction => {
    await one.add({ kind: 'greet', payload: {} }, transaction)
    throw new Error('changed my mind')
  }).catch(() => undefined)
  expect(await one.runNext()).toBe(false)
})

it('a job whose process died is taken up by another after a quarter of a minute', async () => {
  const dead = jobs()
  dead.handle('long', () => new Promise(() => undefined))
  await dead.add({ kind: 'long', payload: {} })
  void dead.runNext()
  await expect.poll(async () => (await Job.findOne())?.heldUntil).not.toBeNull()
  const ran: string[] = []
  const heir = jobs()
  heir.handle('long', async () => { ran.push('heir') })
  expect(await heir.runNext()).toBe(false)
  house.clock.moveBy(16_000)
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
  await one.add({ kind: 'fail', payload: {} })
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
  await one.add({ kind: 'unknown', payload: {} })
  expect(await one.runNext()).toBe(false)
  expect(await other.runNext()).toBe(true)
})

it('a job that is cancelled while it runs is told so, and stays cancelled', async () => {
  const one = jobs()
  let wasTold = false
  one.handle('long', (_payload, { signal }) => new Promise((_resolve, reject) => signal.addEventListener('abort', () => {
    wasTold = true
    reject(new Error('stopped'))
  })))
  const subject = '0190a000-0000-7000-8000-000000000001'
  await one.add({ kind: 'long', payload: {}, subject })
  const ran = one.runNext()
  await expect.poll(async () => (await one.openFor(subject))?.heldUntil).toBeTruthy()
  await one.cancel('long', subject)
  await ran
  expect(wasTold).toBe(true)
  expect(reported).toEqual([])
  expect(await Job.findOne()).toMatchObject({ state: 'cancelled' })
})

it('a job tells how far it is, and one whose process stops in order begins anew at once', async () => {
  const one = jobs()
  one.handle('long', (_payload, { signal, progress }) => new Promise((_resolve, reject) => {
    progress(0.4)
    signal.addEventListener('abort', () => reject(new Error('stopped')))
  }), { lane: 'measuring' })
  const subject = '0190a000-0000-7000-8000-000000000002'
  await one.add({ kind: 'long', payload: {}, subject })
  one.start()
  await expect.poll(async () => (await one.openFor(subject))?.progress, { timeout: 5000 }).toBe(0.4)
  await one.stop()
  const other = jobs()
  const ran: string[] = []
  other.handle('long', async () => { ran.push('again') }, { lane: 'measuring' })
  expect(await other.runNext('measuring')).toBe(true)
  expect(ran).toEqual(['again'])
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1 })
})
