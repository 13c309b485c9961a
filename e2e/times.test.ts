import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Chapter, Soundbite } from '@core/episode/fields'
import { vttFiles } from '../core/transcript/vtt.fixture'
import { readVtt, vttText } from '../core/transcript/vtt'
import { wordsOf } from '../core/transcript/bytes'
import { type DemoHouse, demoSounds, openDemoHouse } from './demoHouse'
import { openPart, saved, typeOver } from './hands'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(() => house?.stop())

const id = (): string => new URL(page.url()).pathname.split('/').at(-1)!
const api = <T>(path: string): Promise<T> =>
  page.evaluate(async asked => (await (await fetch(`/api/v1${asked}`)).json()) as T, path)
const chapters = async (): Promise<Chapter[] | null> =>
  (await api<{ text: { chapters: Chapter[] | null } }>(`/episodes/${id()}`)).text.chapters
const open = async (title: string, part: string): Promise<void> => {
  await page.getByRole('link', { name: new RegExp(title) }).click()
  await page.getByRole('heading', { name: title }).or(page.getByLabel('Title')).first().waitFor()
  await openPart(page, part)
}

it('chapters come from the times in the notes, are marked while listening, moved, and undone', async () => {
  await open('Tuning by the ferry bell', 'Chapters')
  const list = page.getByRole('list', { name: 'Chapters' })
  await list.waitFor()
  await page.getByText('From the times in the notes').waitFor()
  await expect.poll(() => list.getByRole('listitem').count()).toBe(4)
  // A press on an empty place of the lane makes one, which wants a title.
  const lane = page.locator('.lane')
  const { width } = (await lane.boundingBox())!
  await lane.click({ position: { x: width * 0.7, y: 12 } })
  await page.keyboard.type('Patience')
  await expect
    .poll(async () => (await chapters())?.map(({ title }) => title))
    .toEqual(['Six o’clock', 'The bell across the water', 'A reed an evening', 'Patience', 'The little green light'])
  // Dragged by its flag, it goes along, and by keys to the tenth.
  const flag = page.getByRole('slider', { name: 'Chapter 4, Patience' })
  const box = (await flag.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 10)
  await page.mouse.down()
  await page.mouse.move(box.x - width * 0.05, box.y + 10, { steps: 5 })
  await page.mouse.up()
  const before = (await chapters())!.find(({ title }) => title === 'Patience')!.fromMs
  await flag.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => (await chapters())!.find(({ title }) => title === 'Patience')!.fromMs).not.toBe(before)
  await page.getByLabel('When Patience begins').fill('0:50.4')
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await chapters())!.find(({ title }) => title === 'Patience')!.fromMs).toBe(50_400)
  // The place that is heard, by a key from anywhere.
  await page.keyboard.press('Alt+c')
  await expect.poll(async () => (await chapters())!.length).toBe(5)
  // What is done without a pause is one stroke.
  await page.waitForTimeout(1_000)
  await page.getByRole('button', { name: 'Remove Patience' }).click()
  await expect.poll(async () => (await chapters())!.length).toBe(4)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(async () => (await chapters())!.length).toBe(5)
  await saved(page)
})

it('a list of times is pasted, also one that is written right to left', async () => {
  await page.getByRole('button', { name: 'Paste times' }).click()
  await page.getByLabel('Times and titles, a line for each').fill('\u200f٠٠:٠٥ مقدمة\nHarmonium [1:02.5]\nno time')
  await page.getByRole('button', { name: 'Add 2 chapters' }).click()
  await expect
    .poll(async () => (await chapters())!.map(({ fromMs, title }) => [fromMs, title]))
    .toContainEqual([5000, 'مقدمة'])
})

