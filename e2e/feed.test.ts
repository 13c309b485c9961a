import { DateTime } from 'luxon'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { DirectoryList } from '@contract/directories'
import type { Episode } from '@contract/episodes'
import type { ListenerList } from '@contract/listeners'
import type { Shelf } from '@contract/shelf'
import type { Show, ShowPage } from '@contract/shows'
import type { ClockReading } from '@contract/clockOffset'
import { freePort } from '../scripts/setup/ports.mjs'
import { startProgram } from '../scripts/setup/programs.mjs'
import { now } from './clock'
import { type DemoHouse, openDemoHouse } from './demoHouse'

const hourMs = 3600_000
let house: DemoHouse
let page: Page
let showId: string
let outboxAddress: string
const programs: ReturnType<typeof startProgram>[] = []

beforeAll(async () => {
  const [outboxPort, smtpPort, directoriesPort] = [await freePort(), await freePort(), await freePort()]
  outboxAddress = `http://127.0.0.1:${outboxPort}`
  const SMTP_URL = `smtp://127.0.0.1:${smtpPort}`
  const start = async (name: string, environment: Record<string, string>): Promise<void> => {
    programs.push(startProgram(`dist/server/${name}.js`, environment))
    await programs.at(-1)!.listening
  }
  await start('outbox', { OUTBOX_PORT: String(outboxPort), OUTBOX_SMTP_PORT: String(smtpPort) })
  house = await openDemoHouse({
    SMTP_URL,
    OUTBOX_URL: outboxAddress,
    DIRECTORIES_URL: `http://127.0.0.1:${directoriesPort}`,
    MOVABLE_CLOCK: 'yes',
  })
  await start('directories', {
    DIRECTORIES_PORT: String(directoriesPort),
    SMTP_URL,
    CLOCK_URL: `${house.address}/api/v1/clock`,
    DIRECTORIES_TICK_MS: '300',
  })
  page = await house.openWindow()
  const { shows } = await ask<ShowPage>('GET', '/shows')
  showId = shows.find(({ slug }) => slug === 'slow-ferry')!.id
})
afterAll(async () => {
  await house?.stop()
  for (const program of programs) await program.stop()
})

const ask = <T>(method: string, path: string, body?: object): Promise<T> =>
  page.evaluate(
    async ([how, where, what]) =>
      (await (
        await fetch(`/api/v1${where}`, {
          method: how,
          ...(what && { body: JSON.stringify(what), headers: { 'content-type': 'application/json' } }),
        })
      ).json()) as T,
    [method, path, body] as const,
  )
const go = (path: string): Promise<unknown> => page.goto(`${house.address}/studio/slow-ferry/feed${path}`)
async function moveClockTo(moment: string): Promise<void> {
  const { now: from } = await ask<ClockReading>('GET', '/clock')
  await ask('POST', '/clock', { to: 'later', byMs: Date.parse(moment) - Date.parse(from) })
}
/** Of the next holidays: whoever hands something in the day before them. */
const holidayYear = DateTime.fromJSDate(now()).plus({ days: 9 }).year
const card = (name: string) => page.getByRole('region', { name })

async function releaseAnother(title: string, number: number): Promise<void> {
  const { files } = await ask<Shelf>('GET', `/shows/${showId}/files`)
  const fileId = files.find(({ type }) => type === 'audio/mpeg')!.id
  const { id } = await ask<Episode>('POST', `/shows/${showId}/episodes`, {})
  const { version } = await ask<Episode>('PUT', `/episodes/${id}/source`, { fileId })
  const named = await ask<Episode>('PATCH', `/episodes/${id}`, {
    version,
    text: { title, number, notes: '<p>A crossing.</p>' },
  })
  await ask('POST', `/episodes/${id}/release`, { version: named.version, when: { kind: 'now' } })
}

it('a maker sees without XML whether the feed is right, and is led to what is not', async () => {
  await go('')
  await page.getByText(/The feed passes all \d+ checks/).waitFor()
  await page.getByRole('link', { name: 'Settings' }).click()
  await page.getByRole('link', { name: 'More in the feed' }).click()
  await page.getByRole('button', { name: 'Add one' }).first().click()
  await page.getByRole('textbox', { name: 'Words', exact: true }).first().fill('Buy the crew a coffee')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByText('A web address, such as').waitFor()
  await page.getByRole('textbox', { name: 'Address', exact: true }).first().fill('https://slowferry.example/coffee')
  await page.getByRole('button', { name: 'Save' }).click()
  const changes = page.getByRole('dialog', { name: 'What this changes for listeners' })
  await changes.getByText('Show: ways to give added.').waitFor()
  await changes.getByRole('button', { name: 'Save' }).click()
  await page.getByText('Saved.', { exact: true }).waitFor()
  await page.getByRole('link', { name: 'Back to the feed' }).click()
  await page.getByText('Show: ways to give added.').waitFor()
  const feed = await (await fetch(`${house.address}/slow-ferry/feed.xml`)).text()
  expect(feed).toContain('<podcast:funding url="https://slowferry.example/coffee">Buy the crew a coffee<')
})

