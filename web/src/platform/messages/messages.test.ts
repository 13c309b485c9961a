import ts from 'typescript'
import { describe, expect, it } from 'vitest'
import { parse } from 'vue/compiler-sfc'
import { placesIn } from '@core/words/messages.fixture'
import { locale } from './index'

type Texts = Readonly<Record<string, string>>
interface Use {
  key: string
  /** The values and slots that it is given; null where they are made elsewhere. */
  places: string[] | null
}
type TemplateNode = NonNullable<
  NonNullable<ReturnType<typeof parse>['descriptor']['template']>['ast']
>['children'][number]

const said = import.meta.glob<Texts>('../../**/messages/en.json', { eager: true, import: 'default' })
const sources = import.meta.glob<string>(['../../**/*.{vue,ts}', '!../../**/*.test.ts'], {
  eager: true,
  import: 'default',
  query: '?raw',
})
const shared = said['./en.json']!
const folderOf = (path: string): string => path.replace(/\/?(messages\/)?[^/]*$/, '')

/** What is said in a script: `t('key', { name, … })`, the key perhaps one of two. */
function usesIn(script: string): Use[] {
  const uses: Use[] = []
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && node.expression.getText() === 't') {
      const [key, values] = node.arguments
      const places = !values
        ? []
        : ts.isObjectLiteralExpression(values) && !values.properties.some(ts.isSpreadAssignment)
          ? values.properties.map(({ name }) => `{${name!.getText()}}`)
          : null
      for (const one of keysIn(key!)) uses.push({ key: one, places })
    }
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile('script.ts', script, ts.ScriptTarget.Latest, true))
  return uses
}
function keysIn(node: ts.Node): string[] {
  if (ts.isStringLiteral(node)) return [node.text]
  return ts.isConditionalExpression(node) ? [node.whenTrue, node.whenFalse].flatMap(keysIn) : []
}

/** What is said in a template, in its expressions and by `FormattedMessage`. */
function usesInTemplate(node: TemplateNode): Use[] {
  if ('content' in node && typeof node.content === 'object') return usesIn(`(${node.content.loc.source})`)
  if (!('props' in node)) return []
  const expressions = node.props.flatMap(prop => ('exp' in prop && prop.exp ? usesIn(`(${prop.exp.loc.source})`) : []))
  const inside = node.children.flatMap(usesInTemplate)
  if (node.tag !== 'FormattedMessage') return [...expressions, ...inside]
  const key = node.props.find(({ name }) => name === 'of')?.loc.source.slice('of="'.length, -1)
  const given = node.props
    .find(({ loc }) => loc.source.startsWith(':values='))
    ?.loc.source.slice(':values="'.length, -1)
  const slots = node.children.flatMap(child =>
    'props' in child ? child.props.map(({ loc }) => `<${/^#(\w+)/.exec(loc.source)?.[1]}>`) : [],
  )
  const [{ places }] = usesIn(`t('', ${given ?? '{}'})`) as [Use]
  return [...expressions, ...inside, { key: key!, places: places && ['<strong>', ...slots, ...places] }]
}

function usesOf(path: string): Use[] {
  const source = sources[path]!
  if (path.endsWith('.ts')) return usesIn(source)
  const { template, scriptSetup } = parse(source).descriptor
  return [...(template?.ast?.children.flatMap(usesInTemplate) ?? []), ...usesIn(scriptSetup?.content ?? '')]
}

const uses = Object.keys(sources).flatMap(path =>
  usesOf(path).map(use => ({
    ...use,
    path,
    text: (said[`${folderOf(path)}/messages/en.json`] ?? {})[use.key] ?? shared[use.key],
  })),
)

describe('what the studio says', () => {
  it('is found: the readers of this test read', () => {
    expect(uses.length).toBeGreaterThan(1000)
    expect(usesIn("t(is ? 'one' : 'other', { name, at: now() })")).toEqual([
      { key: 'one', places: ['{name}', '{at}'] },
      { key: 'other', places: ['{name}', '{at}'] },
    ])
  })

  it('stands in the messages of its capability or of all', () => {
    expect(uses.filter(({ text }) => text === undefined)).toEqual([])
  })

  it('is given the values and the elements that stand in it', () => {
    const lacking = uses.map(({ path, key, places, text }) => ({
      path,
      key,
      lacks: places === null || !text ? [] : placesIn(text, locale).filter(place => !places.includes(place)),
    }))
    expect(lacking.filter(({ lacks }) => lacks.length > 0)).toEqual([])
  })

  it('stands apart from what follows it in its line: of a space that is broken over lines nothing is left', () => {
    const isElement = (node?: TemplateNode): boolean =>
      node !== undefined && 'props' in node && !node.props.some(({ name }) => name === 'else')
    const stuck = (node: TemplateNode): string[] => {
      if (!('tag' in node)) return []
      const { tag, children } = node
      const here = children.filter(
        (child, at) =>
          /^(p|li|span)$/.test(tag) &&
          'tag' in child &&
          child.tag === 'FormattedMessage' &&
          isElement(children[at + 1]),
      )
      return [...here.map(({ loc }) => loc.source.split('\n')[0]!), ...children.flatMap(stuck)]
    }
    const found = Object.entries(sources).flatMap(([path, source]) =>
      (path.endsWith('.vue') ? (parse(source).descriptor.template?.ast?.children ?? []) : [])
        .flatMap(stuck)
        .map(message => `${path} ${message}`),
    )
    expect(found).toEqual([])
  })

  it('has no message that nothing says', () => {
    const unsaid = Object.entries(said).flatMap(([path, texts]) => {
      const sayers = uses.filter(use => path === './en.json' || folderOf(use.path) === folderOf(path))
      return Object.keys(texts)
        .filter(key => !sayers.some(use => use.key === key))
        .map(key => `${path} ${key}`)
    })
    expect(unsaid).toEqual([])
  })

  it('has no message of a capability that all have', () => {
    const double = Object.entries(said).flatMap(([path, texts]) =>
      path === './en.json'
        ? []
        : Object.entries(texts)
            .filter(([key, text]) => key in shared || Object.values(shared).includes(text))
            .map(([key]) => `${path} ${key}`),
    )
    expect(double).toEqual([])
  })
})
