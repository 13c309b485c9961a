import { HtmlValidate } from 'html-validate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { ShowTheme } from '@contract/siteThemes'
import type { OwnPage, OwnPageList } from '@contract/ownPages'
import type { Show } from '@contract/shows'
import { siteLanguages } from '@core/site/languages'
import { messages } from '@site/messages'
import { type House, openHouse } from '../../testing/house'

/** What pages tell those who look for things: search engines, whoever is sent a link, programs. */

let house: House
let show: Show
let released: Episode
const hard = '</script><b>&"quoted" 🪗'
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  await house.call('PATCH', `/shows/${show.id}`, { version: 1, description: hard, language: 'de' })
  released = await house.makeReleased(show.id, 'The harmonium that coughed', {
    number: 7,
    hook: hard,
    notes: '<h3>Reeds</h3><p>They <em>wheeze</em>.</p><ul><li><p>Brass</p></li></ul>',
    tags: ['reeds', 'lungs'],
    people: [{ name: hard, role: 'Guest', address: 'https://odile.example/', pictureId: null }],
    chapters: ['Ebb', 'Flood'].map((title, at) => ({
      id: `c${at}`,
      fromMs: at * 20_000,
      title,
      address: null,
      pictureId: null,
      isListed: true,
    })),
  })
})
afterAll(() => house.close())

const page = (address: string) => house.app.inject({ url: new URL(address, 'http://lake.example').pathname })
const metaIn = (html: string): Record<string, string> =>
  Object.fromEntries(
    [...html.matchAll(/<meta property="([^"]+)" content="([^"]*)">/g)].map(([, name, value]) => [name, value]),
  )
const dataIn = (html: string): Record<string, unknown> => {
  const found = [...html.matchAll(/<script type="application\/ld\+json">(.*?)<\/script>/gs)]
  expect(found).toHaveLength(1)
  return JSON.parse(found[0]![1]!) as Record<string, unknown>
}
const canonicalIn = (html: string): string | undefined => /<link rel="canonical" href="([^"]+)">/.exec(html)?.[1]

// Open Graph protocol, basic metadata: title, type, image and url are required.
describe.each([
  ['a show', () => show.pageAddress, 'website'],
  ['an episode', () => released.pageAddress!, 'article'],
])('the page of %s', (_of, address, type) => {
  it('says what it is, where, and with which picture', async () => {
    const { body } = await page(address())
    const graph = metaIn(body)
    expect(graph).toMatchObject({ 'og:type': type, 'og:url': address(), 'og:title': expect.stringMatching(/./) })
    expect(canonicalIn(body)).toBe(address())
    const picture = await page(graph['og:image']!)
    expect([picture.statusCode, picture.headers['content-type']]).toEqual([200, 'image/jpeg'])
  })
})

// schema.org: PodcastSeries, PodcastEpisode, AudioObject, Clip; ISO 8601 for durations.
describe('what programs read', () => {
  it('is the show, with its feed', async () => {
    expect(dataIn((await page(show.pageAddress)).body)).toMatchObject({
      '@context': 'https://schema.org',
      '@type': 'PodcastSeries',
      name: 'Bellows & Reeds',
      description: hard,
      url: show.pageAddress,
      webFeed: show.feedAddress,
      inLanguage: 'de',
    })
  })

  it('is the episode, with its sound and its chapters as clips', async () => {
    const told = dataIn((await page(released.pageAddress!)).body)
    const { durationMs } = (await house.get(released.id)) as { durationMs: number | null }
    const seconds = Math.round(durationMs! / 1000)
    expect(told).toMatchObject({
      '@type': 'PodcastEpisode',
      name: 'The harmonium that coughed',
      description: hard,
      episodeNumber: 7,
      datePublished: house.clock.now().toISOString(),
      partOfSeries: { '@type': 'PodcastSeries', url: show.pageAddress },
      actor: [{ '@type': 'Person', name: hard, url: 'https://odile.example/' }],
      timeRequired: `PT${seconds}S`,
      associatedMedia: { '@type': 'AudioObject', contentUrl: released.enclosureAddress, encodingFormat: 'audio/mpeg' },
      hasPart: [
        { '@type': 'Clip', name: 'Ebb', startOffset: 0, endOffset: 20 },
        { '@type': 'Clip', name: 'Flood', startOffset: 20, url: `${released.pageAddress}#t=20` },
      ],
    })
    expect((told.hasPart as { endOffset: number }[])[1]!.endOffset).toBeCloseTo(durationMs! / 1000, 3)
  })
})

