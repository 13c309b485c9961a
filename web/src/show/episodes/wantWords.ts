import type { Want, WantCode } from '@core/episode/wants'
import { t } from './messages'

/** What a want says, and what happens if it stays. */
export function wantWords({ code, told = '' }: Want): string {
  return words[code](told)
}

const words: Readonly<Record<WantCode, (told: string) => string>> = {
  'no-notes': () => t('noNotes'),
  'first-sentence-empty': () => t('firstSentenceSaysNothing'),
  'link-without-address': () => t('linkWithoutAddress'),
  'link-misspelt': told => t('linkAddressFaulty', { address: told.replace(/^mailto:/, '') }),
  'link-fails': told => told,
  'no-hook': () => t('noHook'),
  'not-the-mix': () => t('notTheMix'),
  'few-tags': () => t('fewTags'),
  'number-twice': told => t('sameNumber', { title: told }),
  'number-skipped': told => t('numberGap', { number: told }),
  'chapter-times-back': () => t('timesGoBack'),
  'chapter-behind-end': () => t('chapterAfterEnd'),
  'chapter-cut-off': () => t('chapterTrimmed'),
  'chapters-close': () => t('chaptersTooClose'),
  'chapter-more-than-m4a': () => t('chaptersPlainInM4a'),
  'chapters-begin-late': told => t('chapterNotAtStart', { title: told }),
  'chapter-untitled': () => t('chapterUntitled'),
  'soundbite-short': () => t('soundbiteShort'),
  'soundbite-long': () => t('soundbiteLong'),
  'soundbite-cut-into': () => t('soundbiteCutOff'),
  'soundbite-cut-off': () => t('soundbiteTrimmed'),
  'number-against-dates': told => t('outOfOrder', { other: told }),
}
