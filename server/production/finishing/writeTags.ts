import { spawn } from 'node:child_process'
import { createReadStream, createWriteStream } from 'node:fs'
import { rm, writeFile } from 'node:fs/promises'
import { pipeline } from 'node:stream/promises'
import NodeID3 from 'node-id3'
import type { Chapter } from '@core/episode/fields'
import type { Tags } from '../../media/files/tags'
import { endOf } from '../../media/sound/decoder'
import type { TagPicture, TagPictures } from './picturesForTags'

/** Writes an MP3: its tags (ID3v2.3, with a chapter frame for each chapter), then the frames of another one, untouched. */
export async function writeMp3(
  path: string,
  frames: { path: string; from: number; to: number },
  tags: Tags,
  pictures: TagPictures,
  durationMs: number,
): Promise<void> {
  await writeFile(path, id3(tags, pictures, durationMs))
  await pipeline(
    createReadStream(frames.path, { start: frames.from, end: frames.to - 1 }),
    createWriteStream(path, { flags: 'a' }),
  )
}

function id3(tags: Tags, { artwork, ofChapters }: TagPictures, durationMs: number): Buffer {
  const { title, subtitle, artist, album, track, date, genre, comment, keywords, people, webAddress, chapters } = tags
  const [year, month, day] = date.split('-') as [string, string, string]
  return NodeID3.create({
    title,
    ...(subtitle && { subtitle }),
    artist,
    album,
    genre,
    ...(track !== null && { trackNumber: String(track) }),
    year,
    date: `${day}${month}`,
    comment: { language: 'eng', text: comment },
    // ID3v2.3 section 4.2.2: texts of one's own, each with a description of what it is.
    userDefinedText: [
      ...(keywords.length > 0 ? [{ description: 'KEYWORDS', value: keywords.join('; ') }] : []),
      ...(people.length > 0 ? [{ description: 'PEOPLE', value: people.join('; ') }] : []),
    ],
    audioSourceUrl: webAddress,
    image: imageFrame(artwork, 'Artwork'),
    // ID3v2 chapter frame addendum: a CHAP for each, and a CTOC on top that lists them in order.
    ...(chapters.length > 0 && {
      chapter: chapters.map((chapter, index) => ({
        elementID: `ch${index}`,
        startTimeMs: chapter.fromMs,
        endTimeMs: Math.round(chapters[index + 1]?.fromMs ?? durationMs),
        tags: chapterTags(chapter, ofChapters),
      })),
      // Those that are hidden from lists are there, and not in the table.
      tableOfContents: tableOf(chapters.flatMap(({ isListed }, index) => (isListed ? [`ch${index}`] : []))),
    }),
  })
}

/** ID3v2 chapter frame addendum 1.0, section 3.2 (from memory): the count of a table's entries is one byte. */
const mostInTable = 255

/** One table, or one on top of several where the entries are more than one can have. */
function tableOf(elements: string[]): { elementID: string; isOrdered: boolean; elements: string[] }[] {
  const table = (elementID: string, of: string[]) => ({ elementID, isOrdered: true, elements: of })
  if (elements.length <= mostInTable) return [table('toc', elements)]
  const parts = Array.from({ length: Math.ceil(elements.length / mostInTable) }, (_, part) =>
    table(`toc${part + 1}`, elements.slice(part * mostInTable, (part + 1) * mostInTable)),
  )
  return [
    table(
      'toc',
      parts.map(({ elementID }) => elementID),
    ),
    ...parts,
  ]
}

const imageFrame = ({ bytes, type: mime }: TagPicture, description: string) => ({
  mime,
  type: { id: 3, name: 'front cover' },
  description,
  imageBuffer: bytes,
})

/** What a chapter's frame holds: its title, its link and its picture. */
function chapterTags({ title, address, pictureId }: Chapter, pictures: TagPictures['ofChapters']) {
  const picture = pictures.get(pictureId ?? '')
  return {
    title,
    ...(address && { userDefinedUrl: [{ description: 'Chapter', url: address }] }),
    ...(picture && { image: imageFrame(picture, 'Chapter') }),
  }
}

/** Writes an M4A: the coded sound of another one, untouched, with MP4 atoms for the tags, artwork and chapters. */
export async function writeM4a(
  path: string,
  soundPath: string,
  tags: Tags,
  { bytes, type }: TagPicture,
  durationMs: number,
): Promise<void> {
  const picturePath = `${path}.${type === 'image/png' ? 'png' : 'jpg'}`
  const wordsPath = `${path}.txt`
  await writeFile(picturePath, bytes)
  await writeFile(wordsPath, ffmetadata(tags, durationMs))
  try {
    const child = spawn(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        '-y',
        '-i',
        soundPath,
        '-i',
        picturePath,
        '-f',
        'ffmetadata',
        '-i',
        wordsPath,
        '-map',
        '0:a:0',
        '-map',
        '1:v:0',
        '-map_metadata',
        '2',
        '-map_chapters',
        '2',
        '-c',
        'copy',
        '-disposition:v:0',
        'attached_pic',
        '-movflags',
        '+faststart',
        '-f',
        'ipod',
        path,
      ],
      { stdio: ['ignore', 'ignore', 'pipe'] },
    )
    let complaint = ''
    child.stderr.on('data', (words: Buffer) => {
      complaint = `${complaint}${words.toString()}`.slice(-2000)
    })
    if ((await endOf(child)) !== 0) throw new Error(complaint)
  } finally {
    await Promise.all([rm(picturePath, { force: true }), rm(wordsPath, { force: true })])
  }
}

/** ffmpeg's metadata file: `=`, `;`, `#`, `\` and line ends are escaped by a backslash. */
function ffmetadata(
  { title, subtitle, artist, album, track, date, genre, comment, keywords, webAddress, chapters }: Tags,
  durationMs: number,
): string {
  const escaped = (text: string): string => text.replace(/[=;#\\\n]/g, letter => `\\${letter}`)
  const words = {
    title,
    artist,
    album,
    ...(track !== null && { track: String(track) }),
    date,
    genre,
    comment: `${comment}${comment ? '\n' : ''}${webAddress}`,
    ...(subtitle && { description: subtitle }),
    ...(keywords.length > 0 && { keywords: keywords.join('; ') }),
  }
  return [
    ';FFMETADATA1',
    ...Object.entries(words).map(([name, text]) => `${name}=${escaped(text)}`),
    // An MP4's list has no place for what is hidden from lists.
    ...chapters
      .filter(({ isListed }) => isListed)
      .flatMap((chapter, index, all) => [
        '[CHAPTER]',
        'TIMEBASE=1/1000',
        `START=${chapter.fromMs}`,
        `END=${Math.round(all[index + 1]?.fromMs ?? durationMs)}`,
        `title=${escaped(chapter.title)}`,
      ]),
    '',
  ].join('\n')
}
