import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { expect, it } from 'vitest'
import { followClock } from './clock'

it('a stand-in goes by the time of the house, and by the world’s where nobody tells', async () => {
  const server = createServer((_request, response) => response.end(JSON.stringify({ offsetMs: 3600_000 })))
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const now = followClock(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)
  expect(Math.abs(now() - Date.now())).toBeLessThan(100)
  await expect.poll(() => now() - Date.now()).toBeGreaterThan(3599_000)
  server.close()
  expect(Math.abs(followClock(undefined)() - Date.now())).toBeLessThan(100)
})
