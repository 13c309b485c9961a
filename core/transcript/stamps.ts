/** Milliseconds of hours, minutes, seconds and what stands behind the point. */
const milliseconds = (hours: string | undefined, minutes: string, seconds: string, parts = ''): number =>
  ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000 + Number(parts.slice(0, 3).padEnd(3, '0'))

const strict = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})$/
const loose = /^(?:(\d{1,6}):)?(\d{1,3}):(\d{1,2})(?:[.,](\d{1,6}))?$/

/** A WebVTT timestamp (section 4.1.2); null for anything else. */
export function vttMoment(text: string): number | null {
  const [, hours, minutes, seconds, parts] = strict.exec(text) ?? []
  return minutes === undefined ? null : milliseconds(hours, minutes, seconds!, parts)
}

/** A timestamp as people and programs write them: point or comma, hours or none; null for anything else. */
export function looseMoment(text: string): number | null {
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
export const vttStamp = (ms: number): string => stamp(ms, '.')
export const srtStamp = (ms: number): string => stamp(ms, ',')
