import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'
import { plainNotes } from '../notes/plain'
import { stepsOf } from './regularExpressions.fixture'

const root = join(import.meta.dirname, '../..')

/** Every regular expression in the rooms that see texts of others. */
const expressions = ['core', 'contract', 'server', 'site'].flatMap(room =>
  readdirSync(join(root, room), { recursive: true, encoding: 'utf8' })
    .filter(path => path.endsWith('.ts') && !/\.(test|fixture|d)\.ts$/.test(path))
    .flatMap(path => literalsIn(join(room, path))),
)

function literalsIn(path: string): { where: string; expression: RegExp }[] {
  const found: { where: string; expression: RegExp }[] = []
  const walk = (node: ts.Node): void => {
    if (ts.isRegularExpressionLiteral(node)) {
      const [, source, flags] = /^\/(.*)\/([a-z]*)$/s.exec(node.text)!
      found.push({ where: `${path}: ${node.text}`, expression: new RegExp(source!, flags) })
    }
    ts.forEachChild(node, walk)
  }
  walk(ts.createSourceFile(path, readFileSync(join(root, path), 'utf8'), ts.ScriptTarget.Latest, true))
  return found
}

/** What could trouble an expression: its own letters, over and over, between others. */
const hostile = (expression: RegExp) => {
  const own = [
    ...new Set([
      ...String(expression).replace(/\\[pP]\{\w+\}|\\[a-z]/g, ''),
      ' ',
      '\t',
      '\n',
      '\r',
      'a',
      '0',
      '-',
      ':',
      '.',
      '"',
      '\u2028',
    ]),
  ]
  const piece = fc.array(fc.constantFrom(...own), { maxLength: 6 }).map(letters => letters.join(''))
  const unit = fc.array(fc.constantFrom(...own), { minLength: 1, maxLength: 3 }).map(letters => letters.join(''))
  return fc.record({ before: piece, unit, behind: piece })
}

const short = 60
/** Twice the length takes twice the steps; three times, and a few, is let go. */
const mostGrowth = 3
const few = 400

describe('a regular expression takes steps as its text is long', () => {
  it('or is told by this measure: quadratic and worse ones are', () => {
    for (const [expression, text] of [
      [/[ \t]+\n/, ' '],
      [/(a+)+$/, 'a'],
      [/– +\n+/, '–  '],
      [/x*y*x*$/, 'x'],
    ] as const) {
      const length = expression.source === '(a+)+$' ? 8 : short
      const at = (times: number): number => stepsOf(expression, `${text.repeat(times * length)}!`)
      expect(at(2), String(expression)).toBeGreaterThan(expression.source === '– +\\n+' ? at(1) : mostGrowth * at(1))
    }
  })

  it.each(expressions)('$where', ({ expression }) => {
    fc.assert(
      fc.property(hostile(expression), ({ before, unit, behind }) => {
        const at = (times: number): number =>
          stepsOf(expression, before + unit.repeat(times * Math.ceil(short / unit.length)) + behind)
        const [once, twice] = [at(1), at(2)]
        expect(twice, JSON.stringify({ before, unit, behind })).toBeLessThanOrEqual(mostGrowth * once + few)
      }),
      { numRuns: 120, seed: 20_261_125 },
    )
  })

  it('ninety-nine thousand spaces in notes are tidied, with what stands around them', () => {
    expect(plainNotes(`<p>a${' '.repeat(99_000)}b</p>`)).toBe(`a${' '.repeat(99_000)}b`)
    expect(plainNotes(`<p>a${' '.repeat(99_000)}</p><p>b</p>`)).toBe('a\n\nb')
  })
})
