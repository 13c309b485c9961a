import { decodeHTML } from 'entities'
import { wordsOf } from './bytes'
import type { Cue, Reading } from './cue'
import { readVtt } from './vtt'

/**
 * Reads what a copyist has drafted: WebVTT, in which words that it was not sure of are spans of the class `doubtful`
 * (W3C WebVTT, section 3.3.3). All else that is marked up falls away: nobody has written it on purpose. Throws NoTranscript.
 */
export function readDraft(bytes: Uint8Array): Reading {
  const { transcript, remarks } = readVtt(wordsOf(bytes), true)
  const cues = transcript.cues.filter(({ text }) => text.trim() !== '').map(cueOf)
  return { transcript: { cues }, remarks }
}

function cueOf({ kept, ...cue }: Cue): Cue {
  const doubtful = doubtfulIn(kept?.marked?.source ?? '')
  return { ...cue, ...(doubtful.length > 0 && { doubtful }) }
}

const doubtfulIn = (source: string): string[] =>
  [...source.matchAll(/<c\.doubtful>([^<]+)/g)].map(([, words]) => decodeHTML(words!).trim()).filter(Boolean)
