import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, demoSounds, openDemoHouse } from './demoHouse'
import { dropFiles, openPart } from './hands'

let house: DemoHouse
let page: Page

beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(() => house?.stop())

it('from a file to a feed: sign in, drop a file, write, release, and the stand-in listener lists and plays it', async () => {
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  await page.setInputFiles('input[type=file]', join(demoSounds, 'br-37.mp3'))
  await openPart(page, 'Sound')
  await page.getByText('MP3, 64 kbit/s, 44.1 kHz, mono').waitFor()
  await expect.poll(() => page.inputValue('#title')).toBe('A letter from a chapel')

  await page.fill('#title', 'A letter, sent by test')
  await openPart(page, 'Words')
  await page.click('#notes')
  await page.keyboard.type('Half an hour on the telephone.')
  await page
    .getByTestId('saving')
    .getByText(/^Saved /)
    .waitFor()
  await page.reload()
  await page.getByText('Half an hour on the telephone.', { exact: true }).waitFor()
  await expect.poll(() => page.inputValue('#title')).toBe('A letter, sent by test')
  await expect.poll(() => page.getByTestId('status').innerText()).toContain('Draft.')

  await page.getByRole('button', { name: 'Release now' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Release now' }).click()
  await page.getByTestId('status').getByText('Released.').waitFor()

  await page.goto(`${house.listenerAddress}/?feed=${encodeURIComponent(`${house.address}/bellows-and-reeds/feed.xml`)}`)
  const first = page.locator('li > button').first()
  await expect.poll(() => first.innerText()).toContain('A letter, sent by test')
  await first.click()
  await expect
    .poll(() => page.locator('audio').evaluate(audio => (audio as HTMLAudioElement).currentTime))
    .toBeGreaterThan(1)
  await page.getByLabel('Place').fill('60')
  await expect
    .poll(() => page.locator('audio').evaluate(audio => (audio as HTMLAudioElement).currentTime))
    .toBeGreaterThan(60)
})

it('a file dropped on the window begins a new episode with it', async () => {
  const window = await house.openWindow()
  await dropFiles(
    window,
    [{ name: '39_the-borrowed-bellows.mp3', path: join(demoSounds, 'sf-5.mp3') }],
    'create one episode per file',
  )
  await window.waitForURL(/episodes/)
  await window.getByText('39_the-borrowed-bellows.mp3').first().waitFor()
  await expect.poll(() => window.inputValue('#title')).toBe('The last boat, with the lamps lit')
})

it('what is written after a release is saved, and goes out when it is sent', async () => {
  const window = await house.openWindow()
  await window
    .getByRole('link', { name: /Tuning by the ferry bell/ })
    .first()
    .click()
  await window.fill('#title', 'Tuning by the evening bell')
  await window.getByText('Listeners still see the previous version').waitFor()
  const feed = async () => (await fetch(`${house.address}/bellows-and-reeds/feed.xml`)).text()
  await window
    .getByTestId('saving')
    .getByText(/^Saved /)
    .waitFor()
  expect(await feed()).not.toContain('evening bell')
  await window.getByRole('button', { name: 'Publish changes' }).click()
  await window.getByText('The feed is up to date with this page').waitFor()
  expect(await feed()).toContain('Tuning by the evening bell')
})

it('a show is made on one screen, a picture that is not square is cut out, and the feed answers', async () => {
  const { default: sharp } = await import('sharp')
  const wide = await sharp({ create: { width: 2000, height: 1500, channels: 3, background: '#b24a26' } })
    .jpeg()
    .toBuffer()
  const window = await house.openWindow()
  // Once all has come, nothing moves under the press.
  await window.getByText('Next out').waitFor()
  await window.getByRole('link', { name: 'Add another show' }).click()
  await window.getByLabel('Name').fill('Kettle & Key')
  await window.getByLabel('Description').fill('Short visits to people who tune by ear.')
  await window.getByLabel('Author').fill('Tove Aldermoor')
  await window.setInputFiles('input[type=file]', { name: 'wide.jpg', mimeType: 'image/jpeg', buffer: wide })
  await window.getByText('The picture is 2000 × 1500 px').waitFor()
  await window.getByRole('button', { name: 'Crop' }).click()
  await window.getByRole('img', { name: 'The artwork now' }).waitFor()
  await window.getByRole('button', { name: 'Create show' }).click()
  await window.getByText('Bring the first episode').waitFor()
  await window.getByRole('link', { name: 'Numbers' }).click()
  for (const part of ['Side by side', 'Downloads']) {
    await window.getByRole('link', { name: part }).click()
    await window.getByText('There is nothing to show before an episode is released.').waitFor()
  }
  const feed = await fetch(`${house.address}/kettle-and-key/feed.xml`)
  expect([feed.status, await feed.text()]).toEqual([200, expect.stringContaining('<title>Kettle &amp; Key</title>')])
})
