import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import ts from 'typescript'
import { build, type Plugin } from 'vite'
import { aliases } from '../../vite.aliases'

const counter = globalThis as { stepsTaken?: number }
const step = 'globalThis.stepsTaken++'

/** Puts a step into each function and each turn of a loop. */
const counting: Plugin = {
  name: 'counting',
  enforce: 'pre',
  transform(code, id) {
    if (!id.endsWith('.ts') || id.includes('node_modules')) return null
    const source = ts.createSourceFile(id, code, ts.ScriptTarget.Latest, true)
    const put: { at: number; text: string }[] = []
    const within = (body: ts.Node, before: string, behind: string): void => {
      if (ts.isBlock(body)) put.push({ at: body.getStart() + 1, text: `${step};` })
      else put.push({ at: body.getStart(), text: before }, { at: body.end, text: behind })
    }
    const walk = (node: ts.Node): void => {
      if (ts.isFunctionLike(node) && 'body' in node && node.body) within(node.body as ts.Node, `(${step},`, ')')
      if (ts.isIterationStatement(node, false)) within(node.statement, `{${step};`, '}')
      ts.forEachChild(node, walk)
    }
    walk(source)
    let counted = code
    // From the end, so that places before stay where they are; of two at one place the outer one was put first.
    for (const { at, text } of put
      .map((each, order) => ({ ...each, order }))
      .toSorted((one, other) => other.at - one.at || other.order - one.order))
      counted = counted.slice(0, at) + text + counted.slice(at)
    return counted
  },
}

/** A module of ours with all that it imports of ours, in which each function and each turn of a loop is a step for `workOf`. */
export async function counted<Module>(path: string): Promise<Module> {
  const root = join(import.meta.dirname, '../..')
  const built = await build({
    root,
    configFile: false,
    logLevel: 'silent',
    plugins: [counting],
    resolve: { alias: aliases },
    build: { ssr: path, write: false, minify: false, target: 'node20' },
  })
  const [{ code }] = (built as unknown as { output: [{ code: string }] }).output
  // Within the project, where packages are found.
  const folder = mkdtempSync(join(root, 'node_modules/.counted-'))
  try {
    writeFileSync(join(folder, 'module.mjs'), code)
    return (await import(pathToFileURL(join(folder, 'module.mjs')).href)) as Module
  } finally {
    rmSync(folder, { recursive: true })
  }
}

type Method = (this: unknown, ...parameters: unknown[]) => unknown

/** Texts at least so long are flattened, hashed or scanned once each; shorter ones are a step. */
const long = 64

/** Texts that were looked at in this count, and whether one is going on. */
let seen = new Set<string>()
let isCounting = false

/** A text that was put together is made one when something looks at it, and then stays so. */
function touch(text: unknown): number {
  if (typeof text !== 'string' || text.length < long || seen.has(text)) return 1
  seen.add(text)
  return text.length
}
const sizeOf = (value: unknown): number =>
  typeof value === 'string' || Array.isArray(value) ? Math.max(1, (value as string).length) : 1

/** Counts the steps of what is done, once the language's own functions are counted; what is refused is counted up to there. */
export function workOf(act: () => unknown): number {
  seen = new Set()
  counter.stepsTaken = 0
  isCounting = true
  try {
    act()
  } catch {
    // Refused.
  } finally {
    isCounting = false
  }
  return counter.stepsTaken
}

/**
 * Has `workOf` count what the language's own functions do: letters that are scanned, texts that are made, entries that are gone
 * through. Together with a step for each function and loop of our own (see `counted`), it tells how the work grows with what is
 * given, without looking at a clock. Answers how to end it.
 */
export function countBuiltIns(): () => void {
  const undo: (() => void)[] = []
  function count(
    owner: object,
    name: string | symbol,
    cost: (self: unknown, given: unknown[], result: unknown, before: number) => number,
  ) {
    const own = Object.getOwnPropertyDescriptor(owner, name)!
    const method = own.value as Method
    Object.defineProperty(owner, name, {
      ...own,
      value: function (this: unknown, ...given: unknown[]) {
        if (!isCounting) return method.apply(this, given)
        const before = this instanceof RegExp ? this.lastIndex : 0
        const result = method.apply(this, given)
        isCounting = false
        counter.stepsTaken! += cost(this, given, result, before)
        isCounting = true
        return result
      } satisfies Method,
    })
    undo.push(() => Object.defineProperty(owner, name, own))
  }

  const [words, list] = [String.prototype, Array.prototype]
  for (const name of [
    'endsWith',
    'startsWith',
    'at',
    'charAt',
    'charCodeAt',
    'codePointAt',
    'slice',
    'substring',
    'trim',
    'trimEnd',
    'trimStart',
    'localeCompare',
  ])
    count(words, name, self => touch(self))
  for (const name of [
    'normalize',
    'toLowerCase',
    'toUpperCase',
    'toWellFormed',
    'repeat',
    'padStart',
    'padEnd',
    'concat',
    'split',
    'replace',
    'replaceAll',
  ])
    count(words, name, (self, _given, result) => touch(self) + sizeOf(result))
  for (const name of ['indexOf', 'includes', 'search'])
    count(words, name, (self, [, from = 0], result) => {
      const found = typeof result === 'number' ? result : -1
      return (
        touch(self) + (found < 0 ? (self as string).length : found) - Math.min(Number(from), (self as string).length)
      )
    })
  count(words, 'lastIndexOf', (self, [, from], result) => {
    const begin = Math.min(Number(from ?? Infinity), (self as string).length)
    return touch(self) + begin - Math.max(0, result as number)
  })
  count(RegExp.prototype, 'exec', (self, [subject], result, before) => {
    const { flags, source } = self as RegExp
    const text = String(subject)
    const found = result as RegExpExecArray | null
    // Where it looks at one place only, it looks no further; steps within it are held by the test of regular expressions.
    const looksOnce = flags.includes('y') || (source.startsWith('^') && !flags.includes('m'))
    const from = /[gy]/.test(flags) ? before : 0
    const to = found ? found.index + found[0].length : looksOnce ? from : text.length
    return touch(text) + Math.max(1, to - from)
  })
  for (const name of ['includes', 'indexOf', 'lastIndexOf'])
    count(list, name, (self, _given, result) => {
      const { length } = self as unknown[]
      return 1 + (typeof result === 'number' && result >= 0 ? result : length)
    })
  for (const name of [
    'slice',
    'concat',
    'splice',
    'join',
    'reverse',
    'toReversed',
    'toSpliced',
    'fill',
    'flat',
    'unshift',
    'with',
  ])
    count(
      list,
      name,
      (self, _given, result) => 1 + Math.max(sizeOf(result), name === 'slice' ? 0 : (self as unknown[]).length),
    )
  for (const name of ['filter', 'map', 'forEach', 'flatMap', 'reduce', 'sort', 'toSorted'])
    count(list, name, self => 1 + (self as unknown[]).length)
  for (const name of ['keys', 'entries', 'values', 'fromEntries', 'assign'])
    count(Object, name, (_self, _given, result) => sizeOf(result))
  count(JSON, 'parse', (_self, [text]) => touch(text))
  for (const empty of [
    [][Symbol.iterator](),
    new Map()[Symbol.iterator](),
    new Set()[Symbol.iterator](),
    ''[Symbol.iterator](),
  ])
    count(Object.getPrototypeOf(empty) as object, 'next', () => 1)
  return () => undo.reverse().forEach(back => back())
}
