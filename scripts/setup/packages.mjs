import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { readOrNull } from './files.mjs'
import { Halt } from './halt.mjs'
import { root } from './place.mjs'

const mark = join(root, 'node_modules/.lake-letter-lock')

/** Runs `npm ci` where the lock file is another than at the last run. */
export function needPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  if (readOrNull(mark) === lock) return
  console.log('Installing packages (npm ci) …')
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (status !== 0) throw new Halt('npm ci could not install the packages; its own message stands above.')
  writeFileSync(mark, lock)
}
