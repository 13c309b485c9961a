import { amount, clock } from '../words/amounts'
import type { Mp3Scan } from './mp3Scan'

/** The outcome of a check: what was found, what happens if it stays, and how grave it is. */
export interface Finding {
  weight: 'must mend' | 'worth mending' | 'good to know'
  code: 'cut-short' | 'junk-before' | 'junk-within'
  says: string
  ifItStays: string
}

/** What the walk over an MP3's frames gives reason to say. */
export function mp3Findings(scan: Mp3Scan): Finding[] {
  const findings: Finding[] = []
  if (scan.cutShort) findings.push({
    weight: 'worth mending',
    code: 'cut-short',
    says: scan.announcedFrames && scan.announcedFrames > scan.frames + 1
      ? `The file looks cut short: its header announces ${clock(announcedMs(scan))}, it holds ${clock(scan.durationMs)}.`
      : 'The file looks cut short: it ends in the middle of a frame.',
    ifItStays: 'Listeners would hear it break off. Listen to the end, or upload the file again.',
  })
  if (scan.leadingJunkBytes > 4096) findings.push({
    weight: 'worth mending',
    code: 'junk-before',
    says: `${amount(scan.leadingJunkBytes)} stand before the first sound and are neither sound nor a tag.`,
    ifItStays: 'Some apps start late or not at all. Export the file again.',
  })
  if (scan.innerJunkBytes > 4096) findings.push({
    weight: 'worth mending',
    code: 'junk-within',
    says: `${amount(scan.innerJunkBytes)} in the midst of the file are not sound.`,
    ifItStays: 'Apps skip or crackle there. Export the file again.',
  })
  return findings
}

const announcedMs = (scan: Mp3Scan): number => (scan.durationMs / scan.frames) * (scan.announcedFrames ?? 0)
