import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import { type House, openHouse } from '../../testing/house'

let house: House
let released: Episode
beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('bellows-and-reeds')
  await house.call('PATCH', `/shows/${show.id}`, {
    version: 1,
    name: 'Bellows <& "Reeds"',
    description: '</script><script>alert(1)</script>',
    language: 'de',
  })
  const draft = await house.makeReady(show.id, '"><img src=x onerror=alert(1)> שלום')
  const { version } = (
    await house.call('PATCH', `/episodes/${draft.id}`, {
      version: draft.version,
      text: { number: 7, notes: '<p>Hello <a href="https://lake.example">you</a><script>alert(2)</script></p>' },
    })
  ).json()
  released = (await house.call('POST', `/episodes/${draft.id}/release`, { version, when: { kind: 'now' } })).json()
  await house.makeReady(show.id, 'Nobody may see this')
})
afterAll(() => house.close())

const page = (url: string) => house.app.inject({ url })
const pathOf = (address: string) => new URL(address).pathname

describe('the page of a show', () => {
  it('lists what is released and nothing else', async () => {
    const { body, statusCode, headers } = await page('/bellows-and-reeds')
    expect(statusCode).toBe(200)
    expect(headers['content-type']).toBe('text/html; charset=utf-8')
    expect(body).toContain('שלום')
    expect(body).not.toContain('Nobody may see this')
  })

  it('names its feed in the head, and tells the language', async () => {
    const { body } = await page('/bellows-and-reeds')
    expect(body).toContain('<html lang="de" dir="ltr" ')
    expect(body).toContain(
      '<link rel="alternate" type="application/rss+xml" title="Bellows &lt;&amp; &quot;Reeds&quot;" href="http://lake.example/bellows-and-reeds/feed.xml">',
    )
  })

  it.each([
    ['/Bellows-And-Reeds', '/bellows-and-reeds'],
    ['/bellows-and-reeds/', '/bellows-and-reeds'],
    ['/bellows-and-reeds/?from=app', '/bellows-and-reeds?from=app'],
    ['/BELLOWS-and-reeds/?a=1', '/bellows-and-reeds?a=1'],
    [`/bellows-and-reeds/x-onerror-alert-1/`, '/bellows-and-reeds/x-onerror-alert-1'],
  ])('has one address: %s leads to %s', async (url, wanted) => {
    const { statusCode, headers } = await page(url)
    expect([statusCode, headers.location]).toEqual([301, `http://lake.example${wanted}`])
  })
  it('leads nowhere else', async () => {
    for (const url of ['//elsewhere.example/', '//elsewhere.example/a/', '/\\elsewhere.example/'])
      expect((await page(url)).headers.location ?? '').not.toMatch(/elsewhere\.example/)
  })
  it('in a language that is written right to left says so', async () => {
    const show = await house.makeShow('right-to-left')
    await house.call('PATCH', `/shows/${show.id}`, { version: 1, language: 'he' })
    expect((await page('/right-to-left')).body).toContain('<html lang="he" dir="rtl" ')
  })

  it('gives no words of the maker a chance to be markup', async () => {
    for (const url of ['/bellows-and-reeds', pathOf(released.pageAddress!)]) {
      const { body } = await page(url)
      expect(body).not.toMatch(/<script>|<img src=x/)
    }
  })

  it('writes the day in the show’s zone and language', async () => {
    expect((await page('/bellows-and-reeds')).body).toContain('10. März 2026')
  })
})

describe('the page of an episode', () => {
  it('has a player that works without script, the notes, and the feed’s address', async () => {
    const { body } = await page(pathOf(released.pageAddress!))
    expect(body).toContain(`<audio controls preload="none" src="${released.enclosureAddress}?from=page"`)
    expect(body).toContain('Hello <a href="https://lake.example">you</a>')
    expect(body).toContain('http://lake.example/bellows-and-reeds/feed.xml')
    expect(body).not.toContain('alert(2)')
  })

  it('tells what was sent, not what was written since', async () => {
    await house.call('PATCH', `/episodes/${released.id}`, {
      version: released.version,
      text: { title: 'Written since' },
    })
    expect((await page(pathOf(released.pageAddress!))).body).not.toContain('Written since')
  })

  it('has an address that is free of the title’s letters that addresses cannot hold, and keeps it', async () => {
    expect(pathOf(released.pageAddress!)).toMatch(/^\/bellows-and-reeds\/[a-z0-9-]+$/)
    const { version } = await house.get(released.id)
    const text = { title: 'Another title altogether' }
    const written = (await house.call('PATCH', `/episodes/${released.id}`, { version, text })).json() as Episode
    const step = { version: written.version }
    const sent = (await house.call('POST', `/episodes/${released.id}/send-changes`, step)).json() as Episode
    expect(sent.pageAddress).toBe(released.pageAddress)
    expect((await page(pathOf(released.pageAddress!))).body).toContain('Another title altogether')
  })
})

it.each(['/nowhere', '/bellows-and-reeds/nothing', '/bellows-and-reeds/%E0%A4%A'])(
  '%s answers 404 or 400 and shows nothing of the server',
  async url => {
    const { statusCode, body } = await page(url)
    expect([400, 404, 422]).toContain(statusCode)
    expect(body).not.toMatch(/node_modules|at \w+ \(|SELECT/)
  },
)

it('pages may load their own files only', async () => {
  const policy = String((await page('/bellows-and-reeds')).headers['content-security-policy'])
  expect(policy).toContain("default-src 'self'")
  expect(policy).toContain("frame-ancestors 'none'")
  expect(policy).not.toContain("script-src 'unsafe-inline'")
})

describe('a film that lives elsewhere', () => {
  const withFilm = async (film: string) => {
    const show = await house.makeShow(`film-${Math.random().toString(36).slice(2, 8)}`)
    const { id, version } = await house.makeReady(show.id, 'With a film')
    const { text } = await house.get(id)
    const written = await house.call('PATCH', `/episodes/${id}`, {
      version,
      text: { extras: { ...text.extras, film } },
    })
    if (written.statusCode !== 200) return written
    const when = { kind: 'now' }
    const sent = await house.call('POST', `/episodes/${id}/release`, { version: written.json().version, when })
    return page(pathOf(sent.json().pageAddress))
  }
  it('is kept by its address alone, and may be framed on that page and no other', async () => {
    const { body, headers } = await withFilm(
      '<iframe onload="alert(1)" src="https://films.example/embed/42"></iframe><script>alert(2)</script>',
    )
    expect(body).toContain('data-film data-address="https://films.example/embed/42"')
    expect(body).not.toMatch(/alert\(|<iframe/)
    expect(headers['content-security-policy']).toMatch(/;frame-src https:\/\/films\.example$/)
    expect((await page('/bellows-and-reeds')).headers['content-security-policy']).not.toContain('films.example')
  })
  it('that is a page of the house is a link and no frame', async () => {
    const { body, headers } = await withFilm('https://lake.example/bellows-and-reeds')
    expect(body).not.toContain('data-film')
    expect(body).toContain('href="https://lake.example/bellows-and-reeds"')
    expect(headers['content-security-policy']).not.toContain('frame-src')
  })
  it.each(['javascript:alert(1)', '<iframe src="data:text/html,x"></iframe>', 'http://films.example/'])(
    'is refused where it is none: %s',
    async film => {
      const answer = await withFilm(film)
      expect([answer.statusCode, answer.json().faults[0].field]).toEqual([422, 'text.extras.film'])
    },
  )
})
