/** Milliseconds of hours, minutes, seconds and what stands behind the point. */
const milliseconds = (hours: string | undefined, minutes: string, seconds: string, parts = ''): number =>
  ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000 + Number(parts.slice(0, 3).padEnd(3, '0'))

/** Two digits at a place as a number; NaN where there are others. */
function twoDigits(text: string, at: number): number {
  const [tens, ones] = [text.charCodeAt(at) - 48, text.charCodeAt(at + 1) - 48]
  return tens >= 0 && tens <= 9 && ones >= 0 && ones <= 9 ? tens * 10 + ones : NaN
}

/** Milliseconds of hh:mm:ss.mmm, which nearly all are, read without looking for anything else; null for all others. */
function usual(text: string, points: string): number | null {
  if (text.length !== 12 || text[2] !== ':' || text[5] !== ':' || !points.includes(text[8]!)) return null
  const [minutes, seconds] = [twoDigits(text, 3), twoDigits(text, 6)]
  const ones = text.charCodeAt(11) - 48
  if (!(minutes < 60 && seconds < 60 && ones >= 0 && ones <= 9)) return null
  const ms = ((twoDigits(text, 0) * 60 + minutes) * 60 + seconds) * 1000 + twoDigits(text, 9) * 10 + ones
  return Number.isNaN(ms) ? null : ms
}

const strict = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})$/
const loose = /^(?:(\d{1,6}):)?(\d{1,3}):(\d{1,2})(?:[.,](\d{1,6}))?$/

/** A WebVTT timestamp (section 4.1.2); null for anything else. */
export function readVttTimestamp(text: string): number | null {
  const ms = usual(text, '.')
  if (ms !== null) return ms
  const [, hours, minutes, seconds, parts] = strict.exec(text) ?? []
  return minutes === undefined ? null : milliseconds(hours, minutes, seconds!, parts)
}

/** A timestamp as people and programs write them: point or comma, hours or none; null for anything else. */
export function readLooseTimestamp(text: string): number | null {
  const ms = usual(text, '.,')
  if (ms !== null) return ms
  const [, hours, minutes, seconds, parts] = loose.exec(text) ?? []
  return minutes === undefined || Number(seconds) > 59 ? null : milliseconds(hours, minutes, seconds!, parts)
}

function stamp(ms: number, point: string): string {
  const rest = Math.floor(ms / 1000)
  const parts = ms % 1000
  const hundreds = parts < 10 ? '00' : parts < 100 ? '0' : ''
  return `${two(Math.floor(rest / 3600))}:${two(Math.floor(rest / 60) % 60)}:${two(rest % 60)}${point}${hundreds}${parts}`
}
const two = (part: number): string => (part < 10 ? `0${part}` : String(part))
export const vttTimestamp = (ms: number): string => stamp(ms, '.')
export const srtTimestamp = (ms: number): string => stamp(ms, ',')
