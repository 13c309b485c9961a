import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode } from '../contract/episodes'
import type { Sound } from '../contract/sound'
import { framesOfMix, type MixedFile } from '../server/media/sound/mixed'
import { makeSound } from '../core/audio/sound.fixture'
import { type DemoHouse, demoSounds, launchBrowser, openDemoHouse } from './demoHouse'
import { dropFiles, goTo, openPart, saved, typeOver } from './hands'
import { violations } from './judge'

/** Encoding takes its time on a machine that has other work. */
const untilEncoded = { timeout: 240_000 }

let house: DemoHouse
let host: Awaited<ReturnType<typeof openHost>>
let page: Page
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-sounds-'))

/** The first seconds of a demo sound as a file of its own, so that no two are the same. */
function cut(
  name: string,
  seconds: number,
  coding: string[] = ['-c', 'copy', '-map', '0:a', '-map_metadata', '-1'],
  ending = 'mp3',
): string {
  const path = join(folder, `${seconds}.${ending}`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', join(demoSounds, name), '-t', String(seconds), ...coding, path])
  return path
}

/** A host somewhere else: a plain web server with one file. */
async function openHost(): Promise<{ address: string; stop(): void }> {
  const bytes = readFileSync(join(demoSounds, 'br-33.mp3'))
  const server = createServer((request, response) => {
    const [, from = '0', to = String(bytes.length - 1)] = /^bytes=(\d+)-(\d*)$/.exec(request.headers.range ?? '') ?? []
    const part = bytes.subarray(Number(from), Math.min(Number(to || bytes.length), bytes.length - 1) + 1)
    response.writeHead(request.headers.range ? 206 : 200, {
      'content-type': 'audio/mpeg',
      'content-length': part.length,
      ...(request.headers.range && {
        'content-range': `bytes ${from}-${Number(from) + part.length - 1}/${bytes.length}`,
      }),
    })
    response.end(request.method === 'HEAD' ? undefined : part)
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: () => {
      server.closeAllConnections()
      server.close()
    },
  }
}

beforeAll(async () => {
  host = await openHost()
  house = await openDemoHouse({ FETCH_ALLOW: new URL(host.address).host })
  page = await house.openWindow()
})
afterAll(async () => {
  await house?.stop()
  host?.stop()
  rmSync(folder, { recursive: true })
})

it('five files of a backlog become five drafts, in the order of the numbers in their names', async () => {
  const files = [12, 3, 10, 1, 2].map((number, index) => ({
    name: `Take ${number} the reed box.mp3`,
    path: cut('br-3' + (index + 1) + '.mp3', 20 + number),
  }))
  await dropFiles(page, files, 'create one episode per file')
  await page.getByText('5 of 5 files uploaded').waitFor()
  const names = await page.getByLabel('Uploads').getByRole('link').allInnerTexts()
  expect(names).toEqual([1, 2, 3, 10, 12].map(number => `Take ${number} the reed box.mp3`))
  await page.getByRole('button', { name: 'Hide' }).click()
  await expect.poll(() => page.getByLabel('Uploads').count()).toBe(0)
})

it('a file that is too quiet is finished by one press, heard against its source, and goes out finished', async () => {
  await page
    .getByRole('link', { name: /A letter from a chapel/ })
    .first()
    .click()
  await openPart(page, 'Sound')
  const quiet = page.locator('[data-finding=quieter]')
  await quiet
    .getByText(
      /\d+\.\d LU quieter than your episodes usually are. Raising it by \d+\.\d dB would put the loudest moment at .* dBTP/,
    )
    .waitFor()
  await page
    .locator('[data-finding=head-silence]')
    .getByText(/begins with 2\.\d s of silence/)
    .waitFor()
  await quiet.getByRole('button', { name: 'Finish the audio' }).click()
  await page.getByText('Finished. This file will be published.').waitFor(untilEncoded)
  await expect
    .poll(async () => (await page.getByRole('table').first().locator('tbody tr').allInnerTexts())[1])
    .toMatch(/Finished\s+−(18\.[89]|19\.[0-2]) LUFS/)
  await expect.poll(() => page.locator('[data-finding]').count()).toBe(0)

  const choice = page.getByRole('group', { name: 'What is heard, both equally loud' })
  await page.getByRole('button', { name: 'Play' }).click()
  await expect.poll(() => page.getByTestId('place').innerText()).toMatch(/^0:0[2-9]/)
  await choice.getByRole('button', { name: 'Source' }).click()
  await expect.poll(() => choice.getByRole('button', { name: 'Source' }).getAttribute('aria-pressed')).toBe('true')
  // The source begins 2 s earlier, so the same place has a later time there.
  await expect.poll(() => page.getByTestId('place').innerText()).toMatch(/^0:0[4-9]|^0:1/)
  await page.getByRole('button', { name: 'Pause' }).click()

  await page.getByRole('button', { name: 'Release now' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Release now' }).click()
  await page.getByTestId('status').getByText('Released.').waitFor()
  const feed = await (await fetch(`${house.address}/bellows-and-reeds/feed.xml`)).text()
  const address = /<title>A letter from a chapel<\/title>[\s\S]*?<enclosure url="([^"]+)"/.exec(feed)![1]!
  execFileSync('ffprobe', ['-v', 'error', address])
})

it('the recipe is set with the keyboard, kept over a reload, and can be the show’s', async () => {
  await page
    .getByRole('link', { name: /Take 10|reed box/ })
    .first()
    .click()
  await openPart(page, 'Sound')
  await page.getByRole('button', { name: 'Show the recipe' }).click()
  await page.getByLabel('Where the sound begins').focus()
  for (let n = 0; n < 3; n++) await page.keyboard.press('PageUp')
  await page.getByText(/0:03 to/).waitFor()
  await page.getByLabel(/Even out soft and loud speech/).focus()
  for (let n = 0; n < 10; n++) await page.keyboard.press('ArrowRight')
  await page.getByText('over −21 dB, 2.5 to 1').waitFor()
  await page.waitForResponse(answer => answer.url().endsWith('/recipe') && answer.ok())
  await page.reload()
  await page.getByText('Not finished yet. It will be released once it is.').waitFor()
  await page.getByRole('button', { name: 'Show the recipe' }).click()
  await page.getByText('over −21 dB, 2.5 to 1').waitFor()
  await page.getByRole('button', { name: 'Save as the show’s default' }).click()
  await page.getByText('Saved as the show’s default').waitFor()
})

it('a released episode’s audio is replaced: its old address still answers, and the shelf knows both files', async () => {
  await page
    .getByRole('link', { name: /Tuning by the ferry bell/ })
    .first()
    .click()
  await page.getByText('Identifiers').click()
  const address = page.locator('.copy-field', { hasText: 'Address of the audio' }).locator('code')
  const [guid, before] = [
    await page.locator('.copy-field', { hasText: 'GUID' }).locator('code').innerText(),
    await address.innerText(),
  ]
  await page.setInputFiles('input[type=file]', cut('br-35.mp3', 40))
  await openPart(page, 'Sound')
  await page.getByText('40.mp3').first().waitFor()
  await page.getByText('The feed is up to date with this page').waitFor({ state: 'hidden' })
  // What is measured meanwhile makes it another sound, so that the press is refused and asked for again.
  await expect
    .poll(async () => {
      await page
        .getByRole('button', { name: 'Publish changes' })
        .click({ timeout: 1000 })
        .catch(() => undefined)
      return page.getByText('The feed is up to date with this page').isVisible()
    })
    .toBe(true)
  await page.getByText('Identifiers').click()
  await expect.poll(() => address.innerText()).not.toBe(before)
  await expect.poll(() => page.locator('.copy-field', { hasText: 'GUID' }).locator('code').innerText()).toBe(guid)
  expect((await fetch(before, { method: 'HEAD' })).status).toBe(200)

  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  await page.getByRole('row', { name: /br-35\.mp3.*went out with/ }).waitFor()
  const row = page.getByRole('row', { name: /^40\.mp3.*goes out with/ })
  await row.waitFor()
  await expect.poll(() => row.innerText()).toMatch(/goes out with \S/)
})

it('a file that lives elsewhere is named by its address, and refused in plain words where no app could reach it', async () => {
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Use audio hosted elsewhere').click()
  await page.fill('#address', 'http://192.168.0.7/take.mp3')
  await page.getByRole('button', { name: 'Check this address' }).click()
  await page.getByText('192.168.0.7 lies in a private network').waitFor()
  await page.fill('#address', `${host.address}/39-the-borrowed-organ.mp3`)
  await page.getByRole('button', { name: 'Check this address' }).click()
  await openPart(page, 'Sound')
  await page.getByText('Hosted elsewhere:').waitFor()
  await expect.poll(() => page.inputValue('#title')).toBe('The borrowed organ')
  await page.getByRole('button', { name: 'Play' }).click()
  await expect.poll(() => page.getByTestId('place').innerText()).toMatch(/^0:0[1-9]/)
})

it('a WAV says that it cannot go out as it is, and one press encodes it', async () => {
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  await page.setInputFiles('input[type=file]', cut('br-33.mp3', 15, [], 'wav'))
  await page.locator('[data-finding=not-deliverable]').getByText('WAV cannot be published as is.').waitFor()
  await expect.poll(() => page.getByRole('button', { name: 'Release now' }).isDisabled()).toBe(true)
  await page.locator('[data-finding=not-deliverable]').getByRole('button', { name: 'Finish the audio' }).click()
  await page.getByText('Finished. This file will be published.').waitFor(untilEncoded)
  await expect.poll(() => page.getByRole('button', { name: 'Release now' }).isDisabled()).toBe(false)
})

it('finishing survives a server that dies in the midst of it', async () => {
  makeSound(join(folder, 'long.flac'), 240, ['-ac', '2'])
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
  await page.setInputFiles('input[type=file]', join(folder, 'long.flac'))
  await page.locator('[data-finding=not-deliverable]').getByRole('button', { name: 'Finish the audio' }).waitFor()
  await page.locator('[data-finding=quieter], [data-finding=louder]').first().waitFor()
  await page.locator('[data-finding=not-deliverable]').getByRole('button', { name: 'Finish the audio' }).click()
  await page.getByText(/Finishing … [1-9]\d? %/).waitFor()
  await house.killServer()
  await house.startServer()
  await page.reload()
  // All of it is done once more, and other journeys run beside it.
  await page.getByText('Finished. This file will be published.').waitFor({ timeout: 480_000 })
}, 720_000)

/** Types a number over another, which keeps its unit behind it. */
async function typeNumber(field: Locator, digits: string, shown: string): Promise<void> {
  await field.focus()
  await field.press('Control+a')
  await field.pressSequentially(digits)
  await field.press('Tab')
  await expect.poll(() => field.inputValue()).toBe(shown)
}

interface HeardWindow {
  heard: { atMs: number; frames: number[] }[]
}
/** From here on a page keeps the first seconds of what its audio threads give to the loudspeaker, in blocks, with their times. */
async function listenIn(): Promise<void> {
  await page.addInitScript(() => {
    const heard: HeardWindow['heard'] = []
    Object.assign(window, { heard })
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      if (to === this.context.destination) {
        const ear = (this.context as AudioContext).createScriptProcessor(16_384, 2, 2)
        ear.onaudioprocess = ({ inputBuffer }) => {
          const [left, right] = [inputBuffer.getChannelData(0), inputBuffer.getChannelData(1)]
          const frames = Array.from(left, (value, n) => [value, right[n]!]).flat()
          if (heard.length < 100 && frames.some(value => value !== 0)) heard.push({ atMs: performance.now(), frames })
        }
        connect.call(this, ear)
        connect.call(ear, to)
      }
      return connect.call(this, to)
    } as typeof AudioNode.prototype.connect
  })
  await page.reload()
}

const episodeIn = (window: Page): string => /episodes\/([^?]+)/.exec(window.url())![1]!

/** What the server makes of the mix of an episode, as it does when that is finished. */
async function rendered(id: string): Promise<Float32Array> {
  const api = async <T>(path: string): Promise<T> => (await (await page.request.get(house.address + path)).json()) as T
  const { text } = await api<Episode>(`/api/v1/episodes/${id}`)
  const { source, parts } = await api<Sound>(`/api/v1/episodes/${id}/sound`)
  const files: Record<string, MixedFile> = {}
  for (const file of [source!, ...parts]) {
    const path = join(folder, file.id)
    writeFileSync(path, await (await page.request.get(house.address + file.playAddress)).body())
    files[file.id] = { path, junkBytes: 0, channels: file.channels, durationMs: file.durationMs }
  }
  const sampleRateHz = Math.max(...[source!, ...parts].map(file => file.sampleRateHz))
  const sound: Float32Array[] = []
  for await (const part of framesOfMix({ mix: text.mix!, files, sampleRateHz, channels: 2 })) sound.push(part)
  return Float32Array.from(sound.flatMap(part => [...part]))
}

const quantum = 2 * 128
/** Quanta of the audio thread that are not in a sound, each behind the one before; the recorder itself may miss some. */
function strange(heard: readonly number[], sound: Float32Array): number {
  const isAt = (n: number, at: number): boolean => {
    for (let i = 0; i < quantum; i++) if (!(Math.abs(heard[n + i]! - sound[at + i]!) <= 10 ** (-90 / 20))) return false
    return true
  }
  // Silence is in many places.
  const loud = heard.findIndex(value => Math.abs(value) > 0.01)
  const first = loud - (loud % quantum)
  let at = 0
  while (at < sound.length && !isAt(first, at)) at += 2
  let missed = 0
  for (let n = first + quantum; n + quantum <= heard.length; n += quantum) {
    let next = at + quantum
    while (next < sound.length && !isAt(n, next)) next += quantum
    if (next >= sound.length) missed++
    at = next < sound.length ? next : at + quantum
  }
  return missed
}

/** Plays the sheet from two places of it, and compares what is heard with what the server will make of it. */
async function heardAsItWillBe(sheet: Locator): Promise<void> {
  const place = sheet.getByRole('slider', { name: 'Place in the whole' })
  await saved(page)
  const id = episodeIn(page)
  const made = await rendered(id)
  for (const keys of [[], ['Home', 'ArrowRight', 'ArrowRight']]) {
    for (const key of keys) await place.press(key)
    await page.evaluate(() => void ((window as unknown as HeardWindow).heard.length = 0))
    await sheet.getByRole('button', { name: 'Play' }).click()
    await expect.poll(() => page.evaluate(() => (window as unknown as HeardWindow).heard.length)).toBeGreaterThan(9)
    await sheet.getByRole('button', { name: 'Pause' }).click()
    const heard = await page.evaluate(() => (window as unknown as HeardWindow).heard.map(({ frames }) => frames))
    // A first block may begin in its middle, a last one end there; after a jump the bed needs a moment until it gives way as it does, and is over by then.
    const blocks = heard.slice(keys.length > 0 ? 6 : 1, -1).flat()
    expect(blocks.length).toBeGreaterThan(16_384)
    expect(strange(blocks, made)).toBe(0)
  }
}

it('an episode is put together of a voice and music from the shelf, and finished so', async () => {
  await goTo(page, '/studio/bellows-and-reeds')
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByLabel('Audio file').setInputFiles(cut('br-32.mp3', 18))
  await openPart(page, 'Sound')
  await page.getByRole('button', { name: 'Replace file' }).waitFor()
  await page.getByRole('button', { name: 'Put it together' }).click()
  const sheet = page.getByRole('region', { name: 'Put together' })
  await sheet.getByText('0:18 in all').waitFor()
  await saved(page)
  await listenIn()

  await sheet.getByRole('button', { name: 'Put music under it' }).click()
  const shelf = page.getByRole('dialog', { name: 'From the shelf' })
  await shelf
    .getByRole('listitem')
    .filter({ hasText: 'br-31.mp3' })
    .getByRole('button', { name: 'Use this file' })
    .click()
  const music = sheet.getByRole('listitem', { name: /^Music 1, br-31\.mp3/ })
  await typeNumber(music.getByRole('spinbutton', { name: /seconds until it begins/ }), '5', '5 s')
  await music.getByRole('combobox', { name: /what that is counted from/ }).click()
  await page.getByRole('option', { name: 'before the piece begins' }).click()
  await typeOver(music.getByRole('textbox', { name: /how long it lasts/ }), '0:12')
  await sheet.getByText('0:23 in all').waitFor()

  await heardAsItWillBe(sheet)

  // What goes by mistake comes back.
  await music.getByRole('button', { name: /^Remove / }).click()
  await expect.poll(() => music.count()).toBe(0)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await music.waitFor()
  await saved(page)
  expect(await violations(page)).toEqual([])

  await sheet.getByRole('button', { name: 'Use as the audio' }).click()
  await sheet.getByText('This is the episode’s audio.').waitFor()
  await page.getByRole('button', { name: 'Finish the audio' }).first().click()
  await page.getByText('Finished. This file will be published.').waitFor(untilEncoded)
  await page.getByRole('button', { name: 'Play' }).first().click()
  await expect.poll(() => page.getByTestId('place').innerText()).toMatch(/^0:0[1-9]\s+0:2[23]$/)
  await page.getByRole('button', { name: 'Pause' }).first().click()

  await page.reload()
  await sheet.getByText('This is the episode’s audio.').waitFor()
  await typeNumber(music.getByRole('spinbutton', { name: /level in dB/ }), '-6', '-6 dB')
  await sheet.getByText('The episode’s audio is still what it was before these changes.').waitFor()

  // From now on each new one begins so, as soon as its voice is here, until somebody says otherwise.
  await sheet.getByRole('button', { name: 'Begin and end every episode like this' }).click()
  await sheet.getByText('Every new episode begins and ends like this.').waitFor()
  await beginAnother()
  await page.getByLabel('Audio file').setInputFiles(cut('br-32.mp3', 16))
  await openPart(page, 'Sound')
  await sheet.getByText('0:21 in all').waitFor()
  await expect.poll(() => music.getByRole('spinbutton', { name: /level in dB/ }).inputValue()).toBe('-6 dB')
  await sheet.getByRole('button', { name: 'Stop laying out new episodes' }).click()
  await sheet.getByRole('button', { name: 'Begin and end every episode like this' }).waitFor()
})

/** Begins another episode from the desk of one that has audio, and waits for its own desk. */
async function beginAnother(): Promise<void> {
  await page.getByRole('button', { name: 'New episode', exact: true }).click()
  await page.getByText('Drop the audio anywhere on this window').waitFor()
}

/** What a microphone hears: too loud for a while, then a steady tone. */
const spokenTone = { hz: 440, dbfs: -15 }
const spoken = `aevalsrc='if(lt(t,8),clip(2*sin(2*PI*300*t),-1,1),${Math.SQRT2 * 10 ** (spokenTone.dbfs / 20)}*sin(2*PI*${spokenTone.hz}*t))':s=48000:d=300`

/** The level in dB of the file of a piece as a whole, and how often its wave turns from below to above, in Hz. */
async function heardIn({ framesAddress, sampleRateHz, channels }: Sound['parts'][number]) {
  const bytes = await (
    await page.request.get(`${house.address}${framesAddress}?sampleRateHz=${sampleRateHz}&fromFrame=0`)
  ).body()
  const samples = new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2).filter(
    (_value, i) => i % channels === 0,
  )
  const power = samples.reduce((sum, value) => sum + (value / 32_768) ** 2, 0) / samples.length
  const turns = samples.filter((value, i) => i > 0 && value >= 0 && samples[i - 1]! < 0).length
  return { dbfs: 10 * Math.log10(power), hz: (turns * sampleRateHz) / samples.length }
}

