import { describe, expect, it } from 'vitest'
import { mixDocument } from './document'
import { layoutOf } from './layout'
import { fileOf, pieceId } from './mix.fixture'
import { mixBy, type UsualSet, usualSet, usualTimes } from './usualSet'

const [voice, opening, closing] = [fileOf(1), fileOf(2), fileOf(3)]
const tune = { startMs: 0, gainDb: 0 }
const set: UsualSet = {
  opening: { ...usualTimes.opening, ...tune, fileId: opening },
  closing: { ...usualTimes.closing, ...tune, fileId: closing },
  ducking: usualTimes.ducking,
}
function laidOut(of: UsualSet, voiceMs: number) {
  let ids = 0
  const mix = mixBy(usualSet.parse(of), { fileId: voice, kept: [{ fromMs: 0, toMs: voiceMs }] }, () => pieceId(++ids))
  const { pieces, beds, durationMs } = layoutOf(mixDocument.parse(mix), () => voiceMs)
  return {
    voice: pieces.map(({ atMs, durationMs: long }) => [atMs, atMs + long]),
    music: beds.map(({ bed, atMs, durationMs: long }) => [bed.fileId, atMs, atMs + long]),
    durationMs,
  }
}

// Common practice, no source.
describe('an episode by the usual set', () => {
  it('has its voice 11 s into the opening music, and the closing music from 8 s before the last word', () => {
    expect(laidOut(set, 60_000)).toEqual({
      voice: [[11_000, 71_000]],
      music: [
        [opening, 0, 20_000],
        [closing, 63_000, 83_000],
      ],
      durationMs: 83_000,
    })
  })
  it('is its voice alone where the show has no music', () => {
    const bare = { ...set, opening: null, closing: null }
    expect(laidOut(bare, 60_000)).toEqual({ voice: [[0, 60_000]], music: [], durationMs: 60_000 })
  })
  it('is a mix however short the voice is', () => {
    expect(laidOut(set, 1_000)).toMatchObject({ voice: [[11_000, 12_000]], durationMs: 24_000 })
  })
})
