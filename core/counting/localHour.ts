import { DateTime } from 'luxon'

/** Of countries with several clocks the one by which most people live (common practice, no source). */
const mostUsed: Readonly<Record<string, string>> = {
  AR: 'America/Argentina/Buenos_Aires',
  AU: 'Australia/Sydney',
  BR: 'America/Sao_Paulo',
  CA: 'America/Toronto',
  CD: 'Africa/Kinshasa',
  CL: 'America/Santiago',
  CN: 'Asia/Shanghai',
  DE: 'Europe/Berlin',
  EC: 'America/Guayaquil',
  ES: 'Europe/Madrid',
  FM: 'Pacific/Pohnpei',
  FR: 'Europe/Paris',
  ID: 'Asia/Jakarta',
  KI: 'Pacific/Tarawa',
  KZ: 'Asia/Almaty',
  MN: 'Asia/Ulaanbaatar',
  MX: 'America/Mexico_City',
  NZ: 'Pacific/Auckland',
  PG: 'Pacific/Port_Moresby',
  PT: 'Europe/Lisbon',
  RU: 'Europe/Moscow',
  US: 'America/New_York',
  UZ: 'Asia/Tashkent',
}

const known = new Map<string, string | null>()

/** A country's clock; null where it has none that is known. */
export function zoneOf(country: string): string | null {
  let zone = known.get(country)
  if (zone === undefined) {
    zone = mostUsed[country] ?? zonesOf(country)[0] ?? null
    known.set(country, zone)
  }
  return zone
}

function zonesOf(country: string): readonly string[] {
  // What ECMA-402 calls Intl Locale Info: in some engines a value, in others a function.
  const locale = new Intl.Locale(`und-${country}`) as Intl.Locale & {
    timeZones?: string[]
    getTimeZones?: () => string[] | undefined
  }
  return locale.getTimeZones?.() ?? locale.timeZones ?? []
}

const hours = new Map<string, number>()

/** The hour of the week, 0 on Monday at midnight to 167, where most people of a country live; null where no clock is known. */
export function localHour(at: Date, country: string): number | null {
  const zone = zoneOf(country)
  if (!zone) return null
  const key = `${Math.floor(+at / 900_000)} ${zone}`
  let hour = hours.get(key)
  if (hour === undefined) {
    const local = DateTime.fromJSDate(at, { zone })
    hour = (local.weekday - 1) * 24 + local.hour
    if (hours.size > 10_000) hours.clear()
    hours.set(key, hour)
  }
  return hour
}
