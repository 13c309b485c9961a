import { describe, expect, it } from 'vitest'
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
