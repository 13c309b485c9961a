import { connect } from 'node:net'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { listenerServer } from './server'

const server = listenerServer()
let port: number
beforeAll(async () => {
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  port = (server.address() as AddressInfo).port
})
afterAll(() => {
  server.close().closeAllConnections()
})

/** Sends a request line as it is; answers the first line of what comes back. */
const ask = (line: string): Promise<string> =>
  new Promise(resolve => {
    let said = ''
    const socket = connect(port, '127.0.0.1', () =>
      socket.end(`${line} HTTP/1.1\r\nhost: listener\r\nconnection: close\r\n\r\n`),
    )
    socket
      .on('data', bytes => {
        said += String(bytes)
      })
      .on('close', () => resolve(said.split('\r\n')[0]!))
      .on('error', () => resolve('cut'))
  })

it.each([
  'GET //',
  'GET //elsewhere.example/',
  'GET /\\\\',
  'GET http://[::1',
  'GET /feed?address=%',
  'GET /feed?address=http://[',
  'GET ?',
  'no request at all',
  'GET /feed?',
])('%s does not bring the listener down', async line => {
  await ask(line)
  expect(await ask('GET /')).toBe('HTTP/1.1 200 OK')
})
