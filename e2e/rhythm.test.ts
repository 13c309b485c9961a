import { DateTime } from 'luxon'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode, EpisodesNear } from '@contract/episodes'
import type { Show, ShowPage } from '@contract/shows'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { typeOver } from './hands'

let house: DemoHouse
let page: Page
let showId: string
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
  const { shows } = await api<ShowPage>('/shows')
  showId = shows.find(({ slug }) => slug === 'bellows-and-reeds')!.id
})
afterAll(() => house?.stop())

const api = <T>(path: string): Promise<T> =>
  page.evaluate(async asked => (await (await fetch(`/api/v1${asked}`)).json()) as T, path)
const ask = <T>(method: string, path: string, body: object): Promise<T> =>
  page.evaluate(
    async ([how, where, what]) =>
      (await (
        await fetch(`/api/v1${where}`, {
          method: how,
          body: JSON.stringify(what),
          headers: { 'content-type': 'application/json' },
        })
      ).json()) as T,
    [method, path, body] as const,
  )
const letter = async (): Promise<Episode> => {
  const { scheduled, draft } = await api<EpisodesNear>(`/shows/${showId}/episodes/near`)
  const { id } = [...scheduled.episodes, ...draft.episodes].find(({ title }) => title === 'A letter from a chapel')!
  return api(`/episodes/${id}`)
}
const waterline = () => page.getByRole('region', { name: 'Waterline' })
const slotNames = async (): Promise<string[]> => {
  await waterline()
    .getByRole('button', { name: /^Open slot/ })
    .first()
    .waitFor()
  return waterline()
    .getByRole('button', { name: /^Open slot/ })
    .evaluateAll(buttons => buttons.map(button => button.getAttribute('aria-label')!))
}

it('a rhythm is told in words with its next dates, one of which is left out', async () => {
  await page.getByRole('link', { name: /^Every other .* at 06:00$/ }).click()
  const dates = page.getByRole('region', { name: 'The next dates' })
  await dates.getByText(/^Every other \w+day at 06:00$/).waitFor()
  // For some weeks of March the clock there is set forward already, and not yet here.
  await expect.poll(() => dates.getByText(/0[01]:00 in New York/).count()).toBe(6)
  await typeOver(page.getByRole('spinbutton', { name: 'Every' }), '1')
  // One of them may be the day of the demo's rhythm, which follows from today.
  for (const name of ['Monday', 'Thursday']) {
    const day = page.getByRole('button', { name, exact: true })
    if ((await day.getAttribute('aria-pressed')) !== 'true') await day.click()
  }
  await page.getByLabel('Time in Europe/Zurich').fill('0:05')
  const words = dates.getByRole('status')
  await expect.poll(() => words.textContent()).toMatch(/Monday.* at 00:05$/)
  const first = (await dates.getByRole('button', { name: /^Skip/ }).first().getAttribute('aria-label'))!
  await dates.getByRole('button', { name: first }).click()
  await dates.getByRole('button', { name: first.replace('Skip', 'Don’t skip') }).waitFor()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByText('Saved.').waitFor()
  const { rhythm } = await api<Show>(`/shows/${showId}`)
  expect(rhythm).toMatchObject({ every: 1, time: '00:05' })
  expect(rhythm!.days).toEqual(expect.arrayContaining(['MO', 'TH']))
  expect(rhythm!.leftOut.length).toBe(1)
  // Back to the one that the demo has.
  await page.getByRole('button', { name: 'Remove rhythm' }).click()
  await page.getByText('The show has no rhythm now.').waitFor()
  await page.getByRole('button', { name: 'Saturday', exact: true }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByText('Saved.').waitFor()
})

it('a release is dragged along the waterline to an open slot and put back, moved by keys, and a draft put into an empty place', async () => {
  await page.getByRole('link', { name: 'Show', exact: true }).click()
  const own = waterline().getByRole('button', { name: /A letter from a chapel/ })
  await own.waitFor()
  const before = await letter()
  const slot = waterline().getByRole('button', { name: (await slotNames()).at(-1)! })
  const [from, to] = [(await own.boundingBox())!, (await slot.boundingBox())!]
  await page.mouse.move(from.x + 30, from.y + 20)
  await page.mouse.down()
  await page.mouse.move(to.x + 20, to.y + 5, { steps: 6 })
  await page.mouse.up()
  await page.getByText('“A letter from a chapel” goes out').waitFor()
  const moved = await letter()
  expect(moved.status).toBe('scheduled')
  expect(+new Date(moved.releaseAt!)).toBeGreaterThan(+new Date(before.releaseAt!))
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await letter()).releaseAt).toBe(before.releaseAt)

  // Let go outside of the strip it stays where it is.
  await own.waitFor()
  const place = (await own.boundingBox())!
  await page.mouse.move(place.x + 30, place.y + 20)
  await page.mouse.down()
  await page.mouse.move(place.x + 120, place.y + 400, { steps: 4 })
  await page.mouse.up()
  expect((await letter()).releaseAt).toBe(before.releaseAt)

  await own.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(async () => +new Date((await letter()).releaseAt!)).toBeGreaterThan(+new Date(before.releaseAt!))

  await own.click()
  await page.getByRole('button', { name: 'Back to draft' }).click()
  await page.getByText('Ready.').waitFor()
  await page.getByRole('link', { name: 'Show', exact: true }).click()
  const [open] = await slotNames()
  await waterline().getByRole('button', { name: open! }).click()
  await page.getByRole('button', { name: '37 A letter from a chapel' }).click()
  await page.getByText('“A letter from a chapel” goes out').waitFor()
  expect((await letter()).status).toBe('scheduled')
  await page.getByRole('button', { name: 'Back to draft' }).click()
  await expect.poll(async () => (await letter()).status).toBe('draft')
})

