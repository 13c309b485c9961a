import { DateTime } from 'luxon'
import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode, EpisodePage } from '@contract/episodes'
import type { Shelf } from '@contract/shelf'
import type { ShowPage } from '@contract/shows'
import { freePort } from '../scripts/setup/ports.mjs'
import { startProgram } from '../scripts/setup/programs.mjs'
import { now } from './clock'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { typeOver } from './hands'

const count = 15
let house: DemoHouse
let outbox: ReturnType<typeof startProgram>
let outboxAddress: string
let page: Page
let showId: string

beforeAll(async () => {
  const [port, smtpPort] = [await freePort(), await freePort()]
  outboxAddress = `http://127.0.0.1:${port}`
  outbox = startProgram('dist/server/outbox.js', { OUTBOX_PORT: String(port), OUTBOX_SMTP_PORT: String(smtpPort) })
  await outbox.listening
  house = await openDemoHouse({
    SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    OUTBOX_URL: outboxAddress,
    MOVABLE_CLOCK: 'yes',
  })
  page = await house.openWindow()
  const { shows } = await ask<ShowPage>('GET', '/shows')
  showId = shows.find(({ slug }) => slug === 'slow-ferry')!.id
  const { files } = await ask<Shelf>('GET', `/shows/${showId}/files`)
  const fileId = files.find(({ type }) => type === 'audio/mpeg')!.id
  // Begun in the wrong order, so that the numbers bring them into the right one.
  for (let number = count; number > 0; number--) {
    const { id } = await ask<Episode>('POST', `/shows/${showId}/episodes`, {})
    const { version } = await ask<Episode>('PUT', `/episodes/${id}/source`, { fileId })
    const text = { title: `Last year’s crossing ${number}`, number: number + 100 }
    await ask('PATCH', `/episodes/${id}`, { version, text })
  }
})
afterAll(async () => {
  await house?.stop()
  await outbox?.stop()
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
const scheduled = async (): Promise<EpisodePage['episodes']> =>
  (await ask<EpisodePage>('GET', `/shows/${showId}/episodes?status=scheduled`)).episodes
const dates = async (): Promise<(string | null)[]> => (await scheduled()).map(({ releaseAt }) => releaseAt)
const letterOn = (number: number) =>
  page.getByRole('button', { name: new RegExp(`^scheduled, 06:00 \\d+ Last year’s crossing ${number}$`) })

/** Chooses all and looks at them every other day, from tomorrow on; answers tomorrow. */
async function layOut(): Promise<DateTime> {
  await page.getByRole('checkbox', { name: 'Choose all' }).check()
  await page.getByRole('combobox', { name: 'Interval' }).click()
  await page.getByRole('option', { name: 'every so many days' }).click()
  await typeOver(page.getByRole('spinbutton', { name: 'Every so many days' }), '2')
  const tomorrow = DateTime.fromJSDate(now(), { zone: 'Europe/Zurich' }).plus({ days: 1 })
  await page.getByRole('combobox', { name: 'Day', exact: true }).fill(tomorrow.toFormat('ccc d LLL yyyy'))
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Preview the changes' }).click()
  return tomorrow
}

it('fifteen drafts are laid out every other day by number, after a look at all the dates', async () => {
  await page.goto(`${house.address}/studio/slow-ferry/episodes?status=draft`)
  await page.getByText(`${count} episodes found`).waitFor()
  const tomorrow = await layOut()
  const outlook = page.getByRole('dialog', { name: 'What will change' })
  await outlook.getByText('Last year’s crossing 1', { exact: true }).waitFor()
  await expect
    .poll(() => outlook.getByRole('row').nth(1).textContent())
    .toContain(tomorrow.setLocale('en-GB').toFormat('d LLL yyyy'))
  expect(await scheduled()).toEqual([])
  // By hand the second one goes first, and back again.
  await outlook.getByRole('button', { name: 'Earlier: Last year’s crossing 2', exact: true }).click()
  await expect.poll(() => outlook.getByRole('row').nth(1).textContent()).toContain('crossing 2')
  await outlook.getByRole('button', { name: 'Later: Last year’s crossing 2', exact: true }).click()
  await expect.poll(() => outlook.getByRole('row').nth(1).textContent()).toContain('crossing 1')
  await outlook.getByRole('button', { name: `Change ${count} episodes` }).click()
  await page.getByText(`${count} changed.`).waitFor()
  const planned = await scheduled()
  expect(planned.map(({ number }) => number)).toEqual(Array.from({ length: count }, (_none, at) => 101 + at))
  expect(planned[0]!.releaseAt).toBe(tomorrow.set({ hour: 6, minute: 0, second: 0, millisecond: 0 }).toUTC().toISO())
})

it('one press takes it all back, also later; and it is laid out again', async () => {
  await page.reload()
  const before = await dates()
  await page.getByRole('button', { name: 'Earlier bulk changes' }).click()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await page.getByText(`${count} are as before.`).waitFor()
  expect(await scheduled()).toEqual([])
  await layOut()
  await page.getByRole('button', { name: `Change ${count} episodes` }).click()
  await page.getByText(`${count} changed.`).waitFor()
  expect(await dates()).toEqual(before)
})

it('on the calendar one is dragged to another day and put back, and moved by keys and put back', async () => {
  const before = await dates()
  await page.getByRole('link', { name: 'Calendar' }).click()
  const days = page.getByRole('gridcell')
  await letterOn(1).waitFor()
  const row = async (at: Locator): Promise<number> => Math.round((await at.boundingBox())!.y)
  const own = days.filter({ has: letterOn(1) }).first()
  if ((await row(own)) === (await row(days.last()))) {
    await page.getByRole('button', { name: 'Next', exact: true }).click()
    await letterOn(1).waitFor()
  }
  const box = (await letterOn(1).boundingBox())!
  const cell = (await own.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  // Where the row ends, to the row below it.
  for (let step = 1; step <= 10; step++) await page.mouse.move(x, y + (cell.height * step) / 10)
  await page.mouse.up()
  await page.getByText(/“Last year’s crossing 1” goes out .* instead of/).waitFor()
  const moved = (await scheduled()).find(({ number }) => number === 101)!
  expect(moved.releaseAt).toBe(DateTime.fromISO(before[0]!).plus({ days: 7 }).toUTC().toISO())
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(dates).toEqual(before)
  await expect.poll(async () => (await letterOn(1).boundingBox())?.y).toBe(box.y)
  await letterOn(1).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect
    .poll(async () => (await scheduled()).find(({ number }) => number === 101)!.releaseAt)
    .toBe(DateTime.fromISO(before[0]!).plus({ days: 1 }).toUTC().toISO())
  await page.getByText(/“Last year’s crossing 1” goes out .* instead of/).waitFor()
  // Whoever moves by keys stays with the letter.
  await expect.poll(() => page.evaluate(() => document.activeElement?.textContent)).toContain('crossing 1')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(dates).toEqual(before)
})

it('a month goes by, and all of them are in the feed in order, each with its date, and told of by mail', async () => {
  const planned = await scheduled()
  const clock = page.getByRole('group', { name: 'Clock of the demo' })
  await clock.getByRole('button', { name: 'To the next release' }).click()
  await page.getByText('In the demo it is').waitFor()
  for (let day = 0; day < 31; day++) {
    await clock.getByRole('button', { name: 'A day' }).click()
    await expect.poll(() => clock.getByRole('button', { name: 'A day' }).isEnabled()).toBe(true)
  }
  const items = async (): Promise<string[]> => {
    const feed = await (await fetch(`${house.address}/slow-ferry/feed.xml`)).text()
    return [...feed.matchAll(/<item>\s*<title>([^<]*)<\/title>[\s\S]*?<pubDate>([^<]*)<\/pubDate>/g)]
      .filter(([, title]) => title!.startsWith('Last year'))
      .map(([, title, date]) => `${title} ${new Date(date!).toISOString()}`)
  }
  await expect.poll(items).toHaveLength(count)
  expect(await items()).toEqual(planned.map(({ title, releaseAt }) => `${title} ${releaseAt}`).toReversed())
  const told = async (): Promise<string> => {
    const mails = (await (await fetch(`${outboxAddress}/mails`)).json()) as { text: string }[]
    return mails.map(({ text }) => text).join('\n')
  }
  for (const { title } of planned) await expect.poll(told).toContain(`${title}\n`)
})
