import { setTimeout as wait } from 'node:timers/promises'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { goTo } from './hands'
import { violations } from './judge'
import { noteShifts, settled, smallTargets } from './measure'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(() => house?.stop())

const nav = () => page.getByRole('navigation', { name: 'Show navigation' })
const heading = () => page.getByRole('heading', { level: 1 })

it('every place of a show is one press away from the desk, and every part of one is another', async () => {
  await page.getByRole('link', { name: 'A letter from a chapel' }).first().click()
  await page.locator('#title').waitFor()
  const desk = page.url()
  const words = await nav().getByRole('link').allInnerTexts()
  expect(words.map(each => each.trim().split(/\s/)[0])).toEqual([
    'Show',
    'Episodes',
    'Calendar',
    'Shelf',
    'Feed',
    'Site',
    'Numbers',
    'Settings',
  ])
  for (const place of words.map(each => each.trim().split(/\s/)[0]!)) {
    await goTo(page, desk)
    await page.locator('#title').waitFor()
    await nav().getByRole('link', { name: place }).click()
    await expect.poll(() => nav().locator('[aria-current="page"]').innerText()).toContain(place)
    await heading().waitFor()
    const parts = page.getByRole('navigation', { name: `Parts of ${place}` }).getByRole('link')
    for (const part of await parts.allInnerTexts()) {
      await parts.filter({ hasText: part }).click()
      await expect.poll(() => page.locator('nav .router-link-exact-active').innerText()).toBe(part)
      expect(await nav().locator('[aria-current="page"]').innerText()).toContain(place)
      await heading().waitFor()
    }
  }
})

it.each([
  [1280, 800],
  [820, 1180],
  [390, 844],
])('at %i by %i pixels the places are there, whole and large enough to hit', async (width, height) => {
  await page.setViewportSize({ width, height })
  for (const path of ['', '/calendar', '/feed/directories', '/site']) {
    await goTo(page, `/studio/bellows-and-reeds${path}`)
    await nav().getByRole('link').last().waitFor()
    const boxes = await Promise.all((await nav().getByRole('link').all()).map(link => link.boundingBox()))
    for (const box of boxes) {
      expect(box!.x).toBeGreaterThanOrEqual(0)
      expect(box!.x + box!.width).toBeLessThanOrEqual(width)
      expect(box!.y + box!.height).toBeLessThanOrEqual(height)
      // WCAG 2.2, 2.5.5 (AAA): 44 CSS pixels, where fingers work; beside each other where nine have the width of a phone 24 (2.5.8, AA).
      expect(box!.height).toBeGreaterThanOrEqual(44)
      expect(box!.width).toBeGreaterThanOrEqual(width < 400 ? 32 : 44)
    }
    // What a link says is not cut off, nor under that of another one.
    const cut = await nav()
      .getByRole('link')
      .evaluateAll(links => links.filter(link => link.scrollWidth > link.clientWidth).map(link => link.textContent))
    expect(cut).toEqual([])
    if (path === '/calendar') await page.locator('.letter').first().waitFor()
    const lines = await page
      .locator('.letter .time')
      .evaluateAll(times => times.map(time => time.getClientRects().length))
    expect(lines.filter(each => each > 1)).toEqual([])
  }
  await page.setViewportSize({ width: 1280, height: 800 })
})

it('on a phone what stands at the foot of the desk leaves four fifths of the window to the work', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  for (const title of ['The concertina in the lifeboat', 'A letter from a chapel', 'What the bellows remember']) {
    await page.goto(`${house.address}/studio/bellows-and-reeds/episodes`)
    const link = page.getByRole('link', { name: title }).first()
    await link.waitFor({ state: 'attached' })
    await page.goto(`${house.address}${await link.getAttribute('href')}`)
    await page.locator('#title').waitFor()
    const box = await page.getByRole('region', { name: 'Release', exact: true }).boundingBox()
    expect(box!.height).toBeLessThanOrEqual(844 / 5)
  }
  await page.setViewportSize({ width: 1280, height: 800 })
})