it('a transcript is corrected against the sound: split, joined, shifted, renamed, replaced, stretched, and read in again it is equal', async () => {
  await open('The harmonium that coughed', 'Transcript')
  const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23)
  const hour = Array.from(
    { length: 1200 },
    (_each, at) =>
      `${stamp(at * 3000)} --> ${stamp(at * 3000 + 2900)}\n<v ${at % 2 ? 'Beno' : 'Tove'}>Word ${at}, and what the bellows say.`,
  )
  // Estimated times of a file are looked at one by one; nobody has laid them.
  const both = Buffer.from('WEBVTT\n\n00:01.000 --> 00:05.000\n<v Tove>Is it?</v>\n<v Benno>It is.</v>\n')
  await page.getByRole('button', { name: 'Another file or language' }).click()
  await page
    .getByLabel('File of the transcript')
    .setInputFiles({ name: 'both.vtt', mimeType: 'text/vtt', buffer: both })
  await page.getByText('The machine was not sure of 2 places.').waitFor()
  await page.getByRole('button', { name: 'Another file or language' }).click()
  await page
    .getByLabel('File of the transcript')
    .setInputFiles({ name: 'hour.vtt', mimeType: 'text/vtt', buffer: Buffer.from(`WEBVTT\n\n${hour.join('\n\n')}\n`) })
  await page.getByText('1,200 cues').waitFor()
  const stored = async () => {
    await page.getByTestId('cues-saving').getByText('Saved').waitFor()
    const [{ id: transcriptId }] = (await api<{ transcripts: { id: string }[] }>(`/episodes/${id()}/transcripts`))
      .transcripts as [{ id: string }]
    return (
      await api<{ cues: { fromMs: number; toMs: number; speaker: string; text: string }[] }>(
        `/transcripts/${transcriptId}`,
      )
    ).cues
  }
  // Split where the cursor is.
  await page.getByLabel('Words of cue 1', { exact: true }).click()
  await page.keyboard.press('Home')
  for (let press = 0; press < 7; press++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await page.getByText('1,201 cues').waitFor()
  await page.keyboard.type('Well: ')
  await expect
    .poll(async () => (await stored()).slice(0, 2).map(({ text }) => text))
    .toEqual(['Word 0,', 'Well: and what the bellows say.'])
  // Joined again, and both undone.
  await page.keyboard.press('Home')
  await page.keyboard.press('Backspace')
  await page.getByText('1,200 cues').waitFor()
  await page.keyboard.press('ControlOrMeta+z')
  await page.getByText('1,201 cues').waitFor()
  // One name is written in another way, everywhere.
  await page.getByRole('button', { name: 'Who speaks' }).click()
  await page.getByLabel('Name of Beno').fill('Benno Quillhart')
  await page.keyboard.press('Enter')
  await expect
    .poll(async () => (await stored()).filter(({ speaker }) => speaker === 'Benno Quillhart').length)
    .toBe(600)
  // Replaced with a look at each.
  await page.getByRole('button', { name: 'Find', exact: true }).click()
  await page.getByLabel('Words to find').fill('BELLOWS SAY')
  await page.getByLabel('Replace with').fill('reeds say')
  await page.getByRole('button', { name: 'Replace this one' }).click()
  await page.getByText('1 of 1199').waitFor()
  await page.getByRole('button', { name: 'Replace all 1199' }).click()
  await page.getByText('Not found.').waitFor()
  // Moved, from the third one on, and stretched to another cut.
  await page.getByLabel('Words of cue 3', { exact: true }).click()
  await page.getByRole('button', { name: 'Move times' }).click()
  await page.getByLabel('When it should begin').fill('0:04')
  await page.getByRole('button', { name: 'Move it and all after' }).click()
  await expect.poll(async () => (await stored())[2]!.fromMs).toBe(4000)
  await page.getByLabel('When the last cue should begin').fill('30:00')
  await page.getByRole('button', { name: 'Adjust all cues in between' }).click()
  await expect.poll(async () => (await stored()).at(-1)!.fromMs).toBe(1_800_000)
  // Taken along, and read in again as another language: the same.
  const kept = await stored()
  const [{ id: transcriptId }] = (await api<{ transcripts: { id: string }[] }>(`/episodes/${id()}/transcripts`))
    .transcripts as [{ id: string }]
  // Lines of SubRip are shorter, and broken anew.
  const bare = (cues: typeof kept, inOneLine: boolean) =>
    cues.map(({ fromMs, toMs, speaker, text }) => [fromMs, toMs, speaker, inOneLine ? text.replace(/\n/g, ' ') : text])
  for (const [format, code] of [
    ['vtt', 'de'],
    ['srt', 'fr'],
    ['json', 'it'],
  ] as const) {
    const again = await page.evaluate(
      async ([from, to, language]) => {
        const file = await (await fetch(`/api/v1/transcripts/${from}/file.${to}`)).blob()
        const answer = await fetch(
          `/api/v1/episodes/${location.pathname.split('/').at(-1)}/transcripts?language=${language}`,
          { method: 'POST', body: file },
        )
        return ((await answer.json()) as { cues: unknown }).cues
      },
      [transcriptId, format, code] as const,
    )
    expect(bare(again as typeof kept, format === 'srt')).toEqual(bare(kept, format === 'srt'))
  }
})

it('a script that is pasted is laid over the speech by one press, and two windows correct it together', async () => {
  await open('A letter from a chapel', 'Transcript')
  const words = readFileSync(join(demoSounds, 'spoken/br-37.txt'), 'utf8').trim().split('\n').filter(Boolean)
  await page.getByLabel('Words of the transcript').fill(words.join('\n\n'))
  await page.getByRole('button', { name: 'Use this text' }).click()
  await page.getByRole('button', { name: 'Sync with the audio' }).click()
  await page.getByRole('button', { name: 'Sync again' }).waitFor()
  const begins = () =>
    page
      .getByLabel(/^When cue \d+ begins$/)
      .evaluateAll(fields => fields.map(field => (field as HTMLInputElement).value))
  const seconds = async () =>
    (await begins()).map(text => text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0))
  // The demo's sound has 2.4 s of silence, then music, before the first word.
  await expect.poll(async () => (await seconds())[0]).toBeGreaterThan(6)
  const laid = await seconds()
  expect(laid).toEqual(laid.toSorted((one, other) => one - other))

  const other = await house.openWindow()
  await other.goto(page.url())
  await other.getByLabel('Words of cue 2', { exact: true }).fill('Written in the other window.')
  await other.getByTestId('cues-saving').getByText('Saved').waitFor()
  await page.getByLabel('Words of cue 1', { exact: true }).fill('Written here.')
  for (const window of [page, other]) {
    await expect.poll(() => window.getByLabel('Words of cue 1', { exact: true }).inputValue()).toBe('Written here.')
    await expect
      .poll(() => window.getByLabel('Words of cue 2', { exact: true }).inputValue())
      .toBe('Written in the other window.')
  }
  await other.context().close()
})