const speak = async (language: string): Promise<void> => {
  const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
  expect((await house.call('PATCH', `/shows/${show.id}`, { version, language })).statusCode).toBe(200)
}
/** Every public page of a show, one that is not there, and one of a comment that is refused. */
async function everyPage(): Promise<string[]> {
  const paths = [
    '',
    '/episodes',
    '/people',
    '/listen',
    '/never-there',
    '/search',
    '/search?q=wheeze',
    '/search?q=xyzzy',
  ]
  const own = new URL(released.pageAddress!).pathname
  const pages = await Promise.all(
    [...paths.map(path => `/bellows-and-reeds${path}`), own, `${own}/embed`].map(url => house.app.inject({ url })),
  )
  return [...pages, await refusedComment()].map(({ body }) => body)
}
const refusedComment = () =>
  house.app.inject({
    method: 'POST',
    url: `${new URL(released.pageAddress!).pathname}/comments`,
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    payload: 'name=&words=',
  })

describe.each(siteLanguages)('in %s', language => {
  it('every public page says in its show’s language what is its own, and nothing in another', async () => {
    await house.call('PUT', `/shows/${show.id}/comments`, { takesComments: true })
    await speak(language)
    const foreign = siteLanguages.filter(other => other !== language).flatMap(other => Object.values(messages[other]))
    const known = new Set(Object.values(messages[language]))
    // What is short may stand in any text; what has values in it is not found as it is.
    const telling = foreign.filter(message => message.length > 15 && !/[{<]/.test(message) && !known.has(message))
    expect(telling.length).toBeGreaterThan(400)
    for (const body of await everyPage()) {
      expect(body).toContain(`<html lang="${language}" dir="${['ar', 'he'].includes(language) ? 'rtl' : 'ltr'}"`)
      expect(telling.filter(message => body.includes(message))).toEqual([])
      expect(body).not.toMatch(/(?<!<html) lang="en" dir="ltr"|undefined|\[object|=&gt;/)
    }
    await speak('de')
  })
})

// In Swedish `ä` is a letter of its own behind `z`, in German an `a` (CLDR collation).
it.each([
  ['de', ['ärla', 'zinc']],
  ['sv', ['zinc', 'ärla']],
])('what can be chosen is sorted as it is in %s', async (language, names) => {
  const facts = { description: null, artworkId: null, goesBy: 'kind', value: 'full' }
  for (const [at, name] of names.entries())
    await house.call('POST', `/shows/${show.id}/strands`, { ...facts, slug: `${language}-${at}`, name })
  await speak(language)
  const { body } = await page('/bellows-and-reeds/listen')
  const places = names.map(name => body.indexOf(`>${name}</a>`))
  expect(places[0]).toBeGreaterThan(0)
  expect(places[1]).toBeGreaterThan(places[0]!)
})

// WCAG 2.2, 3.1.2: the language of parts.
it('where the pages have no words in the language of their show they are English, and marked as that', async () => {
  await speak('fi')
  const { body } = await page(released.pageAddress!)
  expect(body).toContain('<html lang="fi" dir="ltr"')
  expect(body).toContain('<h2 id="chapters" class="section" lang="en" dir="ltr">Chapters</h2>')
  expect(body).toContain('<span lang="en" dir="ltr">No. 7</span>')
  expect(body).toContain('<h1>The harmonium that coughed</h1>')
  const [episodes, refused] = await Promise.all([page('/bellows-and-reeds/episodes'), refusedComment()])
  expect(episodes.body).toContain('<h1 lang="en" dir="ltr">All episodes</h1>')
  expect(refused.body).toContain('<p class="lead" role="alert" lang="en" dir="ltr">Enter a name.')
  // What is a date, and not a word, is as the show's language has it (CLDR).
  expect(body).toContain(`>${house.clock.now().toLocaleDateString('fi', { dateStyle: 'long', timeZone: show.zone })}<`)
  await speak('de')
})

// RFC 9110 section 15.5.11: gone, and likely for good.
it('an episode that was taken out, page and all, is gone, and its page leads to the show', async () => {
  const { id, version, pageAddress } = await house.makeReleased(show.id, 'Only for a while')
  expect((await page(pageAddress!)).statusCode).toBe(200)
  await house.call('POST', `/episodes/${id}/retire`, { version, keepsPage: false })
  const { statusCode, body } = await page(pageAddress!)
  expect(statusCode).toBe(410)
  expect(body).toContain(`<a href="${show.pageAddress}">Bellows &amp; Reeds</a>`)
  expect(body).toContain('<meta name="robots" content="noindex">')
  expect((await page('/bellows-and-reeds/never-there')).statusCode).toBe(404)
  await house.call('PATCH', `/shows/${show.id}`, {
    version: ((await house.call('GET', `/shows/${show.id}`)).json() as Show).version,
    feedFacts: { isPrivate: true },
  })
  expect((await page(pageAddress!)).statusCode).toBe(404)
})

it('every kind of page is valid HTML', async () => {
  const judge = new HtmlValidate({
    extends: ['html-validate:standard', 'html-validate:a11y'],
    // ARIA 1.2, roles that support a name from the author (from memory): a list may have one.
    rules: { 'aria-label-misuse': ['error', { allowAnyNamable: true }], 'heading-level': 'error' },
  })
  const version = ((await house.call('GET', `/shows/${show.id}`)).json() as Show).version
  await house.call('PATCH', `/shows/${show.id}`, { version, feedFacts: { isPrivate: false } })
  await house.call('PUT', `/shows/${show.id}/comments`, { takesComments: true })
  const made = await house.call('POST', `/shows/${show.id}/pages`, { title: hard })
  const [{ id: pageId, version: pageVersion, address }] = made.json<OwnPageList>().pages as [OwnPage]
  const content = '<h3>Where it stands</h3><p>On the hill.</p>'
  await house.call('PUT', `/pages/${pageId}`, { version: pageVersion, title: hard, content })
  const { tried, version: themeVersion } = (await house.call('GET', `/shows/${show.id}/theme`)).json<ShowTheme>()
  const blocks = tried.blocks.map(({ kind }) => ({ kind, isOn: true }))
  await house.call('PUT', `/shows/${show.id}/theme`, { version: themeVersion, theme: { ...tried, blocks } })
  await house.call('POST', `/shows/${show.id}/theme/take-over`, { version: themeVersion + 1 })
  const pages = [
    '',
    '/episodes',
    '/episodes?tag=reeds',
    '/people',
    '/listen',
    '/search',
    '/search?q=reeds',
    '/search?q=%3Cnothing%3E',
    new URL(address).pathname.replace('/bellows-and-reeds', ''),
    '/embed',
    '/the-harmonium-that-coughed',
    '/the-harmonium-that-coughed/embed?scheme=dark&accent=ff0000',
    '/the-harmonium-that-coughed/comments',
    '/nothing-here',
    '/only-for-a-while',
  ]
  const statusOf: Readonly<Record<string, number>> = {
    '/nowhere': 404,
    '/bellows-and-reeds/nothing-here': 404,
    '/bellows-and-reeds/only-for-a-while': 410,
  }
  for (const path of ['/nowhere', ...pages.map(each => `/bellows-and-reeds${each}`)]) {
    const { body, headers, statusCode } = await house.app.inject({ url: path })
    expect(headers['content-type'], path).toContain('text/html')
    expect(statusCode, path).toBe(statusOf[path] ?? 200)
    const { results } = await judge.validateString(body)
    expect(
      results.flatMap(({ messages }) =>
        messages.map(({ ruleId, message, selector }) => [path, ruleId, message, selector]),
      ),
    ).toEqual([])
  }
})
