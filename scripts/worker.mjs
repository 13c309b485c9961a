import { needBuild } from './setup/build.mjs'
import { needPrograms } from './setup/debian.mjs'
import { Halt, main } from './setup/halt.mjs'
import { Parts } from './setup/house.mjs'
import { needPackages } from './setup/packages.mjs'
import { startProgram } from './setup/programs.mjs'

/** Runs jobs and the release clock beside the servers of a house, without HTTP; any number may. */
await main(async () => {
  for (const variable of ['DATABASE_URL', 'MEDIA_DIR']) {
    if (!process.env[variable])
      throw new Halt(`A worker shares the database and the media of the servers: set ${variable} as they have it.`)
  }
  needPrograms(['ffmpeg', 'ffprobe', 'espeak-ng'])
  needPackages()
  await needBuild()
  const parts = new Parts()
  parts.stopOnSignals()
  await parts.add(startProgram('dist/server/worker.js', {})).listening
  console.log('The worker runs. Ctrl-C ends it.')
  await parts.keepRunning()
})
