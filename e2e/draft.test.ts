import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { TranscriptSummary } from '@contract/transcripts'
import type { Cue } from '@core/transcript/cue'
import { makeSound } from '../core/audio/sound.fixture'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { dropFiles, openPart } from './hands'

let house: DemoHouse
let page: Page
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-draft-'))
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(async () => {
  await house?.stop()
  rmSync(folder, { recursive: true })
})

const id = (): string => new URL(page.url()).pathname.split('/').at(-1)!
const api = <T>(path: string): Promise<T> =>
  page.evaluate(async asked => (await (await fetch(`/api/v1${asked}`)).json()) as T, path)
const summary = async (): Promise<TranscriptSummary> =>
  (await api<{ transcripts: TranscriptSummary[] }>(`/episodes/${id()}/transcripts`)).transcripts[0]!
const cues = async (): Promise<Cue[]> => (await api<{ cues: Cue[] }>(`/transcripts/${(await summary()).id}`)).cues
const goesOut = async (): Promise<boolean> =>
  JSON.stringify(await api<object>(`/episodes/${id()}/preview`)).includes('podcast:transcript')
const chosen = (): Promise<string> =>
  page.evaluate(() => {
    const field = document.activeElement as HTMLTextAreaElement
    return field.value.slice(field.selectionStart, field.selectionEnd)
  })

it('a copyist that is away, dies in mid-work and comes back drafts what is said; its doubts are walked through by keys, and it goes out once it is read', async () => {
  await page.getByRole('link', { name: /^37 A letter from a chapel/ }).click()
  await openPart(page, 'Transcript')
  const draft = page.getByTestId('draft')
  await page.getByRole('button', { name: 'Create a draft' }).click()
  await draft.getByText('The copyist does not answer. It will be tried again automatically').waitFor()
  await house.startTranscription()
  await draft.getByText('It is transcribing in British English').waitFor()
  await house.stopTranscription()
  await draft.getByText('The copyist does not answer. It will be tried again automatically').waitFor()
  await house.startTranscription()
  const unread = page.getByText('A draft that nobody has read.')
  await unread.waitFor()
  await draft.waitFor({ state: 'detached' })
  expect(await goesOut()).toBe(false)

  await page.keyboard.press('Alt+n')
  await expect.poll(chosen).toBe('Bellows and Reads')
  await page.keyboard.type('Bellows and Reeds')
  await page.keyboard.press('Alt+n')
  await expect.poll(chosen).toBe('him')
  await page.keyboard.type('hymn')
  const doubts = page.getByRole('button', { name: /^Go through/ })
  await expect.poll(() => doubts.textContent()).toBe('Go through 4 doubts')
  await page.keyboard.press('Alt+n')
  await expect.poll(chosen).toBe('love')
  for (const next of ['Amabelle', 'quay', 'abyss']) {
    await page.keyboard.press('Alt+r')
    await expect.poll(chosen).toBe(next)
  }
  await page.keyboard.press('Alt+r')
  await doubts.waitFor({ state: 'detached' })
  await expect.poll(async () => (await cues()).filter(cue => cue.doubtful).length).toBe(2)
  await page.keyboard.press('ControlOrMeta+z')
  await page.getByText('“abyss” is right').click()
  await expect.poll(async () => (await cues())[6]!.text).toBe('We have put a hymn book on it.')

  await page.getByRole('button', { name: 'Mark as checked' }).click()
  await unread.waitFor({ state: 'detached' })
  expect(await goesOut()).toBe(true)
})

it('the edges of a cue are dragged and moved by keys, its neighbour goes along, and what was set so stays when the rest is laid anew', async () => {
  await page.getByLabel('Words of cue 6', { exact: true }).click()
  const times = async (): Promise<number[]> =>
    (await cues()).slice(4, 7).flatMap(({ fromMs, toMs }) => [fromMs!, toMs!])
  const before = await times()
  const end = page.getByRole('slider', { name: 'End of cue 6' })
  await end.focus()
  for (let press = 0; press < 6; press++) await page.keyboard.press('ArrowRight')
  // The pause behind it is half a second long: the next cue begins later.
  await expect.poll(times).toEqual([...before.slice(0, 3), before[3]! + 600, before[3]! + 600, before[5]])
  const begin = page.getByRole('slider', { name: 'Beginning of cue 6' })
  const { x, y } = (await begin.boundingBox())!
  await page.mouse.move(x + 20, y + 10)
  await page.mouse.down()
  await page.mouse.move(x + 32, y + 10, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => (await times())[2]).toBeGreaterThan(before[2]! + 300)
  const [, , fromMs, toMs] = await times()
  await page.getByRole('button', { name: 'Sync again' }).click()
  await expect.poll(async () => `${(await summary()).origin}, ${(await summary()).alignment}`).toBe('aligned, none')
  expect((await cues())[5]).toMatchObject({ fromMs, toMs, isPinned: true })
})

it('when the audio becomes another one, it is told that the times are of the one before; of a sound that it does not know the stand-in says honestly that it cannot listen to it', async () => {
  makeSound(join(folder, 'other.mp3'), 8, ['-b:a', '64k'])
  await dropFiles(page, [{ name: 'other.mp3', path: join(folder, 'other.mp3') }], 'takes the place of the audio')
  const note = page.getByText('The audio has changed')
  await note.waitFor()
  await page.getByRole('button', { name: 'They are right' }).click()
  await note.waitFor({ state: 'detached' })
  await page.getByRole('button', { name: 'Another file or language' }).click()
  await page.getByRole('button', { name: 'Create a draft' }).click()
  const draft = page.getByTestId('draft')
  await draft.getByText('The copyist says: this copyist is a stand-in').waitFor()
  await draft.getByRole('button', { name: 'Cancel' }).click()
  await draft.waitFor({ state: 'detached' })
  expect((await cues()).length).toBe(20)
})
