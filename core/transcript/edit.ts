import type { Timeline } from '../audio/timeline'
import { type Cue, isTimed } from './cue'

/** A cue after which or in which something was done lost what its file had kept of it. */
const withoutMarks = ({ kept: _kept, ...cue }: Cue): Cue => cue

const placeOf = (cues: readonly Cue[], id: string): number => cues.findIndex(cue => cue.id === id)

function replaced(cues: readonly Cue[], at: number, count: number, ...by: Cue[]): Cue[] {
  return [...cues.slice(0, at), ...by, ...cues.slice(at + count)]
}

/**
 * Splits a cue before the letter at `offset` of its text; the second half gets `newId`. The timestamp between is `atMs` where
 * that lies within, else it goes by the letters. Where a half would be empty nothing changes.
 */
export function splitCue(cues: readonly Cue[], id: string, offset: number, newId: string, atMs?: number): Cue[] {
  const at = placeOf(cues, id)
  const cue = cues[at]
  if (!cue) return [...cues]
  const [head, tail] = [cue.text.slice(0, offset).trim(), cue.text.slice(offset).trim()]
  if (!head || !tail) return [...cues]
  const bare = withoutMarks(cue)
  if (!isTimed(cue)) return replaced(cues, at, 1, { ...bare, text: head }, { ...bare, id: newId, text: tail })
  const byLetters = cue.fromMs + ((cue.toMs - cue.fromMs) * offset) / Math.max(1, cue.text.length)
  const middle = Math.round(atMs !== undefined && atMs > cue.fromMs && atMs < cue.toMs ? atMs : byLetters)
  return replaced(
    cues,
    at,
    1,
    { ...bare, text: head, toMs: middle },
    { ...bare, id: newId, text: tail, fromMs: middle },
  )
}

/** Joins a cue to the one before it, which keeps its id and its speaker; the first one stays. */
export function joinCue(cues: readonly Cue[], id: string): Cue[] {
  const at = placeOf(cues, id)
  const [before, cue] = [cues[at - 1], cues[at]]
  if (!before || !cue) return [...cues]
  const toMs = isTimed(before) && isTimed(cue) ? Math.max(before.toMs, cue.toMs) : before.toMs
  const text = [before.text.trim(), cue.text.trim()].filter(Boolean).join(' ')
  const doubtful = [...(before.doubtful ?? []), ...(cue.doubtful ?? [])]
  return replaced(cues, at - 1, 2, { ...withoutMarks(before), toMs, text, ...(doubtful.length > 0 && { doubtful }) })
}

/** The beginning of a cue, or its end. */
export type CueEdge = 'fromMs' | 'toMs'

/** A cue that is moved by hand stays so long. */
const shortestMs = 100
/** What lies closer than that to each other touches. */
const touchMs = 50

/**
 * Moves the beginning or the end of a cue to a timestamp, which is meant from then on. A neighbour that touched it there goes
 * along, and one in the way gives way; each stays a tenth of a second long.
 */
export function moveEdge(cues: readonly Cue[], id: string, edge: CueEdge, ms: number): Cue[] {
  const at = placeOf(cues, id)
  const cue = cues[at]
  if (!cue || !isTimed(cue)) return [...cues]
  const isBegin = edge === 'fromMs'
  const next = cues[at + (isBegin ? -1 : 1)]
  const neighbour = next && isTimed(next) ? next : null
  const [low, high] = isBegin
    ? [neighbour ? neighbour.fromMs + shortestMs : 0, cue.toMs - shortestMs]
    : [cue.fromMs + shortestMs, neighbour ? neighbour.toMs - shortestMs : Infinity]
  if (low > high) return [...cues]
  const to = Math.round(Math.min(high, Math.max(low, ms)))
  const { sure: _sure, ...known } = cue
  const moved = { ...known, [edge]: to, isPinned: true }
  if (!neighbour) return replaced(cues, at, 1, moved)
  const facing = isBegin ? 'toMs' : 'fromMs'
  const isInTheWay = isBegin ? neighbour.toMs > to : neighbour.fromMs < to
  const goesAlong = isInTheWay || Math.abs(neighbour[facing] - cue[edge]) <= touchMs
  const other = goesAlong ? { ...neighbour, [facing]: to } : neighbour
  return isBegin ? replaced(cues, at - 1, 2, other, moved) : replaced(cues, at, 2, moved, other)
}

