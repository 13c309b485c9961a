import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(() => house?.stop())

const studio = (path: string): string => `${house.address}/studio/bellows-and-reeds${path}`
/** A figure as it stands on the screen. */
const numberIn = (words: string | null): number => Number(/[\d,]+/.exec(words ?? '')![0].replaceAll(',', ''))

it('the newest episode is told on the first page beside those before it, and on its desk with three figures and how far it was heard', async () => {
  await page.goto(studio(''))
  const newest = page.getByRole('region', { name: 'Newest episode' })
  await expect.poll(() => newest.innerText()).toMatch(/\d+ downloads after \d+ days\. Yours usually have \d+ to \d+\./)
  await newest.getByRole('link', { name: 'What the bellows remember' }).click()
  await page.getByRole('tab', { name: 'Numbers' }).click()
  const part = page.getByRole('tabpanel', { name: 'Numbers' })
  await part.getByText('On the first day').waitFor()
  const [day, week, all] = (await part.getByRole('definition').allInnerTexts()).map(numberIn)
  expect(day).toBeGreaterThan(0)
  expect(week).toBeGreaterThan(day!)
  expect(all).toBeGreaterThan(week!)
  const heard = part.getByRole('figure', { name: 'How far it was heard' })
  const sentence = /^(\d+) people played it on a page\. Half of them had left by 0:\d\d; \d+% heard the end\.$/
  await expect.poll(() => heard.getByRole('img').getAttribute('aria-label')).toMatch(sentence)
  const [, began] = sentence.exec((await heard.getByRole('img').getAttribute('aria-label'))!)!
  await heard.getByRole('button', { name: 'As a table' }).click()
  const listening = (await heard.getByRole('cell').allInnerTexts()).map(numberIn)
  expect([listening.length, Math.max(...listening)]).toEqual([100, Number(began)])
  expect(listening.at(-1)).toBeLessThan(Number(began))
})

it('a figure opens the fetches that it was made from, as many as it says, each with its lines', async () => {
  await page.goto(studio('/numbers'))
  const apps = page.getByRole('table').filter({ hasText: 'Harbour Radio' }).first()
  const row = apps.getByRole('row').filter({ hasText: 'Harbour Radio' })
  const figure = numberIn(await row.getByRole('cell').first().innerText())
  await row.getByRole('link', { name: 'Harbour Radio' }).click()
  await page.getByText(`${figure.toLocaleString('en-GB')} rows`).waitFor()
  const table = page.getByRole('table', { name: 'Fetches' })
  const more = page.getByRole('button', { name: 'Show more' })
  // One row is the head.
  for (let shown = 51; (await more.count()) > 0; shown = await table.getByRole('row').count()) {
    await more.click()
    await expect.poll(() => table.getByRole('row').count()).toBeGreaterThan(shown)
  }
  await expect.poll(() => table.getByRole('row').count()).toBe(figure + 1)
  await table.getByRole('row').nth(1).getByRole('button').click()
  await page
    .getByText(/^GET 200$/)
    .first()
    .waitFor()
  await page.goBack()
  await page.getByRole('link', { name: 'Robots and programs that nobody listens with' }).click()
  await table.getByText('Lakespider').first().waitFor()
})

it('every chart has its table, and can be kept as a picture', async () => {
  await page.goto(studio('/numbers'))
  const chart = page.getByRole('figure', { name: 'Downloads by day' })
  await expect
    .poll(() => chart.getByRole('img').getAttribute('aria-label'))
    .toMatch(/^\d+ downloads, .+; the most, \d+, from /)
  const total = numberIn(await chart.getByRole('img').getAttribute('aria-label'))
  const kept = page.waitForEvent('download')
  await chart.getByRole('button', { name: 'Save picture' }).click()
  expect((await kept).suggestedFilename()).toBe('Downloads by day.png')
  await chart.getByRole('button', { name: 'As a table' }).click()
  const figures = (await chart.getByRole('cell').allInnerTexts()).map(numberIn)
  expect(figures.reduce((sum, each) => sum + each, 0)).toBe(total)
})

it('episodes stand side by side at the same age', async () => {
  await page.goto(studio('/numbers'))
  await page.getByRole('link', { name: 'Side by side' }).click()
  const table = page.getByRole('region', { name: 'Downloads at the same age' }).getByRole('table')
  await table.getByRole('row', { name: /35 · Tuning by the ferry bell/ }).waitFor()
  expect(await table.getByRole('row').count()).toBe(5)
  const newest = table.getByRole('row', { name: /36 · What the bellows remember/ })
  expect(await newest.getByRole('cell').allInnerTexts()).toContain('Not yet')
})

it('what happened on a day is marked, and stands beside that day in the table', async () => {
  await page.goto(studio('/numbers?period=all'))
  await page.getByRole('button', { name: /Marks on days/ }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('alert').first().waitFor()
  await page.getByRole('textbox', { name: 'What happened' }).fill('A fair on the quay')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('button', { name: 'Remove “A fair on the quay”' }).waitFor()
  const chart = page.getByRole('figure', { name: 'Downloads by week' })
  await chart.getByRole('button', { name: 'As a table' }).click()
  expect(await chart.getByRole('row').last().innerText()).toContain('A fair on the quay')
})

it('what an app fetches is counted, and so is what is played on the page, as what it is', async () => {
  const feed = await (await fetch(`${house.address}/bellows-and-reeds/feed.xml`)).text()
  const sound = /<enclosure url="([^"]+)"/.exec(feed)![1]!
  const app = { headers: { 'user-agent': 'Gull/1.0 (iPhone; iOS 17)' } }
  await (await fetch(sound, app)).arrayBuffer()
  await (await fetch(sound, app)).arrayBuffer()
  const visitor = await page.context().newPage()
  await visitor.goto(`${house.address}/bellows-and-reeds/what-the-bellows-remember`)
  const fetched = visitor.waitForRequest(request => new URL(request.url()).pathname.startsWith('/media/'))
  await visitor.getByRole('button', { name: 'Play' }).first().click()
  expect(new URL((await fetched).url()).search).toBe('?from=page')
  const rows = async (query: string): Promise<string[]> => {
    await page.goto(studio(`/numbers/fetches?${query}`))
    await page.getByText(/\d rows?$/).waitFor()
    return page.getByRole('table', { name: 'Fetches' }).getByRole('row').allInnerTexts()
  }
  await expect.poll(() => rows('app=Gull')).toEqual([expect.anything(), expect.stringMatching(/Gull Phone.+Yes/s)])
})
