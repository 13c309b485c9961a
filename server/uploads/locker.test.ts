import { expect, it } from 'vitest'
import { SharedLocker } from './locker'

const url = process.env.DATABASE_URL!

it('an upload is held by one process at a time, and free again after that', async () => {
  const [here, there] = [new SharedLocker(url).newLock('one'), new SharedLocker(url).newLock('one')]
  const { signal } = new AbortController()
  const order: string[] = []
  await here.lock(signal, () => undefined)
  const waiting = there.lock(signal, () => undefined).then(() => { order.push('there') })
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
