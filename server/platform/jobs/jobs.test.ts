import { availableParallelism } from 'node:os'
import { setTimeout as wait } from 'node:timers/promises'
import { DatabaseError, type Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Events } from '../events/events'
import { type House, morning, openHouse } from '../../testing/house'
import { createJobs, type NewJob } from './jobs'
import type { JobDefinition, JobKind, JobList, Lane } from './kinds'
import { Job } from './models'

let house: House
let reported: unknown[]
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())
beforeEach(async () => {
  reported = []
  house.clock.moveTo(morning)
  await Job.destroy({ where: {} })
})

type Payload = Record<string, string>
interface Manners {
  lane?: Lane
  limitMs?: number
  gaveUp?: (payload: Payload) => Promise<void>
}

/** Jobs of kinds that only this test knows. */
function made(events: Events = house.platform.events) {
  const known = createJobs(house.platform.database, house.clock, events, error => {
    reported.push(error)
  })
  const list: Record<string, JobDefinition<Payload>> = {}
  return {
    ...known,
    handle(kind: string, run: JobDefinition<Payload>['run'], manners: Manners = {}) {
      list[kind] = { lane: 'reading', gaveUp: null, ...manners, run }
      known.use(list as unknown as JobList)
    },
    add: (
      job: { kind: string; payload: Payload; subject?: string; showId?: string; soundMs?: number },
      transaction?: Transaction,
    ) => known.add(job as unknown as NewJob, transaction),
    cancel: (kind: string, subject: string) => known.cancel(kind as JobKind, subject),
    runNext: (lane: Lane = 'reading') => known.runNext(lane),
  }
}
const jobs = () => made()

it('what is to be done at once is done, also where the machine’s clock is set back an hour meanwhile, and in order', async () => {
  const ran: string[] = []
  const known = jobs()
  known.handle('greet', async ({ name }) => {
    ran.push(name!)
  })
  await known.add({ kind: 'greet', payload: { name: 'first' } })
  house.clock.moveBy(-3600_000)
  await known.add({ kind: 'greet', payload: { name: 'second' } })
  while (await known.runNext());
  expect(ran).toEqual(['first', 'second'])
})

it('what works on a short sound goes before what works on a long one, but not for ever', async () => {
  const ran: string[] = []
  const known = jobs()
  known.handle('hear', async ({ name }) => {
    ran.push(name!)
  })
  const hour = 3600_000
  const add = (name: string, soundMs: number) => known.add({ kind: 'hear', payload: { name }, soundMs })
  await add('three hours', 3 * hour)
  await add('an hour', hour)
  house.clock.moveBy(60_000)
  await add('a minute', 60_000)
  house.clock.moveBy(6 * 60_000)
  await add('another minute', 60_000)
  while (await known.runNext());
  expect(ran).toEqual(['a minute', 'three hours', 'an hour', 'another minute'])
})

it('two that work on sound run at once where there are two cores, of those that wait for others eight; of the rest one', async () => {
  const known = jobs()
  const beside = { reading: 0, network: 0, mail: 0 }
  const most = { ...beside }
  for (const lane of ['reading', 'network', 'mail'] as const)
    known.handle(
      lane,
      async () => {
        most[lane] = Math.max(most[lane], ++beside[lane])
        // Those that wait for others are all there before one ends.
        if (lane === 'network') await expect.poll(() => most.network, { timeout: 10_000 }).toBe(8)
        await wait(50)
        beside[lane]--
      },
      { lane },
    )
  for (const kind of ['reading', 'network', 'mail'])
    for (let at = 0; at < 10; at++) await known.add({ kind, payload: {} })
  known.start()
  await expect.poll(() => Job.count({ where: { state: 'done' } }), { timeout: 20_000 }).toBe(30)
  await known.stop()
  expect(most).toEqual({ reading: Math.min(2, availableParallelism()), network: 8, mail: 1 })
})

it('a job runs once, with its payload, however many processes look for it', async () => {
  const ran: string[] = []
  const processes = [jobs(), jobs(), jobs()]
  for (const each of processes)
    each.handle('greet', async ({ name }) => {
      ran.push(name!)
    })
  await processes[0]!.add({ kind: 'greet', payload: { name: 'Benno' } })
  await Promise.all(processes.map(each => each.runNext()))
  expect(ran).toEqual(['Benno'])
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1 })
})

