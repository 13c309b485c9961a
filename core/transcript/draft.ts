import { decodeHTML } from 'entities'
import { wordsOf } from './bytes'
import { type Cue, longestDoubt, mostCues, mostDoubts, NoTranscript, type Transcript } from './cue'
import { readVtt } from './vtt'

/**
 * Reads what a copyist has drafted: WebVTT, in which words that it was not sure of are spans of the class `doubtful`
 * (W3C WebVTT, “cue class span”). All else that is marked up falls away: nobody has written it on purpose. Throws NoTranscript.
 */
export function readDraft(bytes: Uint8Array): Transcript {
  const { transcript } = readVtt(wordsOf(bytes), true)
  const cues = transcript.cues.filter(({ text }) => text.trim() !== '').map(cueOf)
  if (cues.length > mostCues)
    throw new NoTranscript(
      `It has ${cues.length.toLocaleString('en')} cues; at most ${mostCues.toLocaleString('en')} are taken.`,
    )
  return { cues }
}

function cueOf({ kept, ...cue }: Cue): Cue {
  const doubtful = doubtfulIn(kept?.marked?.source ?? '')
  return { ...cue, ...(doubtful.length > 0 && { doubtful }) }
}

const doubtfulIn = (source: string): string[] =>
  [...source.matchAll(/<c\.doubtful>([^<]+)/g)]
    .map(([, words]) => decodeHTML(words!).trim())
    .filter(words => words !== '' && words.length <= longestDoubt)
    .slice(0, mostDoubts)
