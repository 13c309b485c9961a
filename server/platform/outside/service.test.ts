import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, expect, it } from 'vitest'
import { serviceAt, Trouble } from './service'

let server: Server | undefined
afterEach(async () => {
  server?.closeAllConnections()
  await new Promise<void>(done => (server ? server.close(() => done()) : done()))
})

/** A service that breaks the line at its first `broken` questions and answers those after; tells how often it was asked. */
async function serviceThatBreaks(broken: number) {
  let asked = 0
  server = createServer((request, response) => {
    asked += 1
    if (asked <= broken) request.socket.destroy()
    else response.end('{}')
  })
  await new Promise<void>(done => server!.listen(0, '127.0.0.1', done))
  const { port } = server.address() as AddressInfo
  return { service: serviceAt(`http://127.0.0.1:${port}`, 'The index'), asked: () => asked }
}

it('asks once more where the line breaks, what changes nothing', async () => {
  const { service, asked } = await serviceThatBreaks(1)
  expect((await service.ask('shows')).status).toBe(200)
  expect(asked()).toBe(2)
})

it('does not ask a third time', async () => {
  const { service, asked } = await serviceThatBreaks(9)
  await expect(service.ask('shows')).rejects.toThrow(Trouble)
  expect(asked()).toBe(2)
})

it('does not ask again what may have changed something', async () => {
  const { service, asked } = await serviceThatBreaks(1)
  await expect(service.ask('shows', { method: 'POST', json: {} })).rejects.toThrow('The index does not answer.')
  expect(asked()).toBe(1)
})
