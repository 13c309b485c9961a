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
  mend: 'finish' | 'trim' | 'level' | 'mono' | null
  /** Where in the sound it is, when it is somewhere. */
  places: Stretch[]
}

const damage = { rule: 'Sound files are frames, one behind the other (ISO/IEC 11172-3).', mend: null, places: [] } as const

/** What the walk over an MP3's frames gives reason to say. */
export function mp3Findings(scan: Mp3Scan): Finding[] {
  const findings: Finding[] = []
  if (scan.cutShort) findings.push({
    ...damage, places: [],
    weight: 'worth mending',
    code: 'cut-short',
    says: scan.announcedFrames && scan.announcedFrames > scan.frames + 1
      ? `The file looks cut short: its header announces ${clock(announcedMs(scan))}, it holds ${clock(scan.durationMs)}.`
      : 'The file looks cut short: it ends in the middle of a frame.',
    ifItStays: 'Listeners would hear it break off. Listen to the end, or upload the file again.',
  })
  if (scan.leadingJunkBytes > 4096) findings.push({
    ...damage, places: [],
    weight: 'worth mending',
    code: 'junk-before',
    says: `${amount(scan.leadingJunkBytes)} stand before the first sound and are neither sound nor a tag.`,
    ifItStays: 'Some apps start late or not at all. Finishing leaves them out.',
    mend: 'finish',
  })
  if (scan.innerJunkBytes > 4096) findings.push({
    ...damage, places: [],
    weight: 'worth mending',
    code: 'junk-within',
    says: `${amount(scan.innerJunkBytes)} in the midst of the file are not sound.`,
    ifItStays: 'Apps skip or crackle there. Export the file again.',
  })
  if (scan.trailingJunkBytes > 65_536) findings.push({
    ...damage, places: [],
    weight: 'worth mending',
    code: 'junk-behind',
    says: `Behind ${clock(scan.durationMs)} of sound come ${amount(scan.trailingJunkBytes)} that are none.`,
    ifItStays: 'If the episode should be longer, the export is broken: listen to the end, or export it again.',
  })
  return findings
}

const announcedMs = (scan: Mp3Scan): number => (scan.durationMs / scan.frames) * (scan.announcedFrames ?? 0)
