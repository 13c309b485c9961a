import type { Severity } from '../words/severity'
import type { Mp3Scan } from './mp3Scan'
import type { Stretch } from './measurement'

/** What each finding tells, beside where it is. Its sentences are in findingWords. */
export interface Figures {
  /** The sound ends before it should; `announcedMs` by what the file says of itself, null where only its end shows it. */
  'cut-short': { announcedMs: number | null; heardMs: number; shows: 'header' | 'frame' | 'page' | 'decoding' }
  'no-beginning': object
  'junk-before': { bytes: number }
  'junk-within': { bytes: number }
  'junk-behind': { bytes: number; heardMs: number }
  'other-tracks': { tracks: number }
  'no-ranges': object
  redirects: { redirects: number }
  'content-type': { contentType: string | null }
  unreachable: { title: string; detail: string; todo: string }
  unmeasured: object
  'not-deliverable': { type: string }
  'many-channels': { channels: number }
  silent: object
  /** `distanceLu` from the show's usual loudness, or from its target; `gainDb` reaches the target. */
  quieter: Loudness
  louder: Loudness
  /** `after` a finish, or before one, where it is foreseen. */
  'deep-limiting': { heldBackDb: number; when: 'before' | 'after' }
  'target-missed': { targetLufs: number; ceilingDbtp: number; missedByLu: number }
  peaks: { truePeakDbtp: number; ceilingDbtp: number }
  clipped: { clips: number }
  'head-silence': { silenceMs: number }
  'tail-silence': { silenceMs: number }
  gaps: { gaps: number }
  damaged: { places: number }
  'one-side': object
  antiphase: object
  range: { rangeLu: number }
  'dual-mono': object
  /** Found by an earlier version, whose sentences are all that is left of it. */
  before: { says: string; rule: string; ifItStays: string }
}

interface Loudness {
  distanceLu: number
  from: 'usual' | 'target'
  gainDb: number
  peakDbtp: number
  targetLufs: number
  channels: number
  needsLimiting: boolean
}

export type FindingCode = keyof Figures

/** The outcome of a check of a sound: what was found, with its figures; how much it matters; the mend. */
export type Finding<Code extends FindingCode = FindingCode> = {
  [Each in Code]: {
    code: Each
    severity: Severity
    figures: Figures[Each]
    /** What one press would do about it, where one press can. */
    fix: 'finish' | 'trim' | 'level' | 'mono' | 'one side' | null
    /** Where in the sound it is, when it is somewhere. */
    places: Stretch[]
  }
}[Code]

/** Makes a finding of its parts. */
export function finding<Code extends FindingCode>(
  severity: Finding['severity'],
  code: Code,
  figures: Figures[Code],
  { fix = null, places = [] }: Partial<Pick<Finding, 'fix' | 'places'>> = {},
): Finding {
  return { severity, code, figures, fix, places } as Finding
}

/** A finding as it was stored, also by versions that stored sentences. */
export function storedFinding(stored: Finding | (Figures['before'] & Omit<Finding, 'code' | 'figures'>)): Finding {
  if ('figures' in stored) return stored
  const { says, rule, ifItStays, severity, fix, places } = stored
  return finding(severity, 'before', { says, rule, ifItStays }, { fix, places })
}

const mostJunkBetweenBytes = 4096
const mostJunkBehindBytes = 65_536

/** What the walk over an MP3's frames gives reason to say. */
export function mp3Findings(scan: Mp3Scan): Finding[] {
  const { durationMs, frames, announcedFrames } = scan
  const found: Finding[] = []
  if (scan.cutShort) {
    const isAnnounced = announcedFrames !== null && announcedFrames > frames + 1
    const announcedMs = isAnnounced ? (durationMs / frames) * announcedFrames : null
    const shows = isAnnounced ? 'header' : 'frame'
    found.push(finding('warning', 'cut-short', { announcedMs, heardMs: durationMs, shows }))
  }
  if (scan.lacksBeginning) found.push(finding('warning', 'no-beginning', {}))
  if (scan.leadingJunkBytes > mostJunkBetweenBytes)
    found.push(finding('warning', 'junk-before', { bytes: scan.leadingJunkBytes }, { fix: 'finish' }))
  if (scan.innerJunkBytes > mostJunkBetweenBytes)
    found.push(finding('warning', 'junk-within', { bytes: scan.innerJunkBytes }))
  if (scan.trailingJunkBytes > mostJunkBehindBytes)
    found.push(finding('warning', 'junk-behind', { bytes: scan.trailingJunkBytes, heardMs: durationMs }))
  return found
}

/** How much of what a file announces may be missing before it counts as cut short. */
const leastMissingMs = 300

/** What there is to say where less is there than a file announces: could be decoded, or by how large it is. */
export const cutShortFinding = (
  announcedMs: number,
  heardMs: number,
  shows: 'decoding' | 'header' = 'decoding',
): Finding | null =>
  announcedMs - heardMs < leastMissingMs ? null : finding('warning', 'cut-short', { announcedMs, heardMs, shows })

/** The last page of an Ogg file is not marked as the last. */
export const cutShortOgg = (heardMs: number): Finding =>
  finding('warning', 'cut-short', { announcedMs: null, heardMs, shows: 'page' })

/** What there is to say of tracks beside the first. */
export const otherTracks = (tracks: number): Finding[] =>
  tracks <= 1 ? [] : [finding('warning', 'other-tracks', { tracks })]
