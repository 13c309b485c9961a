import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'

let house: DemoHouse
let one: Page
let other: Page
beforeAll(async () => {
  house = await openDemoHouse()
  one = await house.openWindow()
  other = await house.openWindow(undefined, await house.startAnother())
  for (const page of [one, other]) {
    await page.getByRole('link', { name: 'The concertina in the lifeboat' }).first().click()
    await page.locator('#title').waitFor()
  }
})
afterAll(() => house?.stop())

/** What a window asks of the API while something happens. */
async function askedBy(page: Page, act: () => Promise<unknown>): Promise<string[]> {
  const asked: string[] = []
  const note = (request: { method(): string; url(): string }): void => {
    if (request.url().includes('/api/')) asked.push(`${request.method()} ${new URL(request.url()).pathname}`)
  }
  page.on('request', note)
  await act()
  page.off('request', note)
  return asked
}

it('what one window writes by one process is on the desk and in the rail of another window by another process', async () => {
  await other.locator('#title').fill('The concertina that came back')
  await other
    .getByTestId('saving')
    .getByText(/^Saved /)
    .waitFor()
  const from = performance.now()
  await expect.poll(() => one.locator('#title').inputValue(), { interval: 25 }).toBe('The concertina that came back')
  await one.getByRole('link', { name: 'The concertina that came back' }).first().waitFor()
  const seconds = (performance.now() - from) / 1000
  console.log(`  seen by the other window after ${seconds.toFixed(2)} s`)
})

it('a window asks nothing while nothing happens', async () => {
  await expect.poll(() => askedBy(one, () => one.waitForTimeout(6_000))).toEqual([])
})

it('a new episode of another window is in the rail', async () => {
  await other.getByRole('button', { name: 'New episode' }).click()
  // The desk of before has no audio either; the new one is there when its title is empty.
  await expect.poll(() => other.locator('#title').inputValue()).toBe('')
  await other.locator('#title').fill('A bandoneon in two bags')
  await one.getByRole('link', { name: 'A bandoneon in two bags' }).first().waitFor()
})

it('a window whose stream is cut takes it up again, and shows what it missed', async () => {
  await house.killServer()
  await other.locator('#title').fill('A bandoneon in three bags')
  await other
    .getByTestId('saving')
    .getByText(/^Saved /)
    .waitFor()
  await house.startServer()
  await one.getByRole('link', { name: 'A bandoneon in three bags' }).first().waitFor()
  // Until the stream is up again it asks by the clock, and from then on nothing.
  await expect.poll(() => askedBy(one, () => one.waitForTimeout(4_000))).toEqual([])
})
