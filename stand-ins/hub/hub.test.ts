import { createHmac } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { hubServer } from './server'

let at = Date.parse('2026-03-10T05:00:00Z')
let hub: Server
let other: Server
let hubAddress: string
let base: string
let feed = 'one'
let honest = true
const pushed: { body: string; signature: string; link: string }[] = []
beforeAll(async () => {
  hub = hubServer(() => at)
  other = createServer((request, response) => {
    const url = new URL(request.url!, 'http://x')
    if (url.pathname === '/feed.xml')
      return void response.writeHead(200, { 'content-type': 'application/rss+xml' }).end(feed)
    if (request.method === 'GET') return void response.end(honest ? url.searchParams.get('hub.challenge') : 'no')
    let body = ''
    request.on('data', part => (body += part))
    request.on('end', () => {
      pushed.push({
        body,
        signature: String(request.headers['x-hub-signature']),
        link: String(request.headers.link),
      })
      response.end()
    })
  })
  for (const server of [hub, other]) await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const addressOf = (server: Server): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  ;[hubAddress, base] = [addressOf(hub), addressOf(other)]
})
afterAll(() => {
  hub.close()
  other.close()
})
const tell = async (form: Record<string, string>): Promise<number> =>
  (await fetch(hubAddress, { method: 'POST', body: new URLSearchParams(form) })).status
const subscribe = (callback: string) =>
  tell({
    'hub.mode': 'subscribe',
    'hub.topic': `${base}/feed.xml`,
    'hub.callback': callback,
    'hub.secret': 'a secret',
  })
const publish = () => tell({ 'hub.mode': 'publish', 'hub.url': `${base}/feed.xml` })

// W3C WebSub, sections 5.1 to 5.3, 7 and 7.1.
it('hands a changed feed on to whoever subscribed and meant it, signed, until the lease is over', async () => {
  honest = false
  expect(await subscribe(`${base}/liar`)).toBe(202)
  await new Promise(resolve => setTimeout(resolve, 100))
  honest = true
  expect(await subscribe(`${base}/callback`)).toBe(202)
  await new Promise(resolve => setTimeout(resolve, 100))
  feed = 'two'
  expect(await publish()).toBe(204)
  await expect.poll(() => pushed.length).toBe(1)
  expect(pushed[0]).toEqual({
    body: 'two',
    link: `<${base}/feed.xml>; rel="self"`,
    signature: `sha256=${createHmac('sha256', 'a secret').update('two').digest('hex')}`,
  })
  at += 11 * 24 * 3600_000
  await publish()
  await new Promise(resolve => setTimeout(resolve, 100))
  expect(pushed).toHaveLength(1)
})

it('refuses what is no request of the protocol', async () => {
  expect(await tell({ 'hub.mode': 'publish' })).toBe(400)
  expect(await tell({ 'hub.mode': 'dance', 'hub.topic': base, 'hub.callback': base })).toBe(400)
  expect(await tell({ 'hub.mode': 'subscribe', 'hub.topic': base, 'hub.callback': 'here' })).toBe(400)
  expect((await fetch(hubAddress)).status).toBe(405)
})
