import type { Want, WantCode } from '@core/episode/wants'

/** What a want says, and what happens if it stays. */
export function wantWords({ code, told = '' }: Want): string {
  return words[code](told)
}

const words: Readonly<Record<WantCode, (told: string) => string>> = {
  'no-notes': () => 'There are no notes yet. Lists and pages will show only the title.',
  'first-sentence-empty': () => 'The first sentence says nothing about this episode, and lists show only that.',
  'link-without-address': () => 'A link in the notes has no address.',
  'link-misspelt': told => `“${told.replace(/^mailto:/, '')}” is not a valid address, so the link leads nowhere.`,
  'link-fails': told => told,
  'no-hook': () => 'No hook. Lists with room for a second line will show the start of the notes.',
  'few-tags': () => 'Fewer than two tags. Searches on the page and in some apps find it less often.',
  'number-twice': told => `“${told}” has this number, too. Apps that go by numbers show one of the two.`,
  'number-skipped': told => `There is no ${told} before it. Listeners may look for one that they missed.`,
  'chapter-times-back': () => 'Times in the notes go back, so no chapters are made of them. Put them in order.',
  'chapter-behind-end': () => 'It begins after the audio ends. Listeners will never reach it.',
  'chapter-cut-off': () => 'It is trimmed off, or nearly all of it, so it will not be published.',
  'chapters-close': () => 'It begins within a second of the one before. Players show one of the two.',
  'chapter-more-than-m4a': () =>
    'An M4A has titles of chapters only. Links, pictures and chapters that no list shows reach apps by the feed.',
  'chapters-begin-late': told => `Nothing begins at 0:00. Some apps show “${told}” from the start.`,
  'chapter-untitled': () => 'It has no title yet; lists leave it out.',
  'soundbite-short': () => 'Under 15 seconds; some apps leave such short ones out.',
  'soundbite-long': () => 'Over two minutes; some apps stop before its end.',
  'soundbite-cut-into': () => 'A part of it is cut off when the sound is finished.',
  'soundbite-cut-off': () => 'It lies in a part that is trimmed off, so it will not be published.',
  'number-against-dates': told =>
    `It is released on the other side of ${told}. Apps put some shows in the order of numbers, others by dates.`,
}
