import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { CDPSession, Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { type DemoHouse, demoSounds, openDemoHouse } from './demoHouse'
import { dropFiles } from './hands'

let house: DemoHouse
let page: Page
let line: CDPSession
beforeAll(async () => {
  house = await openDemoHouse()
})
afterAll(() => house?.stop())
beforeEach(async () => {
  page = await house.openWindow()
  line = await page.context().newCDPSession(page)
})

/** How fast the line takes bytes, so that there is a while to look; -1 for as fast as it can. */
const takes = (bytesPerSecond: number) =>
  line.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 5,
    downloadThroughput: -1,
    uploadThroughput: bytesPerSecond,
  })

const names = ['41_quay.mp3', '42_lamp.mp3', '43_rope.mp3', '44_bell.mp3']

/** Drops four files on the show; a draft begins with each. */
async function dropFour(): Promise<void> {
  await dropFiles(
    page,
    names.map((name, n) => ({ name, path: join(demoSounds, `br-3${n + 1}.mp3`) })),
    'create one episode per file',
  )
  await entry('44_bell.mp3').waitFor()
}

const entry = (name: string) => page.getByRole('region', { name: 'Uploads' }).locator('li', { hasText: name })
const stateOf = (name: string) => entry(name).locator('.state').textContent()
const act = (name: string) => page.getByRole('button', { name, exact: true }).click()
const share = /^\d+ %$/

it('two files are sent at a time; a pause gives the place to the next, and going on begins where it stopped', async () => {
  await takes(60_000)
  await dropFour()
  await expect
    .poll(() => Promise.all(names.map(stateOf)))
    .toEqual([expect.stringMatching(share), expect.stringMatching(share), 'waiting', 'waiting'])
  await expect.poll(() => stateOf('41_quay.mp3')).toMatch(/^[2-9]\d %$/)
  await act('Pause 43_rope.mp3')
  await act('Pause 41_quay.mp3')
  // The one that was paused while it waited is left out.
  await expect
    .poll(() => Promise.all(names.map(stateOf)))
    .toEqual(['paused', expect.stringMatching(share), 'paused', expect.stringMatching(share)])
  const sent: number[] = []
  page.on('request', request => {
    if (request.method() === 'PATCH' && request.url().includes('/uploads/'))
      sent.push(Number(request.headers()['upload-offset']))
  })
  await act('Resume with 41_quay.mp3')
  await act('Resume with 43_rope.mp3')
  await takes(-1)
  await page.getByText('4 of 4 files uploaded').waitFor()
  expect(Math.max(...sent)).toBeGreaterThan(0)
  await expect.poll(() => stateOf('44_bell.mp3')).toBe('is here')
})

it('one that is given up is forgotten, here and on the server; the others go on over a reload', async () => {
  await takes(60_000)
  await dropFour()
  // The server has answered, and bytes are on their way.
  await expect.poll(() => stateOf('41_quay.mp3')).toMatch(/^[1-9]\d? %$/)
  const gone = page.waitForResponse(response => response.request().method() === 'DELETE')
  await act('Cancel 41_quay.mp3')
  expect((await gone).status()).toBe(204)
  await expect.poll(() => entry('41_quay.mp3').count()).toBe(0)
  // Both are begun on the server.
  for (const name of ['42_lamp.mp3', '43_rope.mp3']) await expect.poll(() => stateOf(name)).toMatch(/^[1-9]\d? %$/)
  const begun: string[] = []
  page.on('request', request => {
    if (request.method() === 'POST' && request.url().endsWith('/uploads')) begun.push(request.url())
  })
  await page.reload()
  await expect
    .poll(() => Promise.all(names.slice(1).map(stateOf)))
    .toEqual([expect.stringMatching(share), expect.stringMatching(share), 'waiting'])
  await takes(-1)
  await page.getByText('3 of 3 files uploaded').waitFor()
  // Only the one that had waited began anew.
  expect(begun).toHaveLength(1)
})

it('one that is given up before the server has answered is forgotten there as soon as it has', async () => {
  let answer = (): void => undefined
  const answered = new Promise<void>(resolve => {
    answer = resolve
  })
  await page.route('**/api/v1/uploads', async route => {
    await answered
    await route.continue()
  })
  const asked = page.waitForRequest(request => request.method() === 'POST' && request.url().endsWith('/uploads'))
  await dropFiles(page, [{ name: '45_buoy.mp3', path: join(demoSounds, 'br-31.mp3') }], 'create one episode per file')
  // Where there is one, its desk opens, and it is told of there.
  const desk = page.getByRole('region', { name: 'Audio' })
  await desk.getByText('45_buoy.mp3').waitFor()
  await asked
  await desk.getByRole('button', { name: 'Cancel upload' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  const gone = page.waitForResponse(response => response.request().method() === 'DELETE')
  answer()
  expect((await gone).status()).toBe(204)
})

it('fifteen that are dropped are in line at once, and a reload right after loses none: each has its draft and its audio', async () => {
  const drafts = (): Promise<number> =>
    page.evaluate(async () => {
      const ask = async (path: string) => (await (await fetch(`/api/v1${path}`)).json()) as never
      const { id } = (await ask('/shows/at/bellows-and-reeds')) as { id: string }
      const { episodes } = (await ask(`/shows/${id}/episodes?status=draft&limit=50`)) as {
        episodes: { hasAudio: boolean }[]
      }
      return episodes.filter(({ hasAudio }) => hasAudio).length
    })
  const before = await drafts()
  await takes(200_000)
  // The server takes its time to begin a draft.
  await page.context().route('**/api/v1/shows/*/episodes', async route => {
    await new Promise(resolve => setTimeout(resolve, 700))
    await route.continue()
  })
  const dropped = Array.from({ length: 15 }, (_, at) => `${at + 60}_crossing.mp3`)
  await dropFiles(
    page,
    dropped.map((name, at) => ({ name, path: join(demoSounds, `br-3${(at % 4) + 1}.mp3`) })),
    'create one episode per file',
  )
  await page.getByText(/^0 of 15 files uploaded/).waitFor()
  await page.waitForTimeout(1_000)
  await page.reload()
  await page.getByText(/^\d+ of 15 files uploaded/).waitFor()
  await takes(-1)
  await expect.poll(drafts).toBe(before + 15)
  await page.context().unroute('**/api/v1/shows/*/episodes')
})

it('one that is refused says why and can be tried again; an empty one is refused before it is sent', async () => {
  const uploads: string[] = []
  page.on('request', request => {
    if (request.method() === 'POST' && request.url().endsWith('/uploads')) uploads.push(request.url())
  })
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-files-'))
  const [letter, nothing] = [join(folder, 'letter.mp3'), join(folder, 'nothing.mp3')]
  await writeFile(letter, 'Dear listeners,\n'.repeat(900))
  await writeFile(nothing, '')
  await dropFiles(
    page,
    [
      { name: 'letter.mp3', path: letter },
      { name: 'nothing.mp3', path: nothing },
    ],
    'create one episode per file',
  )
  await expect.poll(() => stateOf('nothing.mp3')).toBe('The file is empty')
  await expect.poll(() => stateOf('letter.mp3')).toBe('This is a text file, not sound')
  expect(uploads).toHaveLength(1)
  await act('Try letter.mp3 again')
  await expect.poll(() => uploads.length).toBe(2)
  await expect.poll(() => stateOf('letter.mp3')).toBe('This is a text file, not sound')
  await rm(folder, { recursive: true })
})
