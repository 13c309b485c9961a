import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import ts from 'typescript'
import type { Plugin } from 'vite'

const query = '?edition'

/** Where a module lies that another one imports; null where it is built in. */
type Resolve = (specifier: string, importer: string) => Promise<string | null>

/**
 * `import edition from './rules?edition'`: sixteen letters that are others as soon as the text of the module or of anything that it
 * imports is another, so that what was made by it and is kept is made anew. A package counts by its version.
 */
export function editions(): Plugin {
  return {
    name: 'lake-letter-editions',
    enforce: 'pre',
    async resolveId(source, importer) {
      if (!source.endsWith(query)) return null
      const resolved = await this.resolve(source.slice(0, -query.length), importer)
      return resolved && resolved.id + query
    },
    async load(id) {
      if (!id.endsWith(query)) return null
      const resolve: Resolve = async (specifier, importer) => (await this.resolve(specifier, importer))?.id ?? null
      const texts = await textsOf(id.slice(0, -query.length), resolve)
      for (const path of texts.keys()) this.addWatchFile(path)
      return `export default '${digestOf(texts)}'`
    },
  }
}

/** What is only a type changes nothing that is made. */
const typeImports = /^(?:import|export) type [^']*'[^']*'$/gm

/** The text of a module and of all modules that it imports, by their paths; of a package what names it. */
export async function textsOf(
  path: string,
  resolve: Resolve,
  known = new Map<string, string>(),
): Promise<Map<string, string>> {
  if (known.has(path)) return known
  const text = await readFile(path, 'utf8')
  known.set(path, text)
  if (!path.endsWith('.ts')) return known
  for (const { fileName } of ts.preProcessFile(text.replace(typeImports, ''), true, true).importedFiles) {
    const resolved = await resolve(fileName, path)
    if (!resolved || isPackage(fileName, resolved)) known.set(fileName, versionOf(fileName, path))
    else await textsOf(resolved.split('?', 1)[0]!, resolve, known)
  }
  return known
}

const isPackage = (specifier: string, path: string): boolean =>
  path.includes('/node_modules/') || !path.startsWith('/') || specifier.startsWith('node:')

/** The version of the package that a module imports; what is built into Node.js has none. */
function versionOf(specifier: string, importer: string): string {
  const name = specifier
    .split('/')
    .slice(0, specifier.startsWith('@') ? 2 : 1)
    .join('/')
  const folders = createRequire(importer).resolve.paths(specifier) ?? []
  for (const folder of folders) {
    const text = ts.sys.readFile(`${folder}/${name}/package.json`)
    if (text) return (JSON.parse(text) as { version: string }).version
  }
  return ''
}

/** Where the modules lie tells nothing. */
export function digestOf(texts: ReadonlyMap<string, string>): string {
  const hash = createHash('sha256')
  for (const text of [...texts.values()].toSorted()) hash.update(text).update('\0')
  return hash.digest('hex').slice(0, 16)
}
