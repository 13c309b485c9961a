import { cp, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { fillTemplate } from '../scripts/setup/template.mjs'

declare module 'vitest' {
  export interface ProvidedContext {
    /** A folder with the demo's database and media, at rest; each house begins with a copy of it. */
    demoFolder: string
  }
}

/** The demo, filled in once for all journeys: before them, where somebody has done it, or now. */
export default async function demoTemplate({ provide }: TestProject): Promise<() => Promise<void>> {
  const { DEMO_TEMPLATE: known } = process.env
  const folder = known ?? (await fillTemplate(await mkdtemp(join(tmpdir(), 'lake-letter-template-'))))
  provide('demoFolder', folder)
  return async () => {
    if (!known) await rm(folder, { recursive: true, force: true })
  }
}

/** A folder of its own with the template's data in it. */
export async function copyOf(template: string): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-journey-'))
  await cp(template, folder, { recursive: true })
  return folder
}
