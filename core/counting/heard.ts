import { running } from './age'
import type { FileSound, ListenerDay, ListenerDays } from './count'
import { coveredBytes } from './spans'

/** Into so many parts of the same length a file’s sound is cut to tell how far it was heard. */
export const heardParts = 100
/** Stands for the whole: everybody who began. */
export const everyPart = heardParts

/**
 * How many more or fewer began to hear a file, or heard a part of it that did not hear the part before: so who hears it from one place
 * to another is two figures, however many parts that are.
 */
export interface HeardStep {
  showId: string
  episodeId: string
  fileId: string
  /** 0 to 99, or {@link everyPart}. */
  part: number
  by: number
}

/** How many heard each part, from how many more than the part before that were. */
export const heardByPart = (changeAt: (part: number) => number): number[] =>
  running(Array.from({ length: heardParts }, (_, part) => changeAt(part)))

/** Players on pages fetch what is played and little more; apps fetch the whole, and what is heard of it nobody tells. */
const tells = ({ traits: { source }, refusal }: ListenerDay): boolean =>
  (source === 'page' || source === 'frame') && (refusal === null || refusal === 'under-a-minute')

/** Which parts of a file somebody heard, each at least by half; null where it was not begun. */
function partsHeard(
  day: ListenerDay | undefined,
  fileId: string,
  { audio: [first, last] }: FileSound,
): readonly boolean[] | null {
  const spans = day && tells(day) && day.spans[fileId]
  if (!spans) return null
  const length = (last - first + 1) / heardParts
  const from = (part: number): number => first + Math.floor(part * length)
  return Array.from(
    { length: heardParts },
    (_, part) => coveredBytes(spans, [from(part), from(part + 1) - 1]) * 2 >= length,
  )
}

/** 1 where a part is heard and the one before is not, -1 where it is the other way about. */
const changeAt = (heard: readonly boolean[] | null, part: number): number =>
  Number(heard?.[part] ?? false) - Number(heard?.[part - 1] ?? false)

/** What changes in how far files were heard, after listeners’ days have become others. */
export function heardSteps(
  before: ListenerDays,
  changed: ListenerDays,
  soundOf: (fileId: string) => FileSound | undefined,
): HeardStep[] {
  const steps: HeardStep[] = []
  for (const [key, is] of changed) {
    const was = before.get(key)
    if (!tells(is) && !(was && tells(was))) continue
    const { showId, episodeId } = is
    for (const fileId of Object.keys(is.spans)) {
      const sound = soundOf(fileId)
      if (!sound) continue
      const [now, known] = [partsHeard(is, fileId, sound), partsHeard(was, fileId, sound)]
      const add = (part: number, by: number): void => {
        if (by !== 0) steps.push({ showId, episodeId, fileId, part, by })
      }
      add(everyPart, Number(now !== null) - Number(known !== null))
      for (let part = 0; part < heardParts; part++) add(part, changeAt(now, part) - changeAt(known, part))
    }
  }
  return steps
}
