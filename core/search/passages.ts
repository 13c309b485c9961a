import type { Chapter, EpisodeText } from '../episode/fields'
import { plainNotes } from '../notes/plain'

export type PassageKind = 'title' | 'hook' | 'notes' | 'person' | 'tag' | 'chapter' | 'said'

/** A stretch of what is written of an episode, or said in it, that is found as one. */
export interface Passage {
  kind: PassageKind
  text: string
  /** Where its parts begin in the text, and when each is said; in order. */
  times: readonly (readonly [at: number, ms: number])[]
  speaker: string | null
}

/** A stretch of what is said has so many letters at most, and then ends with a sentence where it can. */
const longestSaid = 400
const endOfSentence = /[.!?…。！？]["”’»)]*$/u

interface Said {
  fromMs: number | null
  speaker: string | null
  text: string
}

/** All that can be found of an episode; times are by the clock of the sound that is heard. */
export function passagesOf(
  { hook, notes, people, tags }: Pick<EpisodeText, 'hook' | 'notes' | 'people' | 'tags'>,
  title: string,
  chapters: readonly Pick<Chapter, 'fromMs' | 'title'>[],
  said: readonly Said[],
): Passage[] {
  const one = (kind: PassageKind, text: string, ms: number | null = null): Passage => ({
    kind,
    text,
    times: ms === null ? [] : [[0, ms]],
    speaker: null,
  })
  return [
    one('title', title),
    one('hook', hook),
    ...plainNotes(notes)
      .split('\n')
      .map(line => one('notes', line.trim())),
    ...people.map(({ name, role }) => one('person', role ? `${name}, ${role}` : name)),
    ...tags.map(tag => one('tag', tag)),
    ...chapters.map(({ title: name, fromMs }) => one('chapter', name, fromMs)),
    ...spoken(said),
  ].filter(({ text }) => text.trim() !== '')
}

/** Cues put together to stretches: what one person says on end, cut between sentences. */
function spoken(said: readonly Said[]): Passage[] {
  const found: (Passage & { times: [number, number][] })[] = []
  for (const { fromMs, speaker, text: lines } of said) {
    const text = lines.replace(/\s+/gu, ' ')
    const open = found.at(-1)
    const goesOn =
      open &&
      open.speaker === speaker &&
      open.text.length + text.length < longestSaid &&
      !(open.text.length > longestSaid / 2 && endOfSentence.test(open.text))
    if (!goesOn) {
      found.push({ kind: 'said', text, speaker, times: fromMs === null ? [] : [[0, fromMs]] })
      continue
    }
    if (fromMs !== null) open.times.push([open.text.length + 1, fromMs])
    open.text = `${open.text} ${text}`
  }
  return found
}
