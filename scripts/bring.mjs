import { resolve } from 'node:path'
import { needBuild } from './setup/build.mjs'
import { Halt, main } from './setup/halt.mjs'
import { needPackages } from './setup/packages.mjs'
import { runProgram } from './setup/programs.mjs'

/** Brings logs of a proxy or a delivery network into a house, by file: `npm run bring -- access.log edge.log.gz`. */
await main(async () => {
  const files = process.argv.slice(2).map(file => resolve(process.env.INIT_CWD ?? '.', file))
  if (files.length === 0) throw new Halt('Name the logs to bring in: npm run bring -- access.log edge.log.gz')
  for (const variable of ['DATABASE_URL', 'MEDIA_DIR']) {
    if (!process.env[variable])
      throw new Halt(`Logs go into the database of the servers: set ${variable} as they have it.`)
  }
  needPackages()
  await needBuild()
  await runProgram('dist/server/bring.js', {}, files)
})
