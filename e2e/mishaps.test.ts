import { setTimeout as wait } from 'node:timers/promises'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeSound } from '../core/audio/sound.fixture'
import { now } from './clock'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { saved } from './hands'

let house: DemoHouse
beforeAll(async () => {
  house = await openDemoHouse({ MAX_UPLOAD_BYTES: '60000000' })
})
afterAll(() => house?.stop())

async function openDraft(page: Page): Promise<void> {
  await page
    .getByRole('link', { name: /The concertina/ })
    .first()
    .click()
  await page.locator('#title').waitFor()
}

it('the database is away for 10 s while someone writes: it says so, and everything is there afterwards', async () => {
  const page = await house.openWindow()
  await openDraft(page)
  await house.stopDatabase()
  await page.click('#notes')
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' Written while the database slept.')
  await page.getByText('Your text is kept in this window').waitFor()
  expect((await fetch(`${house.address}/readyz`)).status).toBe(503)
  expect((await fetch(`${house.address}/healthz`)).status).toBe(200)
  await wait(10_000)
  await page.keyboard.type(' And on.')
  await house.startDatabase()
  await saved(page)
  await page.reload()
  await page.getByText('Written while the database slept. And on.').waitFor()
})

it('the server dies before a text was sent and the window is reloaded: the text comes back', async () => {
  const page = await house.openWindow()
  await openDraft(page)
  await house.killServer()
  await page.fill('#title', 'The concertina in the lifeboat, again')
  await page.getByText('Your text is kept in this window').waitFor()
  await house.startServer()
  await page.reload()
  await expect.poll(() => page.inputValue('#title')).toBe('The concertina in the lifeboat, again')
  // Where the page before has sent it as soon as the server was back, this one has saved nothing, and tells no time.
  await page
    .getByTestId('saving')
    .getByText(/^Saved/)
    .waitFor()
})

it('two windows: different fields come together, the same field is a choice, and nothing is lost', async () => {
  const one = await house.openWindow()
  await openDraft(one)
  const two = await house.openWindow(one.context())
  await openDraft(two)
  await one.fill('#title', 'From window one')
  await saved(one)
  await two.locator('#number').press('ControlOrMeta+a')
  await two.keyboard.type('40')
  await saved(two)
  await expect.poll(() => two.inputValue('#title')).toBe('From window one')

  await house.killServer()
  await one.fill('#title', 'One again')
  await two.fill('#title', 'Two again')
  await house.startServer()
  const panels = [one, two].map(page => page.getByText(/in another window, changed this episode too/))
  await Promise.race(panels.map(panel => panel.waitFor()))
  const loser = (await panels[0]!.isVisible()) ? one : two
  const [mine, theirs] = loser === one ? ['One again', 'Two again'] : ['Two again', 'One again']
  await loser.getByText(theirs).first().waitFor()
  await loser.getByRole('button', { name: 'Keep my version' }).click()
  await saved(loser)
  await loser.reload()
  await expect.poll(() => loser.inputValue('#title')).toBe(mine)
})

it('an upload goes on after a reload and a dead server, where it stopped', async () => {
  const page = await house.openWindow()
  const client = await page.context().newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 5,
    downloadThroughput: -1,
    uploadThroughput: 1_500_000,
  })
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  const sound = makeSound('/tmp/lake-letter-long.mp3', 300, ['-b:a', '320k'])
  await page.setInputFiles('input[type=file]', { name: '41_long.mp3', mimeType: 'audio/mpeg', buffer: sound })
  await page.getByText(/[2-9]\.\d MB of 12\.0 MB .* left/).waitFor()
  await page.fill('#title', 'Written while it uploads')
  await saved(page)
  await house.killServer()
  await page.getByText('Connection lost').waitFor()
  await house.startServer()
  await page.getByText(/MB of 12\.0 MB .* left/).waitFor()
  const posts: string[] = []
  page.on('request', request => {
    if (request.method() === 'POST' && request.url().includes('/uploads')) posts.push(request.url())
  })
  await page.reload()
  await page.getByText('MP3, 320 kbit/s').waitFor({ state: 'attached' })
  expect(posts).toEqual([])
  await expect.poll(() => page.inputValue('#title')).toBe('Written while it uploads')
})

it('a file over the limit is refused before it is sent; a text named .mp3 after it was read', async () => {
  const page = await house.openWindow()
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  await page.locator('input[type=file]').evaluate(input => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([new Uint8Array(60_000_001)], 'huge.mp3'))
    ;(input as HTMLInputElement).files = transfer.files
    input.dispatchEvent(new Event('change'))
  })
  await page.getByText('huge.mp3 has 60.0 MB; at most 60.0 MB are taken.').waitFor()
  await page.setInputFiles('input[type=file]', {
    name: 'letter.mp3',
    mimeType: 'audio/mpeg',
    buffer: Buffer.from('Dear listeners,\n'.repeat(900)),
  })
  await page.getByText('This is a text file, not sound').waitFor()
})

it('a scheduled episode goes out by itself, also when the server was down at that moment', async () => {
  const page = await house.openWindow()
  await page
    .getByRole('link', { name: /A letter from a chapel/ })
    .first()
    .click()
  await page.getByTestId('status').getByText('Scheduled.').waitFor()
  const { id, version } = await page.evaluate(async () => {
    const episodeId = location.pathname.split('/').at(-1)!
    return (await fetch(`/api/v1/episodes/${episodeId}`)).json() as Promise<{ id: string; version: number }>
  })
  const local = new Date(+now() + 5_000).toISOString().slice(0, 23)
  await page.evaluate(
    async ([episodeId, startVersion, at]) =>
      fetch(`/api/v1/episodes/${episodeId}/release`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ version: startVersion, when: { kind: 'at', local: at, zone: 'UTC' } }),
      }),
    [id, version, local] as const,
  )
  await house.killServer()
  await wait(6_000)
  await house.startServer()
  const feed = async () => (await fetch(`${house.address}/bellows-and-reeds/feed.xml`)).text()
  await expect.poll(feed).toContain('A letter from a chapel')
  expect((await feed()).split('A letter from a chapel</title>')).toHaveLength(2)
  await page.getByTestId('status').getByText('Released.').waitFor()
})
