import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { startDatabase } from './database.mjs'
import { runProgram } from './programs.mjs'

/** Fills in the demo once, for all journeys: a folder with its database and media, at rest. */
export async function fillTemplate(folder) {
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const database = await startDatabase(folder)
  try {
    await runProgram('dist/server/demo.js', {
      DATABASE_URL: database.url,
      MEDIA_DIR: join(folder, 'media'),
      FILL_DEMO: 'yes',
    })
  } finally {
    await database.stop()
  }
  return folder
}
