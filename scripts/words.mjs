import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'
import { parse } from 'vue/compiler-sfc'
import { root } from './setup/place.mjs'

/** Attributes that are read by somebody: on the screen, or out loud. */
const readAttributes = /^(label|.*-label|heading|header|title|hint|placeholder|alt|what|words|legend|tip|says)$/
/** Kinds of nodes of a Vue template (@vue/compiler-core, NodeTypes). */
const [element, text, interpolation, attribute] = [1, 2, 5, 6]

/** Prints what the studio says, by capability and file, to be read in one go: `npm run words`, or `npm run words release/table`. */
const wanted = process.argv[2] ?? ''
const files = execFileSync('git', ['ls-files', 'web/src'], { cwd: root, encoding: 'utf8' })
  .split('\n')
  .filter(file => /\.(vue|ts)$/.test(file) && !/\.(test|fixture)\.ts$/.test(file))
  .filter(file => file.startsWith(`web/src/${wanted}`))
let capability = ''
for (const file of files) {
  const phrases = phrasesOf(file)
  if (phrases.length === 0) continue
  const [, folder, name] = /^web\/src\/(?:(.*)\/)?([^/]+)$/.exec(file)
  if (folder !== capability) console.log(`\n# ${folder}`)
  capability = folder
  console.log(`\n${name}\n${phrases.map(phrase => `  ${phrase}`).join('\n')}`)
}

function phrasesOf(file) {
  const source = readFileSync(join(root, file), 'utf8')
  if (file.endsWith('.ts')) return [...new Set(literals(source))]
  const { template, script, scriptSetup } = parse(source).descriptor
  return [...new Set([...inTemplate(template?.ast), ...[script, scriptSetup].flatMap(part => literals(part?.content))])]
}

/** Texts with what stands in them, and attributes, in their order. */
function inTemplate(node) {
  if (!node) return []
  const found = (node.props ?? []).flatMap(({ type, name, value, exp }) => {
    if (type === attribute) return readAttributes.test(name) ? (value?.content ?? '') : []
    return literals(exp?.content)
  })
  let run = ''
  for (const child of [...(node.children ?? []), null]) {
    if (child?.type === text || child?.type === interpolation) {
      run += child.loc.source
      continue
    }
    found.push(run)
    run = ''
    if (child?.type === element) found.push(...inTemplate(child))
  }
  return found.map(spaced).filter(isSaid)
}

/** Strings of a script that are more than a name. */
function literals(source = '') {
  const found = []
  const visit = node => {
    if (ts.isImportDeclaration(node)) return
    if (ts.isStringLiteralLike(node) || ts.isTemplateExpression(node)) found.push(node.getText().slice(1, -1))
    else ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile('script.ts', source, ts.ScriptTarget.Latest, true))
  return found.map(spaced).filter(phrase => isSaid(phrase) && /\p{L}{2}.* .*\p{L}{2}/u.test(phrase))
}

function spaced(phrase) {
  return phrase.replace(/\s+/g, ' ').trim()
}

function isSaid(phrase) {
  return /\p{L}{2}/u.test(phrase.replace(/\{\{.*?\}\}/g, ''))
}
