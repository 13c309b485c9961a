import { describe, expect, it } from 'vitest'
import { mixDocument } from './document'
import { layoutOf } from './layout'
import { fileOf, pieceId } from './mix.fixture'
import { withoutBed } from './edits'
import { mixBy, type UsualSet, usualSet, usualSetOf, usualTimes } from './usualSet'

const [voice, opening, closing] = [fileOf(1), fileOf(2), fileOf(3)]
const tune = { startMs: 0, gainDb: 0 }
const set: UsualSet = {
  opening: { ...usualTimes.opening, ...tune, fileId: opening },
  closing: { ...usualTimes.closing, ...tune, fileId: closing },
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

describe('the set of a mix', () => {
  const mixOf = (of: UsualSet) => {
    let ids = 0
    return mixBy(of, { fileId: voice, kept: [{ fromMs: 0, toMs: 60_000 }] }, () => pieceId(++ids))
  }

  it('is the one by which it came about', () => {
    const odd: UsualSet = {
      opening: { ...set.opening!, startMs: 3_000, gainDb: -4, fadeInMs: 500, ducking: null },
      closing: null,
    }
    for (const of of [set, odd]) expect(usualSetOf(mixOf(of))).toEqual(of)
  })
  it('knows only music that goes with the beginning and the end', () => {
    const mix = mixOf(set)
    expect(usualSetOf(withoutBed(withoutBed(mix, mix.beds[0]!.id), mix.beds[1]!.id))).toBeNull()
    const moved = { ...mix, beds: mix.beds.map(bed => ({ ...bed, offsetFrom: 'beginning' as const, offsetMs: 5_000 })) }
    expect(usualSetOf(moved)).toBeNull()
  })
})
