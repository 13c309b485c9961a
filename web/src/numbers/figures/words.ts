import { type Refusal, type Source } from '@core/counting/count'
import type { Device } from '@core/counting/programs'
import type { Age } from '@core/counting/age'
import { locale } from '../../platform/messages'
import { t } from './messages'

export const whole = (value: number): string => value.toLocaleString(locale)

const percent = (value: number): string => value.toLocaleString(locale, { style: 'percent', maximumFractionDigits: 0 })

/** A share as a person reads it; what is there is never told as nothing. */
export function share(part: number, of: number): string {
  if (of === 0) return ''
  return part > 0 && part / of < 0.005 ? t('underOnePercent') : percent(part / of)
}

const regions = new Intl.DisplayNames(locale, { type: 'region' })
/** A place as people call it: the country, with its region where that is known. */
export function placeName(place: string): string {
  if (place === '') return t('unknownPlace')
  const [country, region] = place.split('/')
  return region ? `${regions.of(country!)!}, ${region}` : regions.of(country!)!
}

export const deviceNames: Readonly<Record<Device, string>> = {
  phone: t('phone'),
  computer: t('computer'),
  tablet: t('tablet'),
  speaker: t('speaker'),
  watch: t('watch'),
  car: t('car'),
  television: t('television'),
  unknown: t('unknownDevice'),
}

export const sourceNames: Readonly<Record<Source, string>> = {
  feed: t('fromFeed'),
  page: t('fromPage'),
  frame: t('fromFrame'),
  private: t('fromPrivateFeed'),
}

export const refusalWords: Readonly<Record<Refusal, string>> = {
  robot: t('refusedRobot'),
  hosted: t('refusedHosted'),
  prefetch: t('refusedPrefetch'),
  'unknown-file': t('refusedUnknownFile'),
  head: t('refusedHead'),
  unchanged: t('refusedUnchanged'),
  'no-answer': t('refusedNoAnswer'),
  'under-a-minute': t('refusedUnderAMinute'),
}

export const ageWords = ({ unit, many }: Age): string =>
  unit === 'hours' ? t('afterHours', { count: many }) : t('afterDays', { count: many })
