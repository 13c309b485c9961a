import { DateTime } from 'luxon'
import type { PublicShow } from './pages'

/** The day of a release as the show's zone and language write it. */
export function releaseDay(releasedAt: string, { zone, language }: Pick<PublicShow, 'zone' | 'language'>): string {
  return DateTime.fromISO(releasedAt, { zone, locale: language }).toLocaleString(DateTime.DATE_FULL)
}

/** The name of the site that an address leads to. */
export const siteOf = (address: string): string => new URL(address).host.replace(/^www\./, '')
