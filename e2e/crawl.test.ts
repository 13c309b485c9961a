import { parseBuffer } from 'music-metadata'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'

let house: DemoHouse
beforeAll(async () => {
  house = await openDemoHouse()
})
afterAll(() => house?.stop())

/** What a value that is not there looks like where somebody wrote it into a text. */
const leaked = /.{0,60}(?:undefined|\[object |\bNaN\b|\bnull\b).{0,60}/g
const asText = /^(?:text\/(?!css|javascript)|application\/(?!javascript|octet)|image\/svg)/

/** Every address of the house in a text: absolute, or beginning at its root, percent-encoded or as XML and JSON write it. */
const addressesIn = (text: string): string[] =>
  [
    ...text.matchAll(/(?:href|src|content|url|data-[a-z]+)="(\/[^"]*)"/g),
    ...text.matchAll(/(http:\/\/127\.0\.0\.1:\d+\/[^\s"'<>\\)]*)/g),
  ].map(([, address]) => address!.replaceAll('&amp;', '&'))

/** The texts of all tags that a sound has, whatever their form. */
async function tagsOf(bytes: Uint8Array, type: string): Promise<string> {
  const { native } = await parseBuffer(bytes, type, { includeChapters: true })
  return JSON.stringify(
    Object.values(native)
      .flat()
      .filter(({ value }) => value !== null),
    (_name, value: unknown) => (value instanceof Uint8Array ? undefined : value),
  )
}

it('nothing that leaves the house for listeners says undefined, null, NaN or [object Object]: pages, feeds, and the tags of every sound', async () => {
  const waiting = ['/', '/robots.txt', '/sitemap.xml', '/bellows-and-reeds', '/slow-ferry']
  const seen = new Map<string, string>()
  const found: string[] = []
  while (waiting.length > 0) {
    const url = new URL(waiting.pop()!, house.address)
    url.hash = ''
    if (url.origin !== house.address || seen.has(url.href) || /^\/(studio|api|assets)\b/.test(url.pathname)) continue
    const answer = await fetch(url)
    const type = answer.headers.get('content-type') ?? ''
    seen.set(url.href, type)
    const bytes = new Uint8Array(await answer.arrayBuffer())
    // Of a page of our own that leads somewhere, there is something.
    if (answer.status !== 200) found.push(`${answer.status} ${url.href}`)
    const text = asText.test(type)
      ? new TextDecoder().decode(bytes)
      : type.startsWith('audio/')
        ? await tagsOf(bytes, type)
        : ''
    for (const [words] of text.matchAll(leaked)) found.push(`${url.href}: ${words}`)
    waiting.push(...addressesIn(text).filter(address => URL.canParse(address, house.address)))
  }
  expect(found).toEqual([])
  const of = (type: string): number => [...seen.values()].filter(each => each.startsWith(type)).length
  // The demo has six released episodes of one show and two of the other, each with its page, its sound and its soundbites.
  expect(of('audio/')).toBeGreaterThanOrEqual(10)
  expect(of('text/html')).toBeGreaterThanOrEqual(20)
  expect(of('application/rss+xml') + of('application/xml') + of('text/xml')).toBeGreaterThanOrEqual(3)
  expect(of('text/vtt')).toBeGreaterThanOrEqual(6)
})
