import { basename } from 'node:path'
import type { Platform } from '../../platform/platform'
import { logBringer } from './bringing'

const number = (of: number): string => of.toLocaleString('en-GB')

/** Brings in logs that are named, and says what came of each; one that cannot be read holds no other up. Tells whether all could be read. */
export async function bringFiles(
  platform: Pick<Platform, 'database' | 'clock' | 'askers'>,
  paths: readonly string[],
  say: (words: string) => void,
): Promise<boolean> {
  const { bring } = logBringer(platform)
  let areAllRead = true
  for (const path of paths) {
    try {
      const { lines, deliveries } = await bring(path)
      say(
        lines === 0
          ? `${basename(path)}: nothing new in it.`
          : `${basename(path)}: ${number(lines)} new ${lines === 1 ? 'line' : 'lines'}, ${number(deliveries)} of them about audio of this house. They are counted within a minute.`,
      )
    } catch (error) {
      areAllRead = false
      say(`${path}: could not be brought in. ${(error as Error).message}`)
    }
  }
  return areAllRead
}
