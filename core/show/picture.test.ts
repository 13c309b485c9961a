import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { artworkAt } from './artwork'
import { pictureFormat } from './pictureFormat'
import { provisionalArtwork } from './provisionalArtwork'

const square = sharp({ create: { width: 8, height: 8, channels: 3, background: '#103747' } })

describe('a picture', () => {
  it.each(['jpeg', 'png', 'webp'] as const)('that is %s is known by its bytes', async format =>
    expect(pictureFormat(await square.clone().toFormat(format).toBuffer())).toBe(format),
  )
  it.each([
    ['gif', 'GIF89a'],
    ['SVG', '<svg xmlns="http://www.w3.org/2000/svg"/>'],
    ['a path', '/etc/passwd'],
    ['nothing', ''],
    ['AVIF', '\0\0\0 ftypavif'],
    ['TIFF', 'II*\0'],
  ])('that is %s is not taken', (_name, text) => expect(pictureFormat(Buffer.from(text, 'latin1'))).toBeNull())
})

it('a provisional artwork is a square of 1400 px, each seed another, always the same', async () => {
  const { width, height } = await sharp(Buffer.from(provisionalArtwork(7))).metadata()
  expect([width, height]).toEqual([1400, 1400])
  expect(provisionalArtwork(7)).toBe(provisionalArtwork(7))
  expect(new Set([1, 2, 3, 4].map(provisionalArtwork)).size).toBe(4)
})

it('a smaller size has an address of its own', () =>
  expect(artworkAt('https://lake.example/media/artwork/abc.jpg', 160)).toBe(
    'https://lake.example/media/artwork/abc-160.jpg',
  ))
