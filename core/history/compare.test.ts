import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareWords } from './compare'

const of = (pieces: ReturnType<typeof compareWords>, side: 'earlier' | 'later'): string =>
  pieces
    .filter(piece => piece.in === 'both' || piece.in === side)
    .map(({ words }) => words)
    .join('')

describe('comparing two texts word by word', () => {
  it('tells what went and what came', () => {
    expect(compareWords('The bellows leak again.', 'The bellows leak no more.')).toEqual([
      { words: 'The bellows leak ', in: 'both' },
      { words: 'again', in: 'earlier' },
      { words: 'no more', in: 'later' },
      { words: '.', in: 'both' },
    ])
  })

  it('does not make a patchwork of two sentences that only share small words', () => {
    const pieces = compareWords('Salt gets into the lake in winter.', 'A letter came from the chapel in spring.')
    expect(pieces.length).toBeLessThan(6)
    expect([of(pieces, 'earlier'), of(pieces, 'later')]).toEqual([
      'Salt gets into the lake in winter.',
      'A letter came from the chapel in spring.',
    ])
  })

  it('finds the word in a script without spaces', () => {
    const pieces = compareWords('湖の手紙を読む', '湖の手紙を書く')
    expect(pieces[0]).toMatchObject({ in: 'both' })
    expect(of(pieces, 'later')).toBe('湖の手紙を書く')
  })

  it('does not take long over long texts that have nothing in common', () => {
    const [a, b] = ['a', 'b'].map(letter => Array.from({ length: 20_000 }, (_, at) => `${letter}${at}`).join(' '))
    expect(of(compareWords(a!, b!), 'later')).toBe(b)
  })

  it('leaves both texts whole, whatever is in them', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (earlier, later) => {
        const pieces = compareWords(earlier, later)
        expect([of(pieces, 'earlier'), of(pieces, 'later')]).toEqual([earlier, later])
      }),
    )
  })
})
