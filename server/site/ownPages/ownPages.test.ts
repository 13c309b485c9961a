import { afterAll, beforeAll, expect, it } from 'vitest'
import type { OwnPageList } from '@contract/ownPages'
import type { Show } from '@contract/shows'
import { type House, openHouse } from '../../testing/house'

let house: House
let show: Show
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
})
afterAll(() => house.close())

const create = (title: string) => house.call('POST', `/shows/${show.id}/pages`, { title })
const made = async (title: string) => (await create(title)).json<OwnPageList>().pages.at(-1)!
const get = (address: string) => house.app.inject({ url: new URL(address).pathname })

it('a page is made, written, named on every page, and taken away', async () => {
  const { id, address, version } = await made('About <us>')
  expect(address).toBe('http://lake.example/bellows-and-reeds/about-us')
  expect((await get(address)).statusCode).toBe(404)
  expect((await get(show.pageAddress)).body).not.toContain(address)
  const content = '<h2>Who</h2><p onclick="x()">We <b>mend</b>.</p><script>alert(1)</script>'
  expect((await house.call('PUT', `/pages/${id}`, { version, title: 'About <us>', content })).statusCode).toBe(200)
  const { body } = await get(address)
  expect(body).toContain('<h2>Who</h2><p>We <strong>mend</strong>.</p>')
  expect(body).not.toMatch(/alert\(1\)|onclick/)
  expect((await get(show.pageAddress)).body).toContain(`href="${address}"`)
  await house.call('DELETE', `/pages/${id}`)
  expect((await get(address)).statusCode).toBe(404)
})

it('has an address that is no episode’s and none of the site’s own, and no episode gets it later', async () => {
  const { id, version } = await house.makeReady(show.id, 'Contact')
  await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
  expect((await made('Contact')).address).toMatch(/\/contact-2$/)
  expect((await made('Search')).address).toMatch(/\/search-2$/)
  expect((await made('🪗')).address).toMatch(/\/page$/)
  expect((await made('Thanks')).address).toMatch(/\/thanks$/)
  const later = await house.makeReady(show.id, 'Thanks')
  const step = { version: later.version, when: { kind: 'now' } }
  expect((await house.call('POST', `/episodes/${later.id}/release`, step)).json().pageAddress).toMatch(/\/thanks-2$/)
})

it('of two windows the second is told', async () => {
  const { id, version } = await made('Two windows')
  const write = (content: string) => house.call('PUT', `/pages/${id}`, { version, title: 'Two windows', content })
  expect((await write('<p>One</p>')).statusCode).toBe(200)
  const second = await write('<p>Two</p>')
  expect([second.statusCode, second.json().code]).toEqual([409, 'version-conflict'])
})

it('without a title, or a twenty-first one, is refused', async () => {
  expect((await create('  ')).json().faults[0].field).toBe('title')
  let answer = await create('One more')
  for (let count = 0; count < 25 && answer.statusCode === 200; count++) answer = await create('One more')
  expect(answer.json().faults[0]).toMatchObject({ field: 'title', rule: 'At most 20 pages.' })
})