it('one key and some letters lead anywhere: to a place, an old episode, something to do; what was gone to last stands first', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds/feed`)
  const field = page.getByRole('combobox', { name: 'Where to' })
  const jump = async (letters: string): Promise<void> => {
    await heading().waitFor()
    await page.keyboard.press('ControlOrMeta+k')
    await field.fill(letters)
    await page.getByRole('option').first().waitFor()
  }
  await jump('calndar')
  await expect.poll(() => page.getByRole('option').first().innerText()).toContain('Calendar')
  await page.keyboard.press('Enter')
  await page.waitForURL('**/calendar')
  await jump('wax smell')
  await expect.poll(() => page.getByRole('option').first().innerText()).toContain('Wax, or the smell of a good morning')
  await page.getByRole('option').first().click()
  await page.locator('#title').waitFor()
  expect(await page.locator('#title').inputValue()).toBe('Wax, or the smell of a good morning')
  // From within a field, too; with nothing written, where one was last.
  await page.locator('#title').focus()
  await page.keyboard.press('ControlOrMeta+k')
  await page.getByRole('option').first().waitFor()
  const first = (await page.getByRole('option').allInnerTexts()).slice(0, 2)
  expect(first[0]).toContain('Wax, or the smell')
  expect(first[1]).toContain('Calendar')
  expect(await violations(page)).toEqual([])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.getByRole('dialog').waitFor({ state: 'detached' })
  expect(await page.locator('#title').inputValue()).toBe('Wax, or the smell of a good morning')
})

it('all keys are told by one, but not to whoever writes a question mark', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds/shelf`)
  await heading().waitFor()
  await page.keyboard.press('?')
  await page.getByRole('dialog', { name: 'Keys' }).getByText('Alt 1 … Alt 7').waitFor()
  expect(await violations(page)).toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('dialog').waitFor({ state: 'detached' })
})

it.each([
  ['/episodes/', '**/episodes/*/sound'],
  ['', '**/shows/at/*'],
])('where the server does not answer for %s, that is said, and another try brings it', async (path, asked) => {
  const id = path === '' ? '' : await desk(page)
  await page.route(asked, route => route.abort())
  await page.goto(`${house.address}/studio/bellows-and-reeds${path}${id}`)
  const again = page.getByRole('alert').getByRole('button', { name: 'Try again' })
  await again.waitFor()
  expect(await violations(page)).toEqual([])
  await page.unroute(asked)
  await again.click()
  await page.locator(path === '' ? '.line .strip' : '#title').waitFor()
})

it('what is the person’s own is one menu, by the keyboard, too', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds`)
  await page.getByRole('button', { name: 'You' }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('menuitem', { name: 'Dark' }).click()
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe('dark')
  await page.getByRole('button', { name: 'You' }).click()
  await page.getByRole('menuitem', { name: 'As the system' }).click()
  await page.getByRole('button', { name: 'You' }).click()
  await page.getByRole('menuitem', { name: 'Mail and calendar' }).click()
  await heading().filter({ hasText: 'Mail and calendar' }).waitFor()
  await page.getByRole('button', { name: 'You' }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await page.locator('#email').waitFor()
})

const desk = async (tab: Page): Promise<string> => {
  await tab.goto(`${house.address}/studio/bellows-and-reeds/episodes`)
  const link = tab.getByRole('link', { name: 'What the bellows remember' }).first()
  await link.waitFor({ state: 'attached' })
  return new URL((await link.getAttribute('href'))!, house.address).pathname.split('/').at(-1)!
}

it.each([
  { of: 'a mouse', width: 1280, height: 800, hasTouch: false, least: 24 },
  { of: 'fingers', width: 820, height: 1180, hasTouch: true, least: 44 },
])('on no page anything moves once it is there, and all is large enough for $of', async ({ least, ...given }) => {
  const context = await page
    .context()
    .browser()!
    .newContext({
      viewport: { width: given.width, height: given.height },
      hasTouch: given.hasTouch,
      isMobile: given.hasTouch,
    })
  const tab = await house.openWindow(context)
  const id = await desk(tab)
  await noteShifts(tab)
  const line = await context.newCDPSession(tab)
  await line.send('Network.enable')
  await line.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: given.hasTouch ? 20 : 40,
    downloadThroughput: 1e6,
    uploadThroughput: 1e6,
  })
  // On a first visit all comes late; later ones have most of it already.
  await line.send('Network.setCacheDisabled', { cacheDisabled: !given.hasTouch })
  const others = /\/shows(\?|$)/
  const parts = ['sound', 'words', 'people', 'chapters', 'transcript', 'soundbites', 'extras', 'numbers']
  for (const path of [
    ...['', '/episodes', '/calendar', '/calendar?look=agenda', '/shelf', '/you', '/habits', '/rhythm', '/facts'],
    ...['/numbers', '/numbers/compare', '/numbers/fetches'],
    ...['/feed', '/feed/facts', '/feed/directories', '/feed/strands', '/feed/private', '/feed/check'],
    ...['/site', '/site/share', '/site/pages', '/site/comments', '/site/host'],
    ...parts.map(part => `/episodes/${id}?part=${part}`),
    ...['history', 'preview'].map(look => `/episodes/${id}?look=${look}`),
  ]) {
    // That there are other shows comes late to a page that lets one choose them. While anything is held back, nothing is cached.
    const choosesShows = path.startsWith('/calendar')
    if (choosesShows) await tab.route(others, route => wait(500).then(() => route.continue()))
    await tab.goto(`${house.address}/studio/bellows-and-reeds${path}`)
    await settled(tab)
    const found = { path, moved: await tab.evaluate(() => window.measured.shifts) }
    expect({ ...found, small: await smallTargets(tab, least) }).toEqual({ path, moved: [], small: [] })
    if (choosesShows) await tab.unroute(others)
  }
  await context.close()
})
