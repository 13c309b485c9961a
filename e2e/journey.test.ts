import { join } from 'node:path'
import { type Browser, chromium, type Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDemoHouse, type DemoHouse } from './demoHouse'

let house: DemoHouse
let browser: Browser
let page: Page

beforeAll(async () => {
  house = await openDemoHouse()
  browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--autoplay-policy=no-user-gesture-required'],
  })
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
})
afterAll(async () => {
  await browser?.close()
  await house?.stop()
})

it('from a file to a feed: sign in, drop a file, write, release, and the stand-in listener lists and plays it', async () => {
  await page.goto(`${house.address}/studio/`)
  await page.fill('#email', 'demo@lakeletter.example')
  await page.fill('#password', 'lake-letter-demo')
  await page.click('button[type=submit]')
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  await page.setInputFiles('input[type=file]', join(import.meta.dirname, '../demo/sounds/br-37.mp3'))
  await page.getByText('MP3, 64 kbit/s, 44.1 kHz, mono').waitFor()
  expect(await page.inputValue('#title')).toBe('A letter from a chapel')

  await page.fill('#title', 'A letter, sent by test')
  await page.click('#notes')
  await page.keyboard.type('Half an hour on the telephone.')
  await page.getByTestId('saving').getByText(/^Saved /).waitFor()
  await page.reload()
  await page.getByText('Half an hour on the telephone.').waitFor()
  expect(await page.inputValue('#title')).toBe('A letter, sent by test')
  expect(await page.getByTestId('standing').innerText()).toContain('Draft.')

  await page.getByRole('button', { name: 'Release now' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Release now' }).click()
  await page.getByTestId('standing').getByText('Released.').waitFor()

  await page.goto(`${house.listenerAddress}/?feed=${encodeURIComponent(`${house.address}/bellows-and-reeds/feed.xml`)}`)
  const first = page.locator('li > button').first()
  await expect.poll(() => first.innerText()).toContain('A letter, sent by test')
  await first.click()
  await expect.poll(() => page.locator('audio').evaluate(audio => (audio as HTMLAudioElement).currentTime), { timeout: 15_000 }).toBeGreaterThan(1)
})
