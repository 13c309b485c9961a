import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { openPart } from './hands'

// WCAG 2.2 A and AA, as far as axe-core can tell.
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
  // Colours that fade into each other are neither those of the day nor of the night.
  await page.emulateMedia({ reducedMotion: 'reduce' })
})
afterAll(() => house?.stop())

/**
 * What sticks out at the right of a narrow window. WCAG 2.2, 1.4.10: no scrolling in two directions at 320 CSS pixels; tables
 * of data, which need their columns, may scroll by themselves.
 */
async function sticksOut(): Promise<string[]> {
  await page.setViewportSize({ width: 320, height: 800 })
  await page.waitForTimeout(200)
  const found = await page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .filter(element => element.getBoundingClientRect().right > window.innerWidth + 1)
      .filter(element => !element.closest('table')?.parentElement?.matches('.box'))
      .map(element => `sticks out: ${element.outerHTML.slice(0, 100)}`),
  )
  await page.setViewportSize({ width: 1280, height: 800 })
  return found
}

/** What is wrong by day: everything; by night, where only the colours are others: the colours. */
async function violations(): Promise<string[]> {
  await page.waitForTimeout(400)
  await page.evaluate(axe)
  const byDay = await judged({ type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
  await page.emulateMedia({ colorScheme: 'dark' })
  let byNight: string[] = []
  // On a slow machine some are still those of the day; what stays is wrong.
  for (let look = 0; look < 4; look++) {
    await page.waitForTimeout(100 + 600 * look)
    byNight = await judged({ type: 'rule', values: ['color-contrast', 'link-in-text-block'] })
    if (byNight.length === 0) break
  }
  await page.emulateMedia({ colorScheme: 'light' })
  return [...byDay, ...byNight.map(found => `by night: ${found}`), ...(await sticksOut())]
}

const judged = (runOnly: { type: 'tag' | 'rule'; values: string[] }): Promise<string[]> =>
  page.evaluate(async only => {
    const { axe: checker } = window as unknown as {
      axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
    }
    const { violations: found } = await checker.run({ runOnly: only })
    return found.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 140)}`))
  }, runOnly)

describe('by day and by night', () => {
  it('the show and its list', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByText('Next out').waitFor()
    expect(await violations()).toEqual([])
  })
  it.each(['The concertina in the lifeboat', 'A letter from a chapel', 'What the bellows remember'])(
    'the desk with %s',
    async title => {
      await page.goto(`${house.address}/studio/bellows-and-reeds`)
      await page.getByRole('link', { name: title }).first().click()
      await page.locator('#title').waitFor()
      expect(await violations()).toEqual([])
    },
  )
  it.each(['', '?look=agenda'])('the calendar %s', async look => {
    await page.goto(`${house.address}/studio/bellows-and-reeds/calendar${look}`)
    await page.getByRole('button', { name: /A letter from a chapel/ }).waitFor()
    expect(await violations()).toEqual([])
  })
  it('mail and calendar', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds/you`)
    await page.getByText('An episode went out').waitFor()
    expect(await violations()).toEqual([])
  })
  it.each(['Change its date', 'Take it out of the feed'])('%s', async name => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'What the bellows remember' }).first().click()
    await page.getByRole('button', { name }).click()
    await page.getByRole('button', { name: 'Leave it' }).waitFor()
    expect(await violations()).toEqual([])
  })
  it.each([
    ['', 'What became of it'],
    ['/facts', 'What else the feed says'],
    ['/strands', 'New strand'],
    ['/private', 'Who has one'],
    ['/directories', 'Others, followed by hand'],
    ['/check', 'Check a feed'],
  ])('the feed %s', async (path, words) => {
    if (path === '/private')
      await page.evaluate(async () => {
        const ask = async (how: string, where: string, what?: object) =>
          (await (
            await fetch(`/api/v1${where}`, {
              method: how,
              ...(what && { body: JSON.stringify(what), headers: { 'content-type': 'application/json' } }),
            })
          ).json()) as { id: string }
        const { id } = await ask('GET', '/shows/at/bellows-and-reeds')
        await ask('POST', `/shows/${id}/listeners`, { names: ['Odile', 'Benno'], strandId: null })
      })
    await page.goto(`${house.address}/studio/bellows-and-reeds/feed${path}`)
    await page.getByText(words, { exact: true }).waitFor()
    if (path === '/facts') await page.getByRole('button', { name: 'Name a season' }).click()
    if (path === '/strands') await page.getByRole('button', { name: 'New strand' }).click()
    expect(await violations()).toEqual([])
  })
  it('the shelf', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds/shelf`)
    await page.getByRole('row').nth(1).waitFor()
    expect(await violations()).toEqual([])
  })
  it('the desk with its recipe open', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'A letter from a chapel' }).first().click()
    await openPart(page, 'Sound')
    await page.getByRole('button', { name: 'The recipe' }).click()
    expect(await violations()).toEqual([])
  })
  it.each(['People and tags', 'Extras'])('the desk at %s', async part => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'A letter from a chapel' }).first().click()
    await openPart(page, part)
    await page.getByText(part === 'Extras' ? 'Web page of its own' : 'Apart by commas').waitFor()
    expect(await violations()).toEqual([])
  })
  it.each(['Chapters', 'Transcript'])('the desk at %s', async part => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'What the bellows remember' }).first().click()
    await openPart(page, part)
    await page
      .getByRole('list', { name: part === 'Chapters' ? 'Chapters' : 'Cues' })
      .getByRole('listitem')
      .nth(3)
      .waitFor()
    expect(await violations()).toEqual([])
  })
  it('the desk at Soundbites', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'Wax, or the smell of a good morning' }).first().click()
    await openPart(page, 'Soundbites')
    await page.getByLabel('Title of soundbite 1').focus()
    expect(await violations()).toEqual([])
  })
  it.each(['history', 'preview'])('the desk with its %s', async look => {
    await page.goto(`${house.address}/studio/bellows-and-reeds`)
    await page.getByRole('link', { name: 'A letter from a chapel' }).first().click()
    await page.locator('#title').waitFor()
    await page.goto(`${page.url()}?look=${look}`)
    await page.getByText(look === 'history' ? 'As it was begun' : 'A narrow list').waitFor()
    expect(await violations()).toEqual([])
  })
  it('all episodes, some of them chosen', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds/episodes`)
    await page.getByRole('checkbox', { name: 'Choose What the bellows remember' }).click()
    await page.getByText('1 chosen').waitFor()
    expect(await violations()).toEqual([])
  })
  it('what episodes begin with', async () => {
    await page.goto(`${house.address}/studio/bellows-and-reeds/rhythm`)
    await page.getByRole('region', { name: 'The next dates' }).waitFor()
    expect(await violations()).toEqual([])
    await page.goto(`${house.address}/studio/bellows-and-reeds/habits`)
    await page.getByText('Template for the notes').waitFor()
    expect(await violations()).toEqual([])
  })
  it('a new show', async () => {
    await page.goto(`${house.address}/studio/new-show`)
    await page.getByRole('button', { name: 'Make the show' }).click()
    await page.getByRole('alert').first().waitFor()
    expect(await violations()).toEqual([])
  })
  it.each(['/bellows-and-reeds', '/bellows-and-reeds/what-the-bellows-remember', '/nowhere'])(
    'the public page %s',
    async path => {
      await page.goto(house.address + path)
      expect(await violations()).toEqual([])
    },
  )
})

it('the release can be scheduled with the keyboard alone', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds`)
  await page.getByRole('link', { name: 'A letter from a chapel' }).first().focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Move the time' }).focus()
  await page.keyboard.press('Enter')
  await page.getByLabel('Time', { exact: true }).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('23h30')
  await page.keyboard.press('Enter')
  await page
    .getByTestId('standing')
    .getByText(/23:30 \(Europe\/Zurich\)/)
    .waitFor()
})

it('public pages can be read and heard without script', async () => {
  const plain = await page.context().browser()!.newPage({ javaScriptEnabled: false })
  await plain.goto(`${house.address}/bellows-and-reeds/what-the-bellows-remember`)
  expect(await plain.locator('h1').innerText()).toBe('What the bellows remember')
  expect(await plain.locator('audio').getAttribute('controls')).not.toBeNull()
  await plain.close()
})