it(`${vttFiles.length} WebVTT files are read as Chromium’s own parser reads them`, async () => {
  const blank = await page.context().newPage()
  await blank.goto(new URL('/healthz', page.url()).href)
  const theirs = await blank.evaluate(
    async files => {
      const read = (words: string): Promise<{ name: string; times: number[]; source: string }[]> =>
        new Promise(done => {
          const video = document.createElement('video')
          const track = document.createElement('track')
          track.track.mode = 'hidden'
          const end = (): void => {
            const cues = [...(track.track.cues ?? [])] as VTTCue[]
            done(
              cues.map(({ id: name, startTime, endTime, text }) => ({
                name,
                times: [startTime, endTime].map(time => Math.round(time * 1000)),
                source: text,
              })),
            )
          }
          track.onload = end
          track.onerror = () => done([])
          track.src = URL.createObjectURL(new Blob([words], { type: 'text/vtt' }))
          video.append(track)
          document.body.append(video)
        })
      const all = []
      for (const words of files) all.push(await read(words))
      return all
    },
    vttFiles.map(([, words]) => words),
  )
  const ours = vttFiles.map(([, words]) =>
    readVtt(wordsOf(new TextEncoder().encode(words)), true)
      .transcript.cues.map(cue => ({
        name: cue.kept?.name ?? '',
        times: [cue.fromMs!, cue.toMs!],
        source: vttText(cue),
      }))
      .toSorted((one, other) => one.times[0]! - other.times[0]!),
  )
  const differing = vttFiles.flatMap(([name], at) =>
    JSON.stringify(theirs[at]) === JSON.stringify(ours[at]) ? [] : [{ name, theirs: theirs[at], ours: ours[at] }],
  )
  expect(differing).toEqual([])
  await blank.close()
})

it('soundbites are drawn under the waveform, moved by keys, sent, and heard to their end on the page; each is a short MP3', async () => {
  await open('Wax, or the smell of a good morning', 'Soundbites')
  const list = page.getByRole('list', { name: 'Soundbites' })
  await expect.poll(() => list.getByRole('listitem').count()).toBe(2)
  const box = (await page.locator('.lane').boundingBox())!
  await page.mouse.move(box.x + box.width * 0.04, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.2, box.y + 12, { steps: 5 })
  await page.mouse.up()
  // Whoever has drawn one writes its title at once.
  await page.keyboard.type('The curtains')
  const drawn = async (): Promise<Soundbite | undefined> =>
    (await api<{ text: { soundbites: Soundbite[] } }>(`/episodes/${id()}`)).text.soundbites.find(
      ({ title }) => title === 'The curtains',
    )
  await expect.poll(async () => (await drawn())?.title).toBe('The curtains')
  const { durationMs } = (await api<{ source: { durationMs: number } }>(`/episodes/${id()}/sound`)).source
  const { fromMs, toMs } = (await drawn())!
  expect(Math.abs(fromMs / durationMs - 0.04)).toBeLessThan(0.02)
  expect(Math.abs(toMs / durationMs - 0.2)).toBeLessThan(0.02)
  await page.getByRole('slider', { name: 'End of “The curtains”' }).press('ArrowRight')
  await expect.poll(async () => (await drawn())!.toMs).toBe(toMs + 100)
  // What the end cannot go beyond, it does not: the last moment of the sound.
  await typeOver(page.getByLabel('When The curtains ends'), '9:00')
  await expect.poll(async () => (await drawn())!.toMs).toBe(durationMs)
  await typeOver(page.getByLabel('When The curtains ends'), '0:08')
  await expect.poll(async () => (await drawn())!.toMs).toBe(8_000)
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Download The curtains as MP3' }).click()
  expect((await download).suggestedFilename()).toBe('the-curtains.mp3')
  await saved(page)
  await page.getByRole('button', { name: 'Publish changes' }).click()
  await page.getByText('The feed is up to date with this page.').waitFor()

  const own = await page.context().newPage()
  await own.goto(`${house.address}/bellows-and-reeds/wax-or-the-smell-of-a-good-morning`)
  const pieces = own.locator('[data-soundbites] li')
  await expect.poll(() => pieces.count()).toBe(3)
  await pieces.first().locator('[data-at]').click()
  const audio = own.locator('audio')
  const at = (): Promise<number> => audio.evaluate((sound: HTMLAudioElement) => sound.currentTime)
  await expect.poll(at).toBeGreaterThan(fromMs / 1000 + 0.5)
  await expect.poll(() => audio.evaluate((sound: HTMLAudioElement) => sound.paused)).toBe(true)
  expect(Math.abs((await at()) - 8)).toBeLessThan(0.6)
  await own.close()
})
