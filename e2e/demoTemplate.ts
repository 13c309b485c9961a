import { cp, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startDatabase } from '../scripts/setup/database.mjs'
import { runProgram } from '../scripts/setup/programs.mjs'

declare module 'vitest' {
  export interface ProvidedContext {
    /** A folder with the demo's database and media, at rest; each house begins with a copy of it. */
    demoFolder: string
  }
}

/** Fills in the demo once, for all journeys. */
export default async function fillTemplate({ provide }: TestProject): Promise<() => Promise<void>> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-template-'))
  const database = await startDatabase(folder, { isThrowAway: true })
  const clockOffsetMs = Number(process.env.CLOCK_OFFSET_MS ?? 0)
  try {
    await runProgram('dist/server/demo.js', {
      CLOCK_OFFSET_MS: String(clockOffsetMs),
      DATABASE_URL: database.url,
      MEDIA_DIR: join(folder, 'media'),
      FILL_DEMO: 'yes',
    })
  } finally {
    await database.stop()
  }
  provide('demoFolder', folder)
  provide('clockOffsetMs', clockOffsetMs)
  return () => rm(folder, { recursive: true, force: true })
}

/** A folder of its own with the template's data in it. */
export async function copyOf(template: string): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-journey-'))
  await cp(template, folder, { recursive: true })
  return folder
}
