import { type Chapter, shortestSoundbiteMs, type Soundbite } from './fields'

/** Chapters and soundbites by another clock; a soundbite of which too little is left is none. */
export function moveMarks(
  marks: { chapters: readonly Chapter[] | null; soundbites: readonly Soundbite[] },
  to: (ms: number) => number | null,
): { chapters: Chapter[] | null; soundbites: Soundbite[] } {
  const rounded = (ms: number): number => Math.round(to(ms) ?? ms)
  return {
    chapters:
      marks.chapters &&
      marks.chapters
        .map(chapter => ({ ...chapter, fromMs: rounded(chapter.fromMs) }))
        .toSorted((one, other) => one.fromMs - other.fromMs),
    soundbites: marks.soundbites
      .map(soundbite => ({ ...soundbite, fromMs: rounded(soundbite.fromMs), toMs: rounded(soundbite.toMs) }))
      .filter(({ fromMs, toMs }) => toMs - fromMs >= shortestSoundbiteMs),
  }
}