it('what was found is mended by a press, which says first what that changes', async () => {
  const { version } = await ask<Show>('GET', `/shows/${showId}`)
  await ask('PATCH', `/shows/${showId}`, { version, feedFacts: { isBlocked: true } })
  const found = page.locator('[data-finding=blocked-show]')
  await found.getByRole('button', { name: 'Let directories list it' }).click()
  const changes = page.getByRole('dialog', { name: 'What this changes for listeners' })
  await changes.getByText('Show: the wish not to be listed removed.').waitFor()
  await changes.getByRole('button', { name: 'Save' }).click()
  await page.getByText(/The feed passes all \d+ checks/).waitFor()
  expect(await (await fetch(`${house.address}/slow-ferry/feed.xml`)).text()).not.toContain('itunes:block')
})

it('another window shows what became of the feed while it looks, and who has fetched it', async () => {
  await page.getByText('Show: ways to give added.').waitFor()
  await fetch(`${house.address}/slow-ferry/feed.xml`, { headers: { 'user-agent': 'Tide Reader/3.0' } })
  await page.waitForTimeout(1_500)
  await releaseAnother('The early boat', 6)
  await page.getByText('New: episode 6.').waitFor()
  await page
    .getByRole('row', { name: /Tide Reader/ })
    .getByText('Not yet')
    .waitFor()
})

it('any feed can be checked by its address, or pasted; what is wrong is said beside the rule', async () => {
  await go('/check')
  await page.getByRole('textbox', { name: 'Address of the feed' }).fill(`${house.address}/slow-ferry/feed.xml`)
  await page.getByRole('button', { name: 'Check it' }).click()
  await page.getByText(/addresses in it were checked/).waitFor()
  await page.getByText(/Nothing to fix/).waitFor()
  await page.getByRole('button', { name: 'Paste it instead' }).click()
  await page
    .getByRole('textbox', { name: 'The feed itself' })
    .fill('<rss version="2.0"><channel><title>Tides</title><item><title>One</title></item></channel></rss>')
  await page.getByRole('button', { name: 'Check it' }).click()
  await page.getByText('An episode has no audio.').waitFor()
  await page.getByRole('button', { name: 'Give its address instead' }).click()
  await page.getByRole('textbox', { name: 'Address of the feed' }).fill('http://192.168.0.1/feed.xml')
  await page.getByRole('button', { name: 'Check it' }).click()
  await page
    .getByRole('alert')
    .getByText(/private network/)
    .waitFor()
})

it('a show is handed to directories: read, confirmed by a code, in review over a holiday, listed; the next episode comes by itself 6 to 12 hours later', async () => {
  await moveClockTo(`${holidayYear}-12-23T12:00:00Z`)
  await go('/directories')
  for (const name of ['Harbour List', 'Old Pier']) await card(name).getByRole('button', { name: 'Submit' }).click()
  for (const name of ['Harbour List', 'Old Pier']) {
    await card(name).getByText('Confirm that it is yours.').waitFor()
    const mails = (await (await fetch(`${outboxAddress}/mails`)).json()) as { subject: string; text: string }[]
    const code = /code: (\d{6})/.exec(mails.find(({ subject }) => subject.startsWith(name))!.text)![1]!
    await card(name).getByLabel('Code from the mail').fill('1')
    await card(name).getByRole('button', { name: 'Confirm' }).click()
    await card(name).getByText('This is not the code').waitFor()
    await card(name).getByLabel('Code from the mail').fill(code)
    await card(name).getByRole('button', { name: 'Confirm' }).click()
  }
  await card('Harbour List').getByText('In review').waitFor()
  await card('Old Pier').getByText('It has all 3 episodes.').waitFor()
  const again = await ask<{ code: string }>('POST', `/shows/${showId}/directories/harbour-list`, {})
  expect(again.code).toBe('already-handed-in')

  await moveClockTo(`${holidayYear}-12-25T12:00:00Z`)
  await card('Harbour List').getByText('Nobody reviews today').waitFor()
  await moveClockTo(`${holidayYear + 1}-01-12T12:00:00Z`)
  await card('Harbour List').getByText('Listed').waitFor()
  await expect
    .poll(async () =>
      ((await (await fetch(`${outboxAddress}/mails`)).json()) as { subject: string }[]).map(({ subject }) => subject),
    )
    .toContain('Slow Ferry is in Harbour List')

  // When it looked at last is known, and that it does so every 6 to 12 hours.
  const pier = async () =>
    (await ask<DirectoryList>('GET', `/shows/${showId}/directories`)).directories.find(({ id }) => id === 'old-pier')!
      .listing!
  await expect
    .poll(async () => Date.parse((await pier()).fetchedAt!))
    .toBeGreaterThan(Date.parse(`${holidayYear + 1}-01-12`))
  const { fetchedAt } = await pier()
  await releaseAnother('The night boat', 7)
  await moveClockTo(new Date(Date.parse(fetchedAt!) + 5.8 * hourMs).toISOString())
  await card('Old Pier').getByText('It has 3 episodes, and not yet').waitFor()
  await moveClockTo(new Date(Date.parse(fetchedAt!) + 12.1 * hourMs).toISOString())
  await card('Old Pier').getByText('It has all 4 episodes.').waitFor()
  const shown = await (await fetch((await pier()).listingAddress!)).text()
  expect(shown).toContain('The night boat')
})

