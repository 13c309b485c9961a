import { setMaxListeners } from 'node:events'
import { createConnection } from 'mariadb'
import { expect, it } from 'vitest'
import { SharedLocker } from './locker'

const url = process.env.DATABASE_URL!

it('an upload is held by one process at a time, and free again after that', async () => {
  const [here, there] = [new SharedLocker(url).newLock('one'), new SharedLocker(url).newLock('one')]
  const { signal } = new AbortController()
  const order: string[] = []
  await here.lock(signal, () => undefined)
  const waiting = there
    .lock(signal, () => undefined)
    .then(() => {
      order.push('there')
    })
  await new Promise(resolve => setTimeout(resolve, 300))
  order.push('here lets go')
  await here.unlock()
  await waiting
  expect(order).toEqual(['here lets go', 'there'])
  await there.unlock()
})

it('a holder in the same process is asked to let go', async () => {
  const locker = new SharedLocker(url)
  const { signal } = new AbortController()
  const [first, second] = [locker.newLock('two'), locker.newLock('two')]
  await first.lock(signal, () => void first.unlock())
  await second.lock(signal, () => undefined)
  await second.unlock()
})

it('who waits costs the others nothing, and stops when its line is dead; whoever comes next does not wait for it', async () => {
  const locker = new SharedLocker(url)
  const { signal } = new AbortController()
  const line = new AbortController()
  let asked = 0
  const [first, second, third] = [locker.newLock('five'), locker.newLock('five'), locker.newLock('five')]
  await first.lock(signal, () => void asked++)
  const waiting = second.lock(line.signal, () => undefined)
  await new Promise(resolve => setTimeout(resolve, 100))
  // It asks once, and not all the time.
  expect(asked).toBe(1)
  line.abort()
  await expect(waiting).rejects.toMatchObject({ status_code: 500 })
  await first.unlock()
  await second.unlock()
  await third.lock(signal, () => undefined)
  await third.unlock()
  await locker.close()
})

it('whose connection is cut asks its holders to let go, brings nothing down, and locks again after that', async () => {
  const locker = new SharedLocker(url)
  const { signal } = new AbortController()
  let asked = 0
  await locker.newLock('three').lock(signal, () => {
    asked++
  })
  const other = await createConnection(url)
  const [row] = await other.query<{ id: bigint }[]>("SELECT IS_USED_LOCK('lake-letter-upload-three') AS id")
  await other.query(`KILL ${row!.id}`)
  await expect.poll(() => asked).toBe(1)
  const next = locker.newLock('four')
  await next.lock(signal, () => undefined)
  await next.unlock()
  await other.end()
  await locker.close()
})

it('fifty uploads are locked by one connection', async () => {
  const locker = new SharedLocker(url)
  const { signal } = new AbortController()
  setMaxListeners(50, signal)
  const locks = Array.from({ length: 50 }, (_, n) => locker.newLock(`many-${n}`))
  await Promise.all(locks.map(lock => lock.lock(signal, () => undefined)))
  const other = await createConnection(url)
  const used = await other.query<Record<string, bigint>[]>(
    `SELECT ${locks.map((_lock, n) => `IS_USED_LOCK('lake-letter-upload-many-${n}') AS n${n}`).join(', ')}`,
  )
  expect(new Set(Object.values(used[0]!)).size).toBe(1)
  await Promise.all(locks.map(lock => lock.unlock()))
  await other.end()
  await locker.close()
})
