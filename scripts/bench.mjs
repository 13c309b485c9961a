import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { needBuild } from './setup/build.mjs'
import { startDatabase } from './setup/database.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { main } from './setup/halt.mjs'
import { Parts } from './setup/house.mjs'
import { needPackages } from './setup/packages.mjs'
import { runFolder } from './setup/place.mjs'
import { runProgram } from './setup/programs.mjs'

/** Prints speeds as ratios against a named reference in the same run; only of the benches that are named, if any is. Load goes to loopback only and ends by itself. */
await main(async () => {
  const folder = join(runFolder, 'bench')
  await needRoom(folder)
  needPrograms(['mariadbd', 'mariadb-install-db', 'ffmpeg', 'ffprobe', 'espeak-ng', 'flite', 'nginx', 'wrk', 'ab'])
  needPackages()
  await needBuild()
  for (const part of ['mariadb', 'media']) await rm(join(folder, part), { recursive: true, force: true })
  const parts = new Parts()
  parts.stopOnSignals()
  try {
    const { url } = parts.add(await startDatabase(folder))
    const environment = { DATABASE_URL: url, MEDIA_DIR: join(folder, 'media'), NODE_ENV: 'production' }
    await runProgram('dist/server/demo.js', { ...environment, FILL_DEMO: 'yes' })
    await runProgram('dist/server/bench.js', { ...environment, BENCHES: process.argv.slice(2).join(' ') })
  } finally {
    await parts.stop()
  }
})
