import { execFileSync } from 'node:child_process'
import { cp, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { needBuild } from './setup/build.mjs'
import { startDatabase } from './setup/database.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { Halt, main } from './setup/halt.mjs'
import { Parts } from './setup/house.mjs'
import { needPackages } from './setup/packages.mjs'
import { root, runFolder } from './setup/place.mjs'
import { runProgram } from './setup/programs.mjs'

/**
 * Prints speeds as ratios against a named reference in the same run; only of the benches that are named, if any is. Each begins with
 * the demo as it was filled in once, or as it lies in the folder DEMO_FOLDER. Load goes to loopback only and ends by itself.
 */
await main(async () => {
  const given = process.env.DEMO_FOLDER
  const template = given ?? join(runFolder, 'bench', 'template')
  const own = join(runFolder, 'bench', 'own')
  await needRoom(join(runFolder, 'bench'))
  needPrograms(['mariadbd', 'mariadb-install-db', 'ffmpeg', 'ffprobe', 'espeak-ng', 'flite', 'nginx', 'wrk', 'ab'])
  needPackages()
  await needBuild()
  const parts = new Parts()
  parts.stopOnSignals()
  try {
    if (!given) {
      await rm(template, { recursive: true, force: true })
      await runIn(template, 'demo', { FILL_DEMO: 'yes' })
    }
    for (const name of wanted()) {
      await rm(own, { recursive: true, force: true })
      await cp(template, own, { recursive: true })
      await runIn(own, 'bench', { BENCH: name })
    }
  } finally {
    await parts.stop()
  }

  async function runIn(folder, program, environment) {
    const { url } = parts.add(await startDatabase(folder))
    const house = { DATABASE_URL: url, MEDIA_DIR: join(folder, 'media'), NODE_ENV: 'production' }
    await runProgram(`dist/server/${program}.js`, { ...house, ...environment })
    await parts.stop()
  }
})

/** The benches that are named, or all. */
function wanted() {
  const all = execFileSync(process.execPath, ['dist/server/bench.js'], { cwd: root, encoding: 'utf8' })
    .trim()
    .split('\n')
  const named = process.argv.slice(2)
  for (const name of named)
    if (!all.includes(name)) throw new Halt(`There is no bench ${name}; there are ${all.join(', ')}.`)
  return named.length > 0 ? named : all
}
