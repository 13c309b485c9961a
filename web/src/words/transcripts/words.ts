import type { CueFindingCode } from '@core/transcript/findings'
import { t } from './messages'

/** What each finding says, and what happens if it stays. */
export const findingWords: Readonly<Record<CueFindingCode, string>> = {
  overlap: t('cueOverlapsTells'),
  backwards: t('cueGoesBackTells'),
  'past-end': t('cueAfterEndTells'),
  empty: t('cueEmptyTells'),
  fast: t('cueFastTells'),
  'long-line': t('cueLongTells'),
  silent: t('cueOverSilenceTells'),
  unsaid: t('speechWithoutCueTells'),
  doubtful: t('cueUnsureTells'),
}

/** The same in a word or two. */
export const findingNames: Readonly<Record<CueFindingCode, string>> = {
  overlap: 'overlaps',
  backwards: t('goesBack'),
  'past-end': t('afterTheEnd'),
  empty: 'empty',
  fast: t('fastToRead'),
  'long-line': 'long',
  silent: t('overSilence'),
  unsaid: t('speechWithoutCue'),
  doubtful: t('cueUnsure'),
}

const names = new Intl.DisplayNames('en', { type: 'language' })
export const languageName = (tag: string): string => {
  try {
    return names.of(tag) ?? tag
  } catch {
    return tag
  }
}