it('a job of a transaction that is rolled back never runs', async () => {
  const one = jobs()
  one.handle('greet', async () => {
    throw new Error('must not run')
  })
  await house.platform.database
    .transaction(async transaction => {
      await one.add({ kind: 'greet', payload: {} }, transaction)
      throw new Error('changed my mind')
    })
    .catch(() => undefined)
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
  heir.handle('long', async () => {
    ran.push('heir')
  })
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
    const { runAfter, state } = (await Job.findOne())!
    if (state === 'open') gaps.push(+runAfter - +house.clock.now())
    house.clock.moveTo(new Date(+runAfter + 1))
  }
  expect(tries).toBe(5)
  expect(gaps).toEqual([4_000, 16_000, 64_000, 256_000])
  expect(await one.runNext()).toBe(false)
  expect(await Job.findOne()).toMatchObject({ state: 'failed', error: 'Error: no reeds left' })
  expect(reported).toHaveLength(5)
})

it('a job that fails while it is held on to is held no longer, however late that comes to the database', async () => {
  const known = jobs()
  const update = Job.update.bind(Job)
  let come = (): void => undefined
  const hasCome = new Promise<void>(resolve => {
    come = resolve
  })
  let late: Promise<unknown> = Promise.resolve()
  const spy = vi.spyOn(Job, 'update').mockImplementationOnce(((...change: Parameters<typeof update>) => {
    come()
    late = wait(500).then(() => update(...change))
    return late
  }) as typeof Job.update)
  known.handle('hear', async () => {
    await hasCome
    throw new Error('broken off')
  })
  await known.add({ kind: 'hear', payload: {} })
  await known.runNext()
  await late
  // What is written last is seen once its transaction is over.
  await wait(200)
  spy.mockRestore()
  expect(await Job.findOne()).toMatchObject({ state: 'open', failures: 1, heldUntil: null })
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
  one.handle(
    'long',
    (_payload, { signal }) =>
      new Promise((_resolve, reject) =>
        signal.addEventListener('abort', () => {
          wasTold = true
          reject(new Error('stopped'))
        }),
      ),
  )
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
  one.handle(
    'long',
    (_payload, { signal, progress }) =>
      new Promise((_resolve, reject) => {
        progress(0.4)
        signal.addEventListener('abort', () => reject(new Error('stopped')))
      }),
    { lane: 'measuring' },
  )
  const subject = '0190a000-0000-7000-8000-000000000002'
  await one.add({ kind: 'long', payload: {}, subject })
  one.start()
  await expect.poll(async () => (await one.openFor(subject))?.progress).toBe(0.4)
  await one.stop()
  const other = jobs()
  const ran: string[] = []
  other.handle(
    'long',
    async () => {
      ran.push('again')
    },
    { lane: 'measuring' },
  )
  expect(await other.runNext('measuring')).toBe(true)
  expect(ran).toEqual(['again'])
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1 })
})

it('a job that stands in the way of another transaction when it ends is done all the same, once', async () => {
  const one = jobs()
  let ran = 0
  // What the database says when it has broken the write off for another transaction's sake.
  one.handle('crossing', async () => {
    ran++
  })
  await one.add({ kind: 'crossing', payload: {} })
  const update = Job.update.bind(Job)
  let crossings = 0
  const spy = vi.spyOn(Job, 'update').mockImplementation(async (...given: Parameters<typeof update>) => {
    if ((given[0] as { state?: string }).state === 'done' && crossings++ < 2)
      throw new DatabaseError(Object.assign(new Error('Deadlock found'), { code: 'ER_LOCK_DEADLOCK', sql: '' }))
    return update(...given)
  })
  await one.runNext()
  spy.mockRestore()
  expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 1, failures: 0 })
  expect([ran, crossings]).toEqual([1, 3])
})

it('a job that is done stays done where nobody can be told of it', async () => {
  const one = made({ ...house.platform.events, note: () => Promise.reject(new Error('away')) })
  let gaveUp = false
  one.handle('mute', async () => undefined, {
    gaveUp: async () => {
      gaveUp = true
    },
  })
  await one.add({ kind: 'mute', payload: {}, subject: uuidV7(), showId: uuidV7() })
  await Job.update({ failures: 4 }, { where: {} })
  await one.runNext()
  expect(await Job.findOne()).toMatchObject({ state: 'done', failures: 4 })
  expect([gaveUp, String(reported)]).toEqual([false, 'Error: away'])
})