it('a directory of one’s own is kept, and the public page links to all of them', async () => {
  await page.getByRole('textbox', { name: 'Directory' }).fill('Pontoon')
  await page.getByRole('textbox', { name: 'Where it lists the show' }).fill('pontoon')
  await page.getByRole('button', { name: 'Add' }).click()
  await page.getByText('A web address, such as').waitFor()
  await page.getByRole('textbox', { name: 'Where it lists the show' }).fill('https://pontoon.example/slow-ferry')
  await page.getByRole('button', { name: 'Add' }).click()
  await page.getByRole('link', { name: 'Pontoon', exact: true }).waitFor()
  const shown = await (await fetch(`${house.address}/slow-ferry`)).text()
  for (const name of ['Harbour List', 'Old Pier', 'Pontoon']) expect(shown).toContain(`>${name}</a>`)
})

it('a strand becomes private: two people get addresses, one is withdrawn, and everybody else has no trace of it', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds/feed/private`)
  await page.getByText('Nothing. The show is public.').waitFor()
  await page.getByRole('link', { name: 'Make a strand private' }).click()
  await page.getByRole('button', { name: 'New strand' }).click()
  await page.getByLabel('Name').fill('Bellows for friends')
  await page.getByLabel('The tag').fill('wax')
  await page.getByRole('checkbox', { name: /^Private:/ }).check()
  await page.getByRole('button', { name: 'Create strand' }).click()
  await page.getByRole('link', { name: 'those who have an address of their own' }).click()
  await page.getByLabel('Who').fill('Odile\nBenno')
  await page.getByRole('button', { name: 'Create 2 addresses' }).click()
  const { id } = await ask<{ id: string }>('GET', '/shows/at/bellows-and-reeds')
  const addresses = async (): Promise<string[]> =>
    (await ask<ListenerList>('GET', `/shows/${id}/listeners`)).listeners.map(({ address }) => address)
  await expect.poll(addresses).toHaveLength(2)
  const [benno = '', odile = ''] = await addresses()
  const feed = async (address: string): Promise<[number, boolean]> => {
    const answer = await fetch(address)
    return [answer.status, (await answer.text()).includes('Wax, or the smell of a good morning')]
  }
  expect(await feed(benno)).toEqual([200, true])
  expect(await feed(`${house.address}/bellows-and-reeds/feed.xml`)).toEqual([200, false])
  expect(await feed(`${house.address}/bellows-and-reeds`)).toEqual([200, false])
  await page.getByRole('button', { name: 'Withdraw from Benno' }).click()
  await page.getByRole('button', { name: 'Reactivate for Benno' }).waitFor()
  expect((await feed(benno))[0]).toBe(404)
  expect(await feed(odile)).toEqual([200, true])
  await page.getByRole('button', { name: 'Renew for Odile' }).click()
  await page.getByRole('button', { name: 'Create another' }).click()
  await expect.poll(async () => (await addresses())[1]).not.toBe(odile)
  expect((await feed(odile))[0]).toBe(404)
  // The episode says on its desk where it is.
  await page.getByRole('link', { name: 'Wax, or the smell of a good morning' }).first().click()
  await page.getByRole('link', { name: 'Only in private feeds' }).waitFor()
})

it('a show moves to another address: the old one leads there, in the studio too, and the feed is well', async () => {
  await go('/facts')
  await page.getByLabel('Web address of the show').fill('Slow Boat')
  await page.getByRole('button', { name: 'Change the address' }).click()
  await page.getByText('Small letters a to z', { exact: false }).waitFor()
  await page.getByLabel('Web address of the show').fill('slow-boat')
  await page.getByRole('button', { name: 'Change the address' }).click()
  await page.getByRole('button', { name: 'Move it there' }).click()
  await page.waitForURL(/\/studio\/slow-boat\/feed$/)
  await page.getByText(/^Nothing to fix\. The feed passes all \d+ checks\.$/).waitFor()
  const old = await fetch(`${house.address}/slow-ferry/feed.xml`, { redirect: 'manual' })
  expect([old.status, old.headers.get('location')]).toEqual([301, `${house.address}/slow-boat/feed.xml`])
  await go('')
  await page.getByText(`${house.address}/slow-boat/feed.xml`).waitFor()
})