it('the next open slot is the first offer when a time is chosen, by the clock of another place where one wants that', async () => {
  await page.getByRole('link', { name: /^37 A letter from a chapel/ }).click()
  await page.getByRole('button', { name: 'Choose a time' }).click()
  const offers = page.getByRole('group', { name: 'Open slots' }).getByRole('button')
  await expect.poll(() => offers.count()).toBe(3)
  await expect.poll(() => offers.first().getAttribute('aria-pressed')).toBe('true')
  await offers.nth(1).click()
  await expect.poll(() => offers.nth(1).getAttribute('aria-pressed')).toBe('true')
  // A time that is past is told before, and goes out at once; not here.
  await page.getByLabel('Day', { exact: true }).fill('Sat 6 Sep 2025')
  await page.keyboard.press('Tab')
  await page.getByText('This is in the past: it will be released at once with that date.').waitFor()
  await page.getByRole('button', { name: 'Release with this past date' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Cancel' }).click()
  expect((await letter()).status).toBe('draft')
  await offers.nth(1).click()
  await page.getByLabel('Time', { exact: true }).fill('1:00')
  await page.getByLabel('Time zone').click()
  // Any zone is found by a search; those that matter here come first.
  await page.getByRole('searchbox').fill('auck')
  await expect.poll(() => page.getByRole('option').allTextContents()).toEqual(['Auckland'])
  await page.getByRole('searchbox').fill('')
  await page.getByRole('option', { name: 'New York' }).first().click()
  await page.getByText(/0[67]:00 UTC\+[12]/).waitFor()
  await page.getByRole('button', { name: 'Schedule', exact: true }).click()
  await expect.poll(async () => (await letter()).releaseZone).toBe('America/New_York')
})

it('a second episode at the same moment is told of, and set a minute later', async () => {
  const { id: takenId, releaseAt } = await letter()
  const { id } = await ask<Episode>('POST', `/shows/${showId}/episodes`, { title: 'A postcard' })
  const { source } = await api<{ source: { id: string } }>(`/episodes/${takenId}/sound`)
  await ask('PUT', `/episodes/${id}/source`, { fileId: source.id })
  await page.goto(`${house.address}/studio/bellows-and-reeds/episodes/${id}`)
  await page.getByRole('button', { name: 'Choose a time' }).click()
  await page.getByRole('group', { name: 'Open slots' }).getByRole('button').first().waitFor()
  const [day, time] = DateTime.fromISO(releaseAt!, { zone: 'Europe/Zurich' })
    .setLocale('en-GB')
    .toFormat('ccc d LLL yyyy|HH:mm')
    .split('|') as [string, string]
  await page.getByLabel('Day', { exact: true }).fill(day.replace('Sept', 'Sep'))
  await page.keyboard.press('Tab')
  await page.getByLabel('Time', { exact: true }).fill(time)
  await page.getByText('“A letter from a chapel” is released at the same time').waitFor()
  await page.getByRole('button', { name: 'A minute later' }).click()
  await page.getByRole('button', { name: 'Schedule', exact: true }).click()
  const later = new Date(+new Date(releaseAt!) + 60_000).toISOString()
  await expect.poll(async () => (await api<Episode>(`/episodes/${id}`)).releaseAt).toBe(later)
})

it.each([
  ['writer', 'You can write here.', 1],
  ['reader', 'You can see everything here', 0],
] as const)(
  'who is a %s in the show is told what that allows, and offered nothing else',
  async (role, words, begins) => {
    await house.change(`UPDATE memberships SET role = '${role}'`)
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByText(words).waitFor()
    expect(await page.getByRole('button', { name: 'New episode' }).count()).toBe(begins)
    await page.goto(`${house.address}/studio/bellows-and-reeds/episodes/${(await letter()).id}`)
    await page.locator('#title').waitFor()
    await page.getByText(words).waitFor()
    expect(
      await page.getByRole('button', { name: /Release now|Choose a time|Move the time|Back to draft/ }).count(),
    ).toBe(0)
  },
)
