import { type AST, RegExpParser } from '@eslint-community/regexpp'

/** Whether a match went through from a place on; the rest of the expression is told where it would go on. */
type Go = (at: number) => boolean

/**
 * Counts the steps that a backtracking engine takes to look for every match of an expression in a text, as ECMA-262
 * section 22.2.2 describes one. For tests: it tells how long an expression takes without looking at a clock.
 */
export function stepsOf(expression: RegExp, text: string): number {
  const { pattern } = new RegExpParser().parseLiteral(String(expression))
  const sets = new Map<string, RegExp>()
  let steps = 0

  const isIn = (raw: string, letter: string): boolean => {
    if (!sets.has(raw)) sets.set(raw, new RegExp(`^(?:${raw})$`, expression.flags.replace(/[gy]/g, '')))
    return sets.get(raw)!.test(letter)
  }

  function any(alternatives: readonly AST.Alternative[], at: number, go: Go): boolean {
    return alternatives.some(({ elements }) => all(elements, 0, at, go))
  }
  function all(elements: readonly AST.Element[], index: number, at: number, go: Go): boolean {
    const element = elements[index]
    return element ? one(element, at, next => all(elements, index + 1, next, go)) : go(at)
  }
  function one(element: AST.Element, at: number, go: Go): boolean {
    steps++
    if (element.type === 'Group' || element.type === 'CapturingGroup') return any(element.alternatives, at, go)
    if (element.type === 'Quantifier') return repeated(element, 0, at, go)
    if (element.type === 'Assertion') return holds(element, at) && go(at)
    return at < text.length && isIn(element.raw, text[at]!) && go(at + 1)
  }
  function repeated(quantifier: AST.Quantifier, count: number, at: number, go: Go): boolean {
    const more = (): boolean =>
      count < quantifier.max &&
      one(
        quantifier.element,
        at,
        next => (next > at || count < quantifier.min) && repeated(quantifier, count + 1, next, go),
      )
    const enough = (): boolean => count >= quantifier.min && go(at)
    return quantifier.greedy ? more() || enough() : enough() || more()
  }
  function holds(assertion: AST.Assertion, at: number): boolean {
    if (assertion.kind === 'start') return at === 0
    if (assertion.kind === 'end') return at === text.length
    if (assertion.kind === 'lookahead') return any(assertion.alternatives, at, () => true) !== assertion.negate
    if (assertion.kind === 'lookbehind')
      return (at > 0 && any(assertion.alternatives, at - 1, end => end === at)) !== assertion.negate
    return true
  }

  for (let from = 0; from <= text.length;) {
    let end = -1
    if (
      any(pattern.alternatives, from, at => {
        end = at
        return true
      })
    )
      from = Math.max(end, from + 1)
    else from++
  }
  return steps
}
