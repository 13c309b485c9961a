import fc from 'fast-check'
import { parseRssFeed } from 'feedsmith'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type House, openHouse } from '../../testing/house'

/** What apps know a show and its episodes by survives whatever is done to them. */

let house: House
let show: Show
const ids: string[] = []

beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('known-by')
  for (const title of ['The quay', 'The lock']) {
    const { id, version } = await house.makeReady(show.id, title)
    house.clock.moveBy(3_600_000)
    await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    ids.push(id)
  }
})
afterAll(() => house.close())

interface Known {
  guid: string | undefined
  items: (string | undefined)[][]
}
async function knownBy(): Promise<Known> {
  const slug = ((await house.call('GET', `/shows/${show.id}`)).json() as Show).slug
  const { podcast, items } = parseRssFeed((await house.app.inject({ url: `/${slug}/feed.xml` })).body)
  return { guid: podcast?.guid, items: items!.map(({ guid, pubDate }) => [guid?.value, String(pubDate)]) }
}

type Edit = () => Promise<{ statusCode: number; body: string }>
const ofShow =
  (facts: object): Edit =>
  async () => {
    const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
    return house.call('PATCH', `/shows/${show.id}`, { version, ...facts })
  }
const moved =
  (slug: string): Edit =>
  async () => {
    const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
    return house.call('POST', `/shows/${show.id}/address`, { version, slug })
  }
const written =
  (nth: number, text: object): Edit =>
  async () => {
    const { version } = await house.get(ids[nth]!)
    const saved = await house.call('PATCH', `/episodes/${ids[nth]}`, { version, text })
    if (saved.statusCode !== 200) return saved
    const { version: now, changedSinceRelease } = saved.json() as Episode
    return changedSinceRelease ? house.call('POST', `/episodes/${ids[nth]}/send-changes`, { version: now }) : saved
  }
/** Another sound, from another file. */
const sounding =
  (nth: number): Edit =>
  async () => {
    const before = (await house.get(ids[nth]!)).sound.source!.id
    const { files } = (await house.call('GET', `/shows/${show.id}/files`)).json() as { files: { id: string }[] }
    const fileId = files.find(({ id }) => id !== before)?.id ?? before
    const brought = await house.call('PUT', `/episodes/${ids[nth]}/source`, { fileId })
    if (brought.statusCode !== 200) return brought
    const { version, changedSinceRelease } = await house.get(ids[nth]!)
    return changedSinceRelease ? house.call('POST', `/episodes/${ids[nth]}/send-changes`, { version }) : brought
  }

const words = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }).map(text => `A ${text}`)
const number = fc.option(fc.integer({ min: 1, max: 999 }))
const edits: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .record(
      {
        title: words,
        number,
        season: number,
        kind: fc.constantFrom('full', 'trailer', 'bonus'),
        hook: words,
        notes: words.map(text => `<p>${text.replace(/[<&]/g, '')}</p>`),
        tags: fc.uniqueArray(fc.constantFrom('reeds', 'boats', 'fog')),
      },
      { requiredKeys: [] },
    )
    .chain(text => fc.nat(1).map(nth => written(nth, text))),
  fc
    .record(
      {
        name: words,
        description: words,
        language: fc.constantFrom('en', 'de', 'pt-br'),
        author: words,
        ownerEmail: fc.constantFrom('one@example.org', 'two@example.org'),
        explicit: fc.boolean(),
        type: fc.constantFrom('episodic', 'serial'),
        zone: fc.constantFrom('Europe/Zurich', 'Asia/Kathmandu', 'America/Santiago'),
        titlePattern: fc.constantFrom('{title}', '{number}: {title}', '{show} · {title}'),
      },
      { requiredKeys: [] },
    )
    .map(ofShow),
  fc
    .record(
      { isLocked: fc.boolean(), isBlocked: fc.boolean(), isComplete: fc.boolean(), copyright: fc.option(words) },
      { requiredKeys: [] },
    )
    .map(feedFacts => ofShow({ feedFacts })),
  fc.constantFrom('known-by', 'known-as', 'once-known').map(moved),
  fc.nat(1).map(sounding),
)

it('keeps its podcast:guid, and each episode its GUID and its date, whatever is edited, in whatever order', async () => {
  const other = await house.makeReady(show.id, 'Another sound', 'sf-4.m4a')
  const before = await knownBy()
  expect(before.guid).toMatch(/^[0-9a-f-]{36}$/)
  expect(before.items).toHaveLength(2)
  expect(other.sound.source!.id).not.toBe((await house.get(ids[0]!)).sound.source!.id)
  let done = 0
  await fc.assert(
    fc.asyncProperty(fc.array(edits, { minLength: 1, maxLength: 6 }), async some => {
      for (const edit of some) {
        const { statusCode, body } = await edit()
        expect(statusCode, body).toBe(200)
        house.clock.moveBy(1_000)
        done++
      }
      expect(await knownBy()).toEqual(before)
    }),
    { numRuns: 12 },
  )
  expect(done).toBeGreaterThan(11)
})
