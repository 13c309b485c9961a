import { describe, expect, it } from 'vitest'
import { mixOf, pieceOf } from '../mix/mix.fixture'
import { type EpisodeText, unsetText } from './fields'
import { doneAgain, type Stroke, undone, withStroke } from './strokes'

const text = (part: Partial<EpisodeText>): EpisodeText => ({ ...unsetText, ...part })

/** Strokes of texts that follow each other, each so long after the one before. */
function strokesOf(texts: readonly EpisodeText[], stepMs = 200): readonly Stroke[] {
  let strokes: readonly Stroke[] = []
  texts.slice(1).forEach((after, at) => (strokes = withStroke(strokes, texts[at]!, after, at * stepMs)))
  return strokes
}

describe('what was done to a text', () => {
  it('takes typing in one field as one stroke', () => {
    const strokes = strokesOf(['', 'B', 'Be', 'Bel'].map(title => text({ title })))
    expect(strokes).toHaveLength(1)
    expect(undone(text({ title: 'Bel' }), strokes[0]!).title).toBe('')
  })

  it('begins another after a pause, in another field, and where one gets long', () => {
    const titles = ['', 'B', 'Be', 'Bel'].map(title => text({ title }))
    expect(strokesOf(titles, 1000)).toHaveLength(3)
    expect(strokesOf([text({}), text({ title: 'B' }), text({ title: 'B', hook: 'h' })])).toHaveLength(2)
    expect(strokesOf(Array.from({ length: 60 }, (_, at) => text({ title: 'x'.repeat(at) }))).length).toBeGreaterThan(1)
  })

  it('takes adding and taking away as strokes of their own, however quickly they come', () => {
    const people = [[], ['Odile'], ['Odile', 'Benno'], ['Benno']].map(names =>
      text({ people: names.map(name => ({ name, role: 'Guest' as const, address: null })) }),
    )
    const strokes = strokesOf(people)
    expect(strokes).toHaveLength(3)
    expect(undone(people[3]!, strokes[2]!).people.map(({ name }) => name)).toEqual(['Odile', 'Benno'])
    const piece = pieceOf(1, [[0, 9_000]])
    const mixes = [
      null,
      mixOf([]),
      mixOf([piece]),
      mixOf([{ ...piece, gainDb: -1 }]),
      mixOf([{ ...piece, gainDb: -3 }]),
    ]
    expect(strokesOf(mixes.map(mix => text({ mix }))).map(({ after }) => after.mix)).toEqual([
      mixes[1],
      mixes[2],
      mixes[4],
    ])
  })

  it('undoes and does again in any field', () => {
    const [before, after] = [text({ tags: ['reeds'] }), text({ tags: ['reeds', 'bellows'] })]
    const [stroke] = strokesOf([before, after])
    expect(undone(after, stroke!)).toEqual(before)
    expect(doneAgain(before, stroke!)).toEqual(after)
  })

  it('leaves what another window has written meanwhile', () => {
    const [stroke] = strokesOf([text({ tags: ['reeds'] }), text({ tags: ['reeds', 'bellows'] })])
    const now = text({ tags: ['reeds', 'bellows', 'chapel'], title: 'Theirs' })
    expect(undone(now, stroke!)).toMatchObject({ tags: ['reeds', 'chapel'], title: 'Theirs' })
    const [titled] = strokesOf([text({ title: 'One' }), text({ title: 'Two' })])
    expect(undone(text({ title: 'Theirs' }), titled!).title).toBe('Theirs')
  })
})
