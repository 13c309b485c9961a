import type { FileSound, ListenerDay, ListenerDays } from './count'
import { coveredBytes } from './spans'

/** Into so many parts of the same length a file’s sound is cut to tell how far it was heard. */
export const heardParts = 100
/** Stands for the whole: everybody who began. */
export const everyPart = heardParts

/** One more or fewer who heard a part of a file, or who began to. */
export interface HeardStep {
  showId: string
  episodeId: string
  fileId: string
  /** 0 to 99, or {@link everyPart}. */
  part: number
  by: 1 | -1
}

/** Players on pages fetch what is played and little more; apps fetch the whole, and what is heard of it nobody tells. */
const tells = ({ traits: { source }, refusal }: ListenerDay): boolean =>
  (source === 'page' || source === 'frame') && (refusal === null || refusal === 'under-a-minute')

/** Which parts of a file somebody heard, each at least by half. */
function partsHeard({ spans }: ListenerDay, fileId: string, { audio: [first, last] }: FileSound): number[] {
  const length = (last - first + 1) / heardParts
  const from = (part: number): number => first + Math.floor(part * length)
  return Array.from({ length: heardParts }, (_, part) => part).filter(
    part => coveredBytes(spans[fileId]!, [from(part), from(part + 1) - 1]) * 2 >= length,
  )
}

/** What changes in how far files were heard, after listeners’ days have become others. */
export function heardSteps(
  before: ListenerDays,
  changed: ListenerDays,
  soundOf: (fileId: string) => FileSound | undefined,
): HeardStep[] {
  const steps: HeardStep[] = []
  for (const [key, is] of changed) {
    const was = before.get(key)
    const [heard, known] = [heardOf(is, soundOf), heardOf(was, soundOf)]
    const add = (of: ReadonlySet<string>, without: ReadonlySet<string>, by: 1 | -1): void => {
      for (const each of of) {
        if (without.has(each)) continue
        const [fileId, part] = each.split(' ')
        steps.push({ showId: is.showId, episodeId: is.episodeId, fileId: fileId!, part: Number(part), by })
      }
    }
    add(heard, known, 1)
    add(known, heard, -1)
  }
  return steps
}

/** Each part of each file that somebody heard, and that there was somebody. */
function heardOf(
  day: ListenerDay | undefined,
  soundOf: (fileId: string) => FileSound | undefined,
): ReadonlySet<string> {
  if (!day || !tells(day)) return new Set()
  return new Set(
    Object.keys(day.spans).flatMap(fileId => {
      const sound = soundOf(fileId)
      return sound ? [everyPart, ...partsHeard(day, fileId, sound)].map(part => `${fileId} ${part}`) : []
    }),
  )
}
