import { performance } from 'node:perf_hooks'
import { QueryTypes } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Cue } from '@core/transcript/cue'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { openPlatform } from '@server/app/openPlatform'
import { Transcript } from '@server/words/transcripts/models'
import { compare } from './load'
import { seed } from '@server/testing/seed'
import { startServer, stopServer } from './server'

const port = 4397
const base = `http://127.0.0.1:${port}`
const episodes = 300
/** Half an hour of speech at some 150 words a minute. */
const cuesEach = 450
const wordsEach = 10
/** So many times is each word looked for; each time is one of what is told. */
const turns = 40

/** What a visitor waits for: what is found in 300 episodes with transcripts, the weight of a page, and its first byte. */
export async function benchSite(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  await seed(platform.database, 'bellows-and-reeds', { shows: 1, episodesPerShow: episodes })
  await speak()
  const server = await startServer(port)
  try {
    const began = performance.now()
    await got('/seed-1/search?q=brass')
    console.log(
      `the first search, which makes the words of ${episodes} episodes findable: ${ms(performance.now() - began)}`,
    )
    const like = (word: string): Promise<unknown> =>
      platform.database.query('SELECT id FROM search_passages WHERE passage LIKE :word LIMIT 300', {
        replacements: { word: `%${word}%` },
        type: QueryTypes.SELECT,
      })
    for (const asked of [
      'brass',
      'reed',
      'brass spoon kettle',
      '“the old leather”',
      '“of the”',
      'the',
      'a the of and',
      'nothingofthekind',
    ]) {
      const ours = await taken(() => got(`/seed-1/search?q=${encodeURIComponent(asked)}`))
      const letterByLetter = await taken(() => like(asked))
      console.log(
        `search for ${asked}, against looking letter by letter: ${(ours.median / letterByLetter.median).toFixed(2)} (${ms(ours.median)} at the median, ${ms(ours.late)} at the 95th percentile : ${ms(letterByLetter.median)})`,
      )
    }
    await weigh('/bellows-and-reeds/the-harmonium-that-coughed')
    await weigh('/bellows-and-reeds/the-harmonium-that-coughed/embed')
    const style = /<link rel="stylesheet" href="([^"]+)"/.exec((await got('/bellows-and-reeds')).toString())![1]!
    const page = await firstByte('/bellows-and-reeds/the-harmonium-that-coughed')
    const file = await firstByte(style)
    console.log(
      `first byte of an episode’s page, against a static file: ${(page / file).toFixed(2)} (${ms(page)} : ${ms(file)})`,
    )
    await compare(
      'an episode’s page, requests against a static file',
      { url: `${base}/bellows-and-reeds/the-harmonium-that-coughed`, headers: { 'accept-encoding': 'br' } },
      { url: base + style, headers: { 'accept-encoding': 'br' } },
    )
  } finally {
    await stopServer(server)
    await platform.deliveries.stop()
    await platform.events.stop()
    await platform.database.close()
  }

  /** Gives each seeded episode half an hour of words. */
  async function speak(): Promise<void> {
    const word = wordsAsSpoken()
    const rows = await platform.database.query<{ id: string }>(
      "SELECT e.id FROM episodes e JOIN shows s ON s.id = e.show_id WHERE s.slug = 'seed-1'",
      { type: QueryTypes.SELECT },
    )
    for (const { id: episodeId } of rows) {
      const cues: Cue[] = Array.from({ length: cuesEach }, (_, at) => ({
        id: `c${at}`,
        fromMs: at * 4000,
        toMs: (at + 1) * 4000,
        speaker: null,
        text: `${Array.from({ length: wordsEach }, word).join(' ')}${at % 2 ? '.' : ''}`,
      }))
      const now = systemClock.now()
      await Transcript.create({
        id: uuidV7(),
        episodeId,
        language: 'en',
        isSpoken: true,
        content: { cues },
        released: { cues },
        cueCount: cues.length,
        isTimed: true,
        origin: 'file',
        name: null,
        sourceId: null,
        createdAt: now,
        updatedAt: now,
      })
    }
  }
}

