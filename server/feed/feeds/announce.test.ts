import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Show } from '@contract/shows'
import { Job } from '../../platform/jobs/models'
import { type House, openHouse } from '../../testing/house'

let hub: Server
let house: House
let status = 204
const told: URLSearchParams[] = []
beforeAll(async () => {
  hub = createServer((request, response) => {
    let form = ''
    request.on('data', part => (form += part))
    request.on('end', () => {
      told.push(new URLSearchParams(form))
      response.writeHead(status).end()
    })
  })
  await new Promise<void>(resolve => hub.listen(0, '127.0.0.1', resolve))
  house = await openHouse({ HUB_URL: `http://127.0.0.1:${(hub.address() as AddressInfo).port}/` })
})
afterAll(async () => {
  hub.close()
  await house.close()
})
const announce = async (): Promise<void> => {
  while (await house.platform.jobs.runNext('network'));
}

// W3C WebSub section 4: the feed names its hub and its own address; section 6: the hub is told of each change.
it('a changed feed is announced to the hub that it names, once for changes that come together, again where it was away', async () => {
  const show = await house.makeShow('slow-ferry')
  const { body, headers } = await house.app.inject({ url: '/slow-ferry/feed.xml' })
  expect(headers.link).toBe(
    `<${house.platform.configuration.hubUrl}>; rel="hub", <http://lake.example/slow-ferry/feed.xml>; rel="self"`,
  )
  expect(body).toContain(`<atom:link rel="hub" href="${house.platform.configuration.hubUrl}"/>`)
  await announce()
  told.length = 0
  let { version } = show
  for (const description of ['One.', 'Two.']) {
    const changed = await house.call('PATCH', `/shows/${show.id}`, { version, description })
    version = (changed.json() as Show).version
  }
  await announce()
  expect(told.map(form => [form.get('hub.mode'), form.getAll('hub.url')])).toEqual([
    ['publish', ['http://lake.example/slow-ferry/feed.xml', 'http://lake.example/slow-ferry/feed.json']],
  ])
  status = 503
  await house.call('PATCH', `/shows/${show.id}`, { version, description: 'Three.' })
  await announce()
  expect(told).toHaveLength(2)
  expect(await Job.count({ where: { kind: 'announce-feed', state: 'open' } })).toBe(1)
  status = 204
  house.clock.moveBy(3600_000)
  await announce()
  expect(told).toHaveLength(3)
  expect(await Job.count({ where: { kind: 'announce-feed', state: 'open' } })).toBe(0)
})