/** Moves cues from one on, or one alone, by so many milliseconds; none before 0:00, and none against another. */
export function shiftCues(cues: readonly Cue[], fromId: string, byMs: number, which: 'one' | 'all after'): Cue[] {
  const at = placeOf(cues, fromId)
  const first = cues[at]
  if (!first || !isTimed(first)) return [...cues]
  const by = Math.max(byMs, -first.fromMs)
  return cues.map((cue, index) =>
    isTimed(cue) && (index === at || (which === 'all after' && index > at))
      ? { ...cue, fromMs: Math.max(0, cue.fromMs + by), toMs: Math.max(0, cue.toMs + by) }
      : cue,
  )
}

/** A timestamp of a transcript, and the one that it should be. */
export interface Anchor {
  isMs: number
  shouldMs: number
}

/**
 * Stretches all times so that two timestamps come to stand where they should, as for a transcript of another cut. Throws a
 * RangeError where the two are one, or would change their order.
 */
export function stretchCues(cues: readonly Cue[], one: Anchor, other: Anchor): Cue[] {
  const factor = (other.shouldMs - one.shouldMs) / (other.isMs - one.isMs)
  if (!(factor > 0 && Number.isFinite(factor)))
    throw new RangeError('The two timestamps must lie apart, and keep their order.')
  const moved = (ms: number): number => Math.max(0, Math.round(one.shouldMs + (ms - one.isMs) * factor))
  return cues.map(cue => (isTimed(cue) ? { ...cue, fromMs: moved(cue.fromMs), toMs: moved(cue.toMs) } : cue))
}

/** Gives a speaker another name wherever they speak. */
export const renameSpeaker = (cues: readonly Cue[], name: string, to: string | null): Cue[] =>
  cues.map(cue => (cue.speaker === name ? { ...cue, speaker: to } : cue))

/** Who speaks, each once, in the order of their first words. */
export const speakersIn = (cues: readonly Cue[]): string[] => [...new Set(cues.flatMap(({ speaker }) => speaker ?? []))]

/** Where words are found in a text: each by where it begins. */
export interface Found {
  id: string
  at: number
}

/** Every place of some words, whatever their case. */
export function findWords(cues: readonly Cue[], words: string): Found[] {
  const wanted = words.toLocaleLowerCase()
  if (!wanted) return []
  return cues.flatMap(({ id, text }) => {
    const within = text.toLocaleLowerCase()
    // Letters that become more than one in small would move all places behind them.
    const searched = within.length === text.length ? within : text
    const found: Found[] = []
    for (let at = searched.indexOf(wanted); at >= 0; at = searched.indexOf(wanted, at + wanted.length))
      found.push({ id, at })
    return found
  })
}

/** Puts other words at places that were found. */
export function replaceWords(cues: readonly Cue[], places: readonly Found[], words: string, by: string): Cue[] {
  const byCue = new Map<string, number[]>()
  for (const { id, at } of places) {
    const known = byCue.get(id)
    if (known) known.push(at)
    else byCue.set(id, [at])
  }
  return cues.map(cue => {
    const ats = byCue.get(cue.id)?.toSorted((one, other) => one - other)
    if (!ats) return cue
    const kept = [0, ...ats.map(at => at + words.length)].map((from, index) => cue.text.slice(from, ats[index]))
    return { ...cue, text: kept.join(by) }
  })
}

/** The place of the cue that is heard at a timestamp, or between two of the one that was; −1 before the first. */
export const heardAt = (cues: readonly Cue[], atMs: number): number =>
  cues.findLastIndex(({ fromMs }) => fromMs !== null && fromMs <= atMs + slackMs)
/** A player that was sent to a timestamp may stand a little before it. */
const slackMs = 30

/** Cues by the clock of the sound that is delivered; those that were cut out whole fall away. */
export const deliveredCues = (
  cues: readonly Cue[],
  { toDelivered, keeps }: Pick<Timeline, 'toDelivered' | 'keeps'>,
): Cue[] =>
  cues.flatMap(cue => {
    if (!isTimed(cue)) return [cue]
    const [fromMs, toMs] = [toDelivered(cue.fromMs), toDelivered(cue.toMs)]
    return toMs > fromMs || keeps(cue.fromMs) ? [{ ...cue, fromMs, toMs }] : []
  })