describe('a job whose every try goes wrong', () => {
  it('is given up with a last word, also where each try killed its process', async () => {
    const told: string[] = []
    for (let n = 0; n < 8; n++) {
      const dying = jobs()
      dying.handle('kill', () => new Promise(() => undefined))
      if (n === 0) await dying.add({ kind: 'kill', payload: { name: 'reed' } })
      void dying.runNext()
      await expect.poll(async () => (await Job.findOne())?.attempts).toBe(n + 1)
      house.clock.moveBy(300_000)
    }
    const heir = jobs()
    let ran = false
    heir.handle(
      'kill',
      async () => {
        ran = true
      },
      {
        gaveUp: async ({ name }) => {
          told.push(name!)
        },
      },
    )
    expect(await heir.runNext()).toBe(true)
    expect([ran, told]).toEqual([false, ['reed']])
    expect(await Job.findOne()).toMatchObject({ state: 'failed' })
    expect(await heir.runNext()).toBe(false)
  })

  it('comes ever later where its processes end, too', async () => {
    const gaps: number[] = []
    for (let n = 0; n < 6; n++) {
      const dying = jobs()
      dying.handle('kill', () => new Promise(() => undefined))
      if (n === 0) await dying.add({ kind: 'kill', payload: {} })
      void dying.runNext()
      await expect.poll(async () => (await Job.findOne())?.attempts).toBe(n + 1)
      const { runAfter, heldUntil } = (await Job.findOne())!
      const again = Math.max(+runAfter, +heldUntil!)
      gaps.push(again - +house.clock.now())
      house.clock.moveTo(new Date(again + 1000))
    }
    expect(gaps.map(gap => Math.round(gap / 1000))).toEqual([15, 15, 15, 16, 32, 64])
  })

  it('that a process died seven times amid is no failure of its own', async () => {
    for (let n = 0; n < 7; n++) {
      const dying = jobs()
      dying.handle('long', () => new Promise(() => undefined))
      if (n === 0) await dying.add({ kind: 'long', payload: {} })
      void dying.runNext()
      await expect.poll(async () => (await Job.findOne())?.attempts).toBe(n + 1)
      house.clock.moveBy(300_000)
    }
    const heir = jobs()
    heir.handle('long', async () => undefined)
    await heir.runNext()
    expect(await Job.findOne()).toMatchObject({ state: 'done', attempts: 8, failures: 0 })
  })

  it('stays on the list while its last word cannot be said', async () => {
    const one = jobs()
    let isDown = true
    one.handle(
      'fail',
      async () => {
        throw new Error('no reeds left')
      },
      {
        gaveUp: async () => {
          if (isDown) throw new Error('away')
        },
      },
    )
    await one.add({ kind: 'fail', payload: {} })
    for (let n = 0; n < 5; n++) {
      await one.runNext().catch(() => undefined)
      house.clock.moveBy(3600_000)
    }
    expect(await Job.findOne()).toMatchObject({ state: 'open' })
    isDown = false
    expect(await one.runNext()).toBe(true)
    expect(await Job.findOne()).toMatchObject({ state: 'failed' })
  })

  it('because it takes too long is stopped, and holds nobody up', async () => {
    const one = jobs()
    let signal: AbortSignal | undefined
    one.handle(
      'slow',
      (_payload, run) => {
        signal = run.signal
        return new Promise(() => undefined)
      },
      { limitMs: 50 },
    )
    one.handle('next', async () => undefined)
    await one.add({ kind: 'slow', payload: {} })
    await one.add({ kind: 'next', payload: {} })
    expect(await one.runNext()).toBe(true)
    expect(signal!.aborted).toBe(true)
    expect(await one.runNext()).toBe(true)
    expect(
      (await Job.findAll({ order: [['kind', 'ASC']] })).map(({ kind, state, attempts }) => [kind, state, attempts]),
    ).toEqual([
      ['next', 'done', 1],
      ['slow', 'open', 1],
    ])
  })
})

it('how far a job is never goes back', async () => {
  const one = jobs()
  one.handle('long', async (_payload, { progress }) => {
    progress(0.6)
    progress(0.2)
    await new Promise(resolve => setTimeout(resolve, 1_300))
  })
  await one.add({ kind: 'long', payload: {} })
  const ran = one.runNext()
  await expect.poll(async () => (await Job.findOne())?.progress).toBe(0.6)
  await ran
})

it('nothing of a lane that is held begins until it is let go; other lanes go on', async () => {
  const ran: string[] = []
  const known = jobs()
  for (const [kind, lane] of [
    ['look', 'checking'],
    ['read', 'reading'],
  ] as const)
    known.handle(
      kind,
      async () => {
        ran.push(kind)
      },
      { lane },
    )
  const letGo = known.hold('checking')
  for (const kind of ['look', 'read']) await known.add({ kind, payload: {} })
  known.start()
  await expect.poll(() => ran).toEqual(['read'])
  // Longer than it takes to look for what is due.
  await new Promise(resolve => setTimeout(resolve, 1_200))
  expect(ran).toEqual(['read'])
  letGo()
  await expect.poll(() => ran).toEqual(['read', 'look'])
  await known.stop()
})