/**
 * Words as they come in speech: the one at rank r as often as 1 / (r + 2.7), as Zipf and Mandelbrot have it (constant from memory),
 * so that “the” stands in nearly every stretch, and half of them all nearly nowhere.
 */
function wordsAsSpoken(): () => string {
  let seedling = 7
  const next = (): number => (seedling = (seedling * 48_271) % 2_147_483_647)
  const syllables = 'ba ce di fo gu ha jel kin lor mus na pel qui ros sal ten ur vol wex yar'.split(' ')
  const known = new Map(
    Object.entries({
      the: 1,
      of: 2,
      and: 3,
      a: 4,
      to: 5,
      it: 6,
      old: 60,
      reed: 100,
      leather: 400,
      brass: 700,
      kettle: 1500,
      spoon: 2500,
    }).map(([word, rank]) => [rank, word]),
  )
  const words = Array.from(
    { length: 8000 },
    (_, at) =>
      known.get(at + 1) ?? [at % 20, (at / 20) % 20, (at / 400) % 20].map(each => syllables[Math.floor(each)]).join(''),
  )
  let sum = 0
  const upTo = words.map((_, at) => (sum += 1 / (at + 3.7)))
  return () => {
    const wanted = (next() / 2_147_483_647) * sum
    let [low, high] = [0, words.length - 1]
    while (low < high) {
      const middle = (low + high) >> 1
      if (upTo[middle]! < wanted) low = middle + 1
      else high = middle
    }
    return words[low]!
  }
}

const ms = (time: number): string => `${time.toFixed(time < 10 ? 2 : 0)} ms`

async function got(path: string, headers: Record<string, string> = {}): Promise<Buffer> {
  const answer = await fetch(base + path, { headers })
  if (!answer.ok) throw new Error(`${path} answered with ${answer.status}.`)
  return Buffer.from(await answer.arrayBuffer())
}

async function taken(act: () => Promise<unknown>): Promise<{ median: number; late: number }> {
  const each: number[] = []
  for (let turn = 0; turn < turns; turn++) {
    const began = performance.now()
    await act()
    each.push(performance.now() - began)
  }
  each.sort((one, other) => one - other)
  return { median: each[turns >> 1]!, late: each[Math.ceil(turns * 0.95) - 1]! }
}

/** The time until the head of an answer is there, at the median of many. */
async function firstByte(path: string): Promise<number> {
  const each: number[] = []
  for (let turn = 0; turn < 500; turn++) {
    const began = performance.now()
    const answer = await fetch(base + path, { headers: { 'accept-encoding': 'br' } })
    each.push(performance.now() - began)
    await answer.arrayBuffer()
  }
  return each.toSorted((one, other) => one - other)[250]!
}

/** What a page weighs on the line, without pictures and sound: itself, its styles, its script, the one font that it needs. */
async function weigh(path: string): Promise<void> {
  const raw = async (address: string): Promise<number> => {
    const answer = await fetch(new URL(address, base), { headers: { 'accept-encoding': 'br' } })
    const length = answer.headers.get('content-length')
    await answer.arrayBuffer()
    return Number(length)
  }
  const html = (await got(path)).toString()
  const styles = [...html.matchAll(/<link rel="stylesheet" href="([^"]+)"/g)].map(([, href]) => href!)
  const scripts = [...html.matchAll(/<script type="module" src="([^"]+)"/g)].map(([, src]) => src!)
  const sheets = (await Promise.all(styles.map(style => got(style)))).join('')
  const font = /url\(([^)]*literata-latin-400-normal[^)]*\.woff2)\)/.exec(sheets)![1]!
  const sum = async (addresses: readonly string[]): Promise<number> =>
    (await Promise.all(addresses.map(raw))).reduce((all, bytes) => all + bytes, 0)
  const parts = { page: await raw(path), styles: await sum(styles), script: await sum(scripts), font: await raw(font) }
  const all = Object.values(parts).reduce((sumOf, bytes) => sumOf + bytes, 0)
  console.log(
    `${path}, on the line: ${Object.entries(parts)
      .map(([part, bytes]) => `${part} ${bytes}`)
      .join(', ')}; together ${all} bytes, against 60,000: ${(all / 60_000).toFixed(2)}`,
  )
}
