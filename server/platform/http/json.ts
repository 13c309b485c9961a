import { AppError } from './errors'

/** Nothing that the contract describes lies deeper. */
const mostDepth = 40

/** Reads a request's JSON. Lone halves of letters become �; what is nested absurdly deep, or is no JSON, is refused. */
export function readJson(text: string): unknown {
  if (depthOf(text) > mostDepth) throw new AppError('unreadable', `The JSON is nested deeper than ${mostDepth} levels.`)
  try {
    return JSON.parse(text, (key, value: unknown) => {
      // Assigned somewhere as it is, it would change an object’s kind (OWASP prototype pollution prevention cheat sheet).
      if (key === '__proto__') throw new SyntaxError('__proto__ is no key.')
      return typeof value === 'string' ? value.toWellFormed() : value
    })
  } catch (error) {
    throw new AppError('unreadable', `The request is no JSON. ${(error as Error).message.slice(0, 200)}`)
  }
}

/** How deep brackets lie in each other; those in strings do not count. */
function depthOf(text: string): number {
  let depth = 0
  let deepest = 0
  let inString = false
  for (let at = 0; at < text.length; at++) {
    const letter = text[at]
    if (inString) {
      if (letter === '\\') at++
      else if (letter === '"') inString = false
    } else if (letter === '"') inString = true
    else if (letter === '[' || letter === '{') deepest = Math.max(deepest, ++depth)
    else if (letter === ']' || letter === '}') depth--
  }
  return deepest
}
