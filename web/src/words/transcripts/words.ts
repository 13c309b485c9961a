import type { CueFindingCode } from '@core/transcript/findings'

/** What each finding says, and what happens if it stays. */
export const findingWords: Readonly<Record<CueFindingCode, string>> = {
  overlap: 'It begins before the one above has ended; players show both, or one.',
  backwards: 'It ends before it begins. Players skip it.',
  'past-end': 'It ends after the audio does.',
  empty: 'It says nothing.',
  fast: 'More than people can read in its time (about 20 letters a second).',
  'long-line': 'Longer than two lines of 42 characters; screens cut it off, or it covers the picture.',
  silent: 'Hardly anything is heard there.',
  unsaid: 'After it something is heard for six seconds or more that no cue has.',
  doubtful: 'The machine was not sure here: listen, and look.',
}

/** The same in a word or two. */
export const findingNames: Readonly<Record<CueFindingCode, string>> = {
  overlap: 'overlaps',
  backwards: 'goes back',
  'past-end': 'after the end',
  empty: 'empty',
  fast: 'fast to read',
  'long-line': 'long',
  silent: 'over silence',
  unsaid: 'speech after this has no cue',
  doubtful: 'not sure: listen',
}

const names = new Intl.DisplayNames('en', { type: 'language' })
export const languageName = (tag: string): string => {
  try {
    return names.of(tag) ?? tag
  } catch {
    return tag
  }
}
