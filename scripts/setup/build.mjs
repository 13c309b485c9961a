import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { readOrNull } from './files.mjs'
import { Halt } from './halt.mjs'
import { root } from './place.mjs'

const sources = [
  'core',
  'contract',
  'server',
  'web',
  'site',
  'stand-ins',
  'theme',
  'demo/fill.ts',
  'demo/scenario.ts',
  'bench',
  'studio.html',
  'vite.config.ts',
  'vite.server.config.ts',
  'vite.aliases.ts',
  'vite.kernel.ts',
  'vite.compressed.ts',
  'vite.studio.ts',
  'package-lock.json',
]
const mark = join(root, 'dist/.built-from')

/** Builds the studio, the public pages and the server where anything they are made of has changed. */
export async function needBuild() {
  const from = digestOf(sources)
  if (readOrNull(mark) === from) return
  console.log('Building …')
  await Promise.all([vite('vite.config.ts'), vite('vite.server.config.ts')])
  writeFileSync(mark, from)
}

function vite(config) {
  return new Promise((resolve, reject) => {
    const child = spawn(
      process.execPath,
      [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--config', config, '--logLevel', 'error'],
      { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] },
    )
    child.once('close', code =>
      code === 0 ? resolve() : reject(new Halt(`The build of ${config} failed; its own message stands above.`)),
    )
  })
}

function digestOf(paths) {
  const hash = createHash('sha256')
  for (const path of paths) for (const file of filesIn(path)) hash.update(file).update(readFileSync(join(root, file)))
  return hash.digest('hex')
}

function filesIn(path) {
  try {
    return readdirSync(join(root, path), { recursive: true, withFileTypes: true })
      .filter(entry => entry.isFile() && !entry.name.endsWith('.test.ts'))
      .map(entry => join(entry.parentPath, entry.name).slice(root.length))
      .sort()
  } catch (error) {
    if (error.code === 'ENOTDIR') return [path]
    if (error.code === 'ENOENT') return []
    throw error
  }
}
