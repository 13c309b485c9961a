import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import { AskedLink } from '../../show/links/models'
import { type House, openHouse } from '../../testing/house'

let outside: Server
let host: string
const asked: string[] = []
let house: House
let showId: string
beforeAll(async () => {
  outside = createServer((request, response) => {
    asked.push(`${request.method} ${request.url}`)
    const status = Number(/\d{3}/.exec(request.url!)?.[0] ?? 200)
    const isGetOnly = request.url!.includes('get-only') && request.method === 'HEAD'
    response.writeHead(isGetOnly ? 405 : status, status === 301 ? { location: '/there' } : {}).end('words')
  })
  await new Promise<void>(resolve => outside.listen(0, '127.0.0.1', resolve))
  host = `127.0.0.1:${(outside.address() as AddressInfo).port}`
  house = await openHouse({ FETCH_ALLOW: host })
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(async () => {
  await house.close()
  outside.close()
})

const link = (address: string): string => `<p><a href="${address}">words</a></p>`
async function written(notes: string): Promise<string> {
  const { id, version } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as EpisodeView
  const answer = await house.call('PATCH', `/episodes/${id}`, { version, text: { notes } })
  expect(answer.statusCode, answer.body).toBe(200)
  return id
}
async function askAll(): Promise<void> {
  house.clock.moveBy(10_000)
  while (await house.platform.jobs.runNext('network'));
}
const badLinks = async (id: string) => (await house.get(id)).badLinks

describe('links in notes', () => {
  it('that answer with an error are told, and those that answer are not', async () => {
    const id = await written(
      ['200', '301', '404', '500', '403', 'get-only'].map(path => link(`http://${host}/${path}`)).join(''),
    )
    expect(await badLinks(id)).toEqual([])
    await askAll()
    expect((await badLinks(id)).map(({ address, problem }) => [new URL(address).pathname, problem]).sort()).toEqual([
      ['/404', 'It answers with an error (404).'],
      ['/500', 'It answers with an error (500).'],
    ])
  })

  it('to private networks are never asked, and told', async () => {
    const before = asked.length
    const addresses = ['http://127.0.0.1:1/x', 'http://10.0.0.7/x', 'http://[::1]/x', 'http://169.254.169.254/latest']
    const id = await written(addresses.map(link).join(''))
    await askAll()
    expect((await badLinks(id)).map(({ problem }) => problem)).toEqual(
      addresses.map(() => expect.stringContaining('lies in a private network') as string),
    )
    expect(asked.length).toBe(before)
  })

  it('are asked once while somebody writes, and not again within a day', async () => {
    const id = await written(link(`http://${host}/one`))
    for (const more of ['two', 'three']) {
      const { version } = await house.get(id)
      const notes = ['one', 'two', more].map(path => link(`http://${host}/${path}`)).join('')
      await house.call('PATCH', `/episodes/${id}`, { version, text: { notes } })
    }
    const before = asked.length
    await askAll()
    expect(asked.slice(before).sort()).toEqual(['HEAD /one', 'HEAD /three', 'HEAD /two'])
    await written(link(`http://${host}/one`))
    await askAll()
    expect(asked.length).toBe(before + 3)
  })

  it('that stand for others, or that nobody could ask, are left alone', async () => {
    await written(link('https://bellowsandreeds.example/list') + link('mailto:reeds@lindenwick.example'))
    await askAll()
    expect(await AskedLink.count({ where: { address: 'https://bellowsandreeds.example/list' } })).toBe(0)
  })
})
