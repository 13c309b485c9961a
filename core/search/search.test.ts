import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { excerptOf } from './excerpt'
import { passagesOf } from './passages'
import { fold } from '../words/fold'
import { hasPhrases, isMeant, readQuery } from './query'
import { indexed, indexedWords, tokensOf } from './tokens'

const wordsOf = (text: string): string[] => tokensOf(text).map(({ word }) => word)

describe('words of a text', () => {
  it.each([
    ['The Reeds’ réed', ['the', 'reeds', 'reed']],
    ["l’orgue d'Odile", ['l', 'orgue', 'd', 'odile']],
    ['50 % — a*b +c -d "e" (f)', ['50', 'a', 'b', 'c', 'd', 'e', 'f']],
    ['修理する', ['修理', '理す', 'する', 'る']],
    ['A 🪗, ❤️ and 👍🏽 in 🇨🇭; ™ and 5 are none', ['a', '🪗', '❤', 'and', '👍', 'in', '🇨🇭', 'and', '5', 'are', 'none']],
    ['', []],
  ])('%s', (text, words) => {
    expect(wordsOf(text)).toEqual(words)
  })

  it('are found at their places', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 80 }), text => {
        for (const { from, to } of tokensOf(text))
          expect(text.slice(from, to)).toMatch(/^([\p{L}\p{N}\p{M}]+|[\p{Emoji}\ufe0f\u200d]+)$/u)
      }),
    )
  })
})

// Hebrew: the letters that are written before a word in one with it; Arabic: the article and what stands before it (grammar).
it.each([
  ['ושהאקורדיון מנגן', 'אקורדיון', true],
  ['בבית', 'בית', true],
  ['הברכה', 'ברכה', true],
  ['ברכה', 'רכה', true],
  ['שיר', 'יר', false],
  ['والأكورديون', 'أكورديون', true],
  ['بالقصب', 'قصب', true],
  ['للقصب', 'قصب', true],
  ['المد', 'مد', false],
  ['الريح', 'ريح', true],
  ['harmonium', 'armonium', false],
])('in “%s” the word “%s” is found: %s', (text, asked, isFound) => {
  const { words } = readQuery(asked)
  expect(tokensOf(text).some(token => isMeant(token, words[0]!))).toBe(isFound)
  expect(
    tokensOf(text)
      .flatMap(indexedWords)
      .some(word => word.startsWith(indexed(words[0]!))),
  ).toBe(isFound)
})

describe('a word in the index', () => {
  it('has ASCII letters, digits and low lines only, whatever its writing', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), word => /^[a-z0-9_]{0,70}$/.test(indexed(word))))
  })
  it('begins with what its own beginning has there', () => {
    for (const word of ['harmonium', 'гармонь', 'ακορντεόν', 'אקורדיון'])
      for (let letters = 1; letters <= 5; letters++)
        expect(indexed(word).startsWith(indexed(word.slice(0, letters)))).toBe(true)
  })
})

const said = (text: string, fromMs: number | null = 0, speaker: string | null = null) => ({ text, fromMs, speaker })
const nothing = { hook: '', notes: '', people: [], tags: [] }

describe('passages', () => {
  it('are everything that is written, and what is said in stretches of one speaker', () => {
    const found = passagesOf(
      {
        hook: 'A hook.',
        notes: '<p>One.</p><p>Two.</p>',
        people: [{ name: 'Odile', role: 'Guest', address: null, pictureId: null }] as never,
        tags: ['reeds'],
      },
      'A title',
      [{ fromMs: 5000, title: 'Ebb' }],
      [said('It coughs.', 0, 'Tove'), said('It sings.', 2000, 'Tove'), said('It does.', 4000, 'Odile')],
    )
    expect(found.map(({ kind, text }) => [kind, text])).toEqual([
      ['title', 'A title'],
      ['hook', 'A hook.'],
      ['notes', 'One.'],
      ['notes', 'Two.'],
      ['person', 'Odile, Guest'],
      ['tag', 'reeds'],
      ['chapter', 'Ebb'],
      ['said', 'It coughs. It sings.'],
      ['said', 'It does.'],
    ])
    expect(found[7]!.times).toEqual([
      [0, 0],
      [11, 2000],
    ])
  })

  it('lose nothing of what is said, however it is cut', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.stringMatching(/^[a-z .]{1,60}$/).filter(text => text.trim() !== ''),
          { maxLength: 60 },
        ),
        texts => {
          const found = passagesOf(
            nothing,
            '',
            [],
            texts.map((text, at) => said(text, at * 1000)),
          )
          expect(
            found
              .map(({ text }) => text)
              .join(' ')
              .replace(/\s+/g, ''),
          ).toBe(texts.join('').replace(/\s+/g, ''))
        },
      ),
    )
  })
})

