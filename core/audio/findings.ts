import { amount, clock } from '../words/amounts'
import type { Mp3Scan } from './mp3Scan'
import type { Stretch } from './measurement'

/** The outcome of a check of a sound: what was found, the rule and where it comes from, what happens if it stays, the mend. */
export interface Finding {
  weight: 'must mend' | 'worth mending' | 'good to know'
  code: string
  says: string
  rule: string
  ifItStays: string
  /** What one press would do about it, where one press can. */
  mend: 'finish' | 'trim' | 'level' | 'mono' | 'one side' | null
  /** Where in the sound it is, when it is somewhere. */
  places: Stretch[]
}

const damage = {
  rule: 'Sound files are frames, one behind the other (ISO/IEC 11172-3).',
  mend: null,
  places: [],
} as const

/** What the walk over an MP3's frames gives reason to say. */
export function mp3Findings(scan: Mp3Scan): Finding[] {
  const findings: Finding[] = []
  if (scan.cutShort)
    findings.push({
      ...damage,
      places: [],
      weight: 'worth mending',
      code: 'cut-short',
      says:
        scan.announcedFrames && scan.announcedFrames > scan.frames + 1
          ? `The file looks cut short: its header announces ${clock(announcedMs(scan))}, it holds ${clock(scan.durationMs)}.`
          : 'The file looks cut short: it ends in the middle of a frame.',
      ifItStays: 'Listeners would hear it break off. Listen to the end, or upload the file again.',
    })
  if (scan.leadingJunkBytes > 4096)
    findings.push({
      ...damage,
      places: [],
      weight: 'worth mending',
      code: 'junk-before',
      says: `${amount(scan.leadingJunkBytes)} stand before the first sound and are neither sound nor a tag.`,
      ifItStays: 'Some apps start late or not at all. Finishing leaves them out.',
      mend: 'finish',
    })
  if (scan.innerJunkBytes > 4096)
    findings.push({
      ...damage,
      places: [],
      weight: 'worth mending',
      code: 'junk-within',
      says: `${amount(scan.innerJunkBytes)} in the midst of the file are not sound.`,
      ifItStays: 'Apps skip or crackle there. Export the file again.',
    })
  if (scan.trailingJunkBytes > 65_536)
    findings.push({
      ...damage,
      places: [],
      weight: 'worth mending',
      code: 'junk-behind',
      says: `Behind ${clock(scan.durationMs)} of sound come ${amount(scan.trailingJunkBytes)} that are none.`,
      ifItStays: 'If the episode should be longer, the export is broken: listen to the end, or export it again.',
    })
  return findings
}

/** How much of what a file announces may be missing before it counts as cut short. */
const leastMissingMs = 300

/** What there is to say where less could be decoded than a file announces. */
export function cutShortFinding(announcedMs: number, decodedMs: number): Finding | null {
  return announcedMs - decodedMs < leastMissingMs
    ? null
    : {
        ...damage,
        places: [],
        weight: 'worth mending',
        code: 'cut-short',
        says: `The file looks cut short: it announces ${clock(announcedMs)}, and ${clock(decodedMs)} of it can be heard.`,
        ifItStays: 'Listeners would hear it break off. Listen to the end, or upload the file again.',
      }
}

/** The last page of an Ogg file is not marked as the last. */
export const cutShortOgg: Finding = {
  weight: 'worth mending',
  code: 'cut-short',
  says: 'The file looks cut short: its last page is not marked as the end.',
  rule: 'The last page of an Ogg stream says that it is the last (RFC 3533 section 6).',
  ifItStays: 'Listeners would hear it break off. Listen to the end, or upload the file again.',
  mend: null,
  places: [],
}

/** What there is to say of tracks beside the first. */
export const otherTracks = (tracks: number): Finding[] =>
  tracks <= 1
    ? []
    : [
        {
          weight: 'worth mending',
          code: 'other-tracks',
          says:
            tracks === 2
              ? 'There is a second track of sound in this file.'
              : `There are ${tracks} tracks of sound in this file.`,
          rule: 'Listening apps play the first track (common practice, no source).',
          ifItStays:
            'Only the first one is heard and finished. If a voice is missing, mix the tracks before you export.',
          mend: null,
          places: [],
        },
      ]

/** What there is to say of chapters that a file brings. */
export const chaptersFound = (brought: number, inNotes: number): Finding[] =>
  brought === 0
    ? []
    : [
        {
          weight: 'good to know',
          code: 'chapters',
          says: `The file brings ${brought === 1 ? 'one chapter' : `${brought} chapters`}${inNotes > 0 ? `; the ${inNotes} times in the notes take their place` : ''}.`,
          rule: 'Times in the notes are chapters, and go before those in the file, for they were written last (our own rule).',
          ifItStays:
            inNotes > 0 ? 'The finished file has the chapters of the notes.' : 'They are kept when it is finished.',
          mend: null,
          places: [],
        },
      ]

const announcedMs = (scan: Mp3Scan): number => (scan.durationMs / scan.frames) * (scan.announcedFrames ?? 0)