it('an introduction is recorded: a clipped take is told and done again, a closed tab loses none, and what is used is a piece to the sample', async () => {
  const microphone = join(folder, 'microphone.wav')
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', spoken, microphone])
  const browser = await launchBrowser(
    '--use-fake-device-for-media-stream',
    '--use-fake-ui-for-media-stream',
    `--use-file-for-fake-audio-capture=${microphone}`,
  )
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    let studio = await house.openWindow(context)
    await studio.getByRole('button', { name: 'New episode' }).click()
    await studio.waitForURL(/episodes/)
    const id = episodeIn(studio)
    const panel = () => studio.getByRole('region', { name: 'Recording' })
    const press = (name: string) => panel().getByRole('button', { name, exact: true }).click()
    const record = () => studio.getByRole('button', { name: 'Record', exact: true }).first()
    await openPart(studio, 'Sound')
    await studio.getByRole('button', { name: 'Put it together' }).click()
    await record().click()
    await panel()
      .getByRole('checkbox', { name: /Count in/ })
      .uncheck()
    await press('Record')
    await panel()
      .getByRole('alert')
      .getByText(/^Clipped at 0:00/)
      .waitFor()
    expect(await violations(studio)).toEqual([])
    await expect
      .poll(() => panel().getByRole('meter').getAttribute('aria-valuenow'), { timeout: 60_000 })
      .toBe(String(Math.round(spokenTone.dbfs + 3)))
    await press('Record it again')
    await panel().getByText('0:03', { exact: true }).waitFor()
    // As a browser that dies: nothing is asked, nothing is put in order.
    await studio.close({ runBeforeUnload: false })

    studio = await context.newPage()
    await studio.goto(`${house.address}/studio/bellows-and-reeds/episodes/${id}?part=sound`)
    await record().click()
    const takes = panel().getByRole('listitem')
    await expect.poll(() => takes.count()).toBe(2)
    await takes.nth(1).getByText('clipped once').waitFor()
    await takes
      .nth(0)
      .getByText(/^0:0[2-5] · peak −12\.\d dB$/)
      .waitFor()
    // An upload that is refused leaves the take where it is.
    const refusal = { title: 'No room', detail: 'The disk is full.', todo: 'Make room.' }
    await studio.route('**/api/v1/uploads', route => route.fulfill({ status: 507, json: refusal }))
    await press('Use take 2')
    const refused = studio.getByRole('alert').filter({ hasText: 'The disk is full.' })
    await refused.getByRole('button', { name: 'Cancel' }).click()
    await studio.unroute('**/api/v1/uploads')
    await press('Use take 2')
    const pieces = () => studio.getByRole('list', { name: 'Pieces' }).getByRole('listitem')
    await pieces().getByText(/^Recording .*\.wav$/).waitFor()
    await press('Discard take 1')
    await press('Discard')
    await expect.poll(() => takes.count()).toBe(0)
    const { parts } = (await (await page.request.get(`${house.address}/api/v1/episodes/${id}/sound`)).json()) as Sound
    const [part] = parts
    expect(part).toMatchObject({ codec: 'pcm_s24le', origin: 'upload' })
    const { dbfs, hz } = await heardIn(part!)
    expect(Math.abs(dbfs - spokenTone.dbfs)).toBeLessThan(0.3)
    expect(Math.abs(hz - spokenTone.hz)).toBeLessThan(2)

    // What had no room is in the window, and is used from there.
    await studio.evaluate(() => {
      const put = IDBObjectStore.prototype.put
      IDBObjectStore.prototype.put = function (value, key) {
        if (String(key).startsWith('portion')) throw new DOMException('No room.', 'QuotaExceededError')
        return put.call(this, value, key)
      }
    })
    await press('Record')
    await panel()
      .getByRole('alert')
      .getByText(/no room left/)
      .waitFor()
    await press('Stop')
    await panel().getByRole('combobox', { name: 'It goes' }).click()
    await studio.getByRole('option', { name: /^before 1 Recording/ }).click()
    await press('Use take 1')
    await expect.poll(() => pieces().count()).toBe(2)
    await expect.poll(() => panel().getByRole('alert').count()).toBe(0)

    // Nor is a browser needed that keeps anything at all.
    studio = await context.newPage()
    await studio.addInitScript(() => {
      IDBFactory.prototype.open = () => {
        throw new DOMException('Kept out.', 'SecurityError')
      }
    })
    await studio.goto(`${house.address}/studio/bellows-and-reeds/episodes/${id}?part=sound`)
    await record().click()
    await press('Record')
    await panel().getByRole('alert').getByText(/no room left/).waitFor()
    await press('Stop')
    await press('Use take 1')
    await expect.poll(() => pieces().count()).toBe(3)
  } finally {
    await browser.close()
  }
})

it('without a microphone it says so, and how to go on', async () => {
  await beginAnother()
  await openPart(page, 'Sound')
  await page.getByRole('button', { name: 'Put it together' }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  const panel = page.getByRole('region', { name: 'Recording' })
  await panel
    .getByRole('alert')
    .getByText(/no microphone|does not let/)
    .waitFor()
  await panel.getByRole('button', { name: 'Try again' }).waitFor()
})