describe('the excerpt of a passage', () => {
  const passage = {
    text: 'The kettle is on. A reed that buzzes is mostly dirty. Then we open the window.',
    times: [
      [0, 1000],
      [18, 4000],
      [54, 9000],
    ] as const,
  }
  it('is the sentence with the hit, marked, and begins when that is said', () => {
    const { parts, fromMs } = excerptOf(passage, readQuery('buzzes reed'))
    expect(parts.map(({ text }) => text).join('')).toBe('A reed that buzzes is mostly dirty.')
    expect(parts.filter(({ isHit }) => isHit).map(({ text }) => text)).toEqual(['reed', 'buzzes'])
    expect(fromMs).toBe(4000)
  })
  it('of a long sentence is the part with the hit, cut between words', () => {
    const text = `${'word '.repeat(200)}needle ${'word '.repeat(200)}`
    const shown = excerptOf({ text, times: [] }, readQuery('needle'))
      .parts.map(part => part.text)
      .join('')
    expect(shown).toContain('needle')
    expect(shown.length).toBeLessThan(260)
    expect(shown).toMatch(/^… word.*word …$/)
  })
  it('of anything holds together', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 600 }),
        fc.string({ unit: 'grapheme', maxLength: 20 }),
        (text, asked) => {
          const { parts } = excerptOf({ text, times: [] }, readQuery(asked))
          const shown = parts
            .map(part => part.text)
            .join('')
            .replace(/^… /, '')
            .replace(/ …$/, '')
          expect(text).toContain(shown)
        },
      ),
    )
  })
})

describe('what is asked for', () => {
  it('has each word once, and what stands between quotation marks in its order', () => {
    expect(readQuery('reed “a reed that” +reed* %')).toEqual({
      words: ['reed', 'a', 'that'],
      phrases: [['a', 'reed', 'that']],
    })
  })
  it('in a writing without spaces is told apart into words, and what is found of them is marked as one', () => {
    expect(readQuery('アコーディオンの修理').words).toEqual(
      ['アコ', 'コー', 'ーテ', 'ディ', 'ィオ', 'オン', '修理'].map(fold),
    )
    expect(readQuery('修理する').words).toEqual(['修理', 'する'])
    expect(readQuery('の').words).toEqual(['の'])
    expect(hasPhrases(tokensOf('古い修理する人がいます'), readQuery('「“修理する人”」'))).toBe(true)
    expect(hasPhrases(tokensOf('古い修理の人がする'), readQuery('“修理する人”'))).toBe(false)
    const { parts } = excerptOf({ text: '古いアコーディオンを直す。', times: [] }, readQuery('アコーディオン'))
    expect(parts.filter(({ isHit }) => isHit).map(({ text }) => text)).toEqual(['アコーディオン'])
  })
  it('that is long is cut', () => {
    expect(readQuery('ab '.repeat(5000)).words).toEqual(['ab'])
    expect(readQuery(Array.from({ length: 5000 }, (_, at) => `w${at}`).join(' ')).words).toHaveLength(12)
  })
  it.each([
    ['“reed that buz”', true],
    ['"that reed"', false],
    ['"reed that" "buzzes is"', true],
  ])('%s between quotation marks is found: %s', (asked, isFound) => {
    expect(hasPhrases(tokensOf('A reed that buzzes is dirty'), readQuery(asked))).toBe(isFound)
  })
})
