import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Cue } from './cue'
import { mergeCues, spliceBetween, spliced } from './splice'

const cue = (id: string, text = id): Cue => ({ id, fromMs: 0, toMs: 1, speaker: null, text })
const ids = (cues: readonly Cue[]) => cues.map(({ id }) => id).join('')

it('the splice between two lists makes the one the other', () => {
  const all = [...'abcdef'].map(id => cue(id))
  const part = fc.subarray(all)
  fc.assert(
    fc.property(part, part, (before, after) => {
      const splice = spliceBetween(before, after)
      expect(splice ? spliced(before, splice) : before).toEqual(after)
    }),
  )
  expect(spliceBetween(all, all)).toBeNull()
  expect(spliceBetween(all, [...all.slice(0, 2), cue('x'), ...all.slice(3)])).toMatchObject({ at: 2, remove: 1 })
})

it('of two windows, what one changed, made or took away comes together, and a cue of both is told', () => {
  const base = [...'abcd'].map(id => cue(id))
  const mine = [cue('a', 'mine'), base[1]!, cue('m'), base[2]!, cue('d', 'mine')]
  const theirs = [base[0]!, cue('b', 'theirs'), cue('t'), cue('d', 'theirs')]
  const { cues, lost } = mergeCues(base, mine, theirs)
  expect(ids(cues)).toBe('abtmd')
  expect(cues.map(({ text }) => text)).toEqual(['mine', 'theirs', 't', 'm', 'mine'])
  expect(lost).toEqual([cue('d', 'theirs')])
})
