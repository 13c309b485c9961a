import { readdir, stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { BroughtElsewhere, logBringer } from './bringing'

const everyMs = 30_000
/** A compressed file is read once it is whole, which it is when it has not grown for so long. */
const quietMs = 5_000

/** Looks into a folder for logs, and brings in what is new in them; a file that cannot be read holds no other up. */
export function logFolder(
  platform: Pick<Platform, 'database' | 'clock' | 'askers'>,
  folder: string,
  report: (error: unknown) => void,
) {
  const { bring } = logBringer(platform)
  /** As they were when all in them was read. */
  const read = new Map<string, string>()

  return {
    async look(goesOn: () => boolean = () => true): Promise<void> {
      for (const { name } of (await readdir(folder, { withFileTypes: true })).filter(each => each.isFile())) {
        if (!goesOn()) return
        const path = join(folder, name)
        try {
          const { size, mtimeMs } = await stat(path)
          const state = `${size} ${mtimeMs}`
          if (read.get(name) === state || Date.now() - mtimeMs < quietMs) continue
          await bring(path)
          read.set(name, state)
        } catch (error) {
          // The next look goes on where they are then.
          if (error instanceof BroughtElsewhere) continue
          report(new Error(`The log ${name} could not be brought in. ${String(error)}`, { cause: error }))
        }
      }
    },
  }
}

/** Looks into the folder every half minute. */
export function startLogFolder(
  platform: Pick<Platform, 'database' | 'clock' | 'askers'>,
  folder: string,
  report: (error: unknown) => void,
): Repeated {
  const logs = logFolder(platform, folder, report)
  return repeat(everyMs, logs.look, report)
}
