import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const documents = ['README.md', 'CONTRIBUTING.md', 'docs/architecture.md', 'docs/feed.md'].concat(
  readdirSync(join(root, 'docs/decisions')).map(name => `docs/decisions/${name}`),
)

it.each(documents)('every file and folder that %s names is there', document => {
  const text = readFileSync(join(root, document), 'utf8')
  const named = [
    ...text.matchAll(/`((?:core|contract|server|web|site|theme|stand-ins|demo|scripts|e2e|bench)\/[\w./-]*)`/g),
  ]
  const missing = named
    .map(([, path]) => path!)
    .filter(path => !existsSync(join(root, path)) && !existsSync(join(root, `${path}.ts`)))
  expect(missing).toEqual([])
})
