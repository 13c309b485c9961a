import { execFileSync } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeSound } from '@core/audio/sound.fixture'
import type { Chapter } from '@core/episode/fields'
import type { Tags } from '../../media/files/tags'
import { squarePicture } from '../../testing/house'
import { writeM4a, writeMp3 } from './writeTags'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-tags-'))
})
afterAll(() => rm(folder, { recursive: true }))

const chapters = (count: number, isHidden: (at: number) => boolean = () => false): Chapter[] =>
  Array.from({ length: count }, (_, at) => ({
    id: `c${at}`,
    fromMs: at * 100,
    title: `Chapter ${at}`,
    address: null,
    pictureId: null,
    isListed: !isHidden(at),
  }))
const tags = (of: Chapter[]): Tags => ({
  title: 'A drawer full of reeds',
  subtitle: '',
  artist: 'Tove Aldermoor',
  album: 'Bellows & Reeds',
  track: 32,
  date: '2026-09-23',
  genre: 'Podcast',
  comment: '',
  keywords: [],
  people: [],
  webAddress: 'https://lake.example/bellows-and-reeds',
  artworkId: '',
  chapters: of,
})
const pictures = async () => ({
  artwork: { bytes: await squarePicture(300), type: 'image/jpeg' as const },
  ofChapters: new Map(),
})

/** The tables of contents of an ID3v2.3 tag, read by its bytes (ID3v2 chapter frame addendum 1.0, section 3.2). */
function tablesIn(file: Buffer): { name: string; isTop: boolean; entries: string[] }[] {
  const found = []
  for (let at = file.indexOf('CTOC'); at >= 0; at = file.indexOf('CTOC', at + 4)) {
    const bytes = file.readUInt32BE(at + 4)
    const body = file.subarray(at + 10, at + 10 + bytes)
    const end = body.indexOf(0)
    const [flags, count] = [body[end + 1]!, body[end + 2]!]
    const entries = body
      .subarray(end + 3)
      .toString('latin1')
      .split('\0')
      .slice(0, count)
    found.push({ name: body.subarray(0, end).toString('latin1'), isTop: (flags & 2) > 0, entries })
  }
  return found
}

it.each([
  [3, ['toc:3']],
  [255, ['toc:255']],
  [256, ['toc:2', 'toc1:255', 'toc2:1']],
  [999, ['toc:4', 'toc1:255', 'toc2:255', 'toc3:255', 'toc4:234']],
])('a table of %i chapters in an MP3 has them all, over tables of at most 255', async (count, expected) => {
  const [frames, path] = [join(folder, 'frames.mp3'), join(folder, `${count}.mp3`)]
  await writeFile(frames, Buffer.alloc(10))
  await writeMp3(path, { path: frames, from: 0, to: 10 }, tags(chapters(count)), await pictures(), 200_000)
  const tables = tablesIn(await readFile(path))
  expect(tables.map(({ name, entries }) => `${name}:${entries.length}`)).toEqual(expected)
  expect(tables.filter(({ isTop }) => isTop).map(({ name }) => name)).toEqual(['toc'])
  const leaves = tables.length === 1 ? tables : tables.slice(1)
  expect(leaves.flatMap(({ entries }) => entries)).toEqual(chapters(count).map((_chapter, at) => `ch${at}`))
  if (tables.length > 1) expect(tables[0]!.entries).toEqual(leaves.map(({ name }) => name))
})

it('the list of an M4A leaves out what is hidden from lists', async () => {
  const [sound, path] = [join(folder, 'sound.m4a'), join(folder, 'tagged.m4a')]
  makeSound(sound, 2, ['-c:a', 'aac'])
  const { artwork } = await pictures()
  await writeM4a(path, sound, tags(chapters(6, at => at === 2 || at === 5)), artwork, 2_000)
  const probe = JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', path], { encoding: 'utf8' }),
  ) as { chapters: { start_time: string; end_time: string; tags: { title: string } }[] }
  expect(probe.chapters.map(({ tags: { title } }) => title)).toEqual([
    'Chapter 0',
    'Chapter 1',
    'Chapter 3',
    'Chapter 4',
  ])
  // Each goes on to the next that is there.
  const [, ...starts] = probe.chapters.map(({ start_time }) => Number(start_time))
  expect(probe.chapters.map(({ end_time }) => Number(end_time))).toEqual([...starts, 2])
})
