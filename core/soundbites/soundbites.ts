import type { Timeline } from '../audio/timeline'
import { longestSoundbiteMs, type Soundbite, shortestSoundbiteMs } from '../episode/fields'
import type { Want, WantCode } from '../episode/wants'
import { clock } from '../words/amounts'

/** How long a soundbite should be (podcast namespace, soundbite: 15 to 120 seconds; from memory). */
export const usualLengthMs = { least: 15_000, most: 120_000 }
/** How long one is that is made with a single press. */
const firstLengthMs = 30_000

/** One that begins at a moment, as far as the sound goes. */
export function soundbiteFrom(id: string, atMs: number, endMs: number): Soundbite {
  const toMs = Math.min(Math.round(atMs) + firstLengthMs, Math.floor(endMs))
  return { id, fromMs: Math.max(0, Math.min(Math.round(atMs), toMs - shortestSoundbiteMs)), toMs, title: '' }
}

/** Where beginning or end of one comes to when it is moved: within the sound, and before the other comes too close or gets too far. */
export function movedEdge({ fromMs, toMs }: Soundbite, edge: 'fromMs' | 'toMs', ms: number, endMs: number): number {
  const within = Math.round(Math.min(Math.max(ms, 0), endMs))
  return edge === 'fromMs'
    ? Math.min(Math.max(within, toMs - longestSoundbiteMs), toMs - shortestSoundbiteMs)
    : Math.max(Math.min(within, fromMs + longestSoundbiteMs), fromMs + shortestSoundbiteMs)
}

/**
 * Soundbites in order by the clock of the sound that is delivered: what of them was cut out is gone from them, and what is too
 * short then falls away.
 */
export const deliveredSoundbites = (
  soundbites: readonly Soundbite[],
  { toDelivered, durationMs }: Pick<Timeline, 'toDelivered' | 'durationMs'>,
): Soundbite[] =>
  soundbites
    .map(each => ({
      ...each,
      fromMs: toDelivered(each.fromMs),
      toMs: Math.min(Math.floor(durationMs), toDelivered(each.toMs)),
    }))
    .filter(each => each.toMs - each.fromMs >= shortestSoundbiteMs)
    .sort((one, other) => one.fromMs - other.fromMs)

/** What is worth a look in soundbites, by the clock of the source. `kept` is what of it goes out; null where that is not known. */
export function soundbiteWants(
  soundbites: readonly Soundbite[],
  kept: { fromMs: number; toMs: number } | null,
): Want[] {
  return soundbites.flatMap(({ id, fromMs, toMs, title }) => {
    const say = (code: WantCode, severity: Want['severity']): Want => ({
      field: 'soundbites',
      severity,
      code,
      id,
      told: title || clock(fromMs),
    })
    if (kept && (toMs <= kept.fromMs || fromMs >= kept.toMs)) return [say('soundbite-cut-off', 'warning')]
    if (kept && (fromMs < kept.fromMs || toMs > kept.toMs)) return [say('soundbite-cut-into', 'warning')]
    if (toMs - fromMs < usualLengthMs.least) return [say('soundbite-short', 'note')]
    return toMs - fromMs > usualLengthMs.most ? [say('soundbite-long', 'note')] : []
  })
}
