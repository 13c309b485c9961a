import { clock } from './amounts'

/** A timestamp of a sound as people write it, to the tenth: `5:00`, `1:02:09.4`. */
export function timestampText(ms: number): string {
  const tenths = Math.round(ms / 100)
  const rest = tenths % 10
  return `${clock((tenths - rest) * 100)}${rest ? `.${rest}` : ''}`
}

const written = /^(?:(?:(\d{1,4}):)?(\d{1,3}):)?(\d{1,6})(?:[.,](\d{1,3}))?$/

/** The milliseconds of what somebody wrote: `5:00`, `1:02:09.4`, `75`, `5,5`; null where that is no timestamp. */
export function readTimestamp(text: string): number | null {
  const [, hours = '0', minutes, seconds, parts = '0'] = written.exec(text.trim()) ?? []
  if (seconds === undefined) return null
  if (minutes !== undefined && Number(seconds) > 59) return null
  if (hours !== '0' && Number(minutes) > 59) return null
  return ((Number(hours) * 60 + Number(minutes ?? 0)) * 60 + Number(seconds)) * 1000 + Number(parts.padEnd(3, '0'))
}
