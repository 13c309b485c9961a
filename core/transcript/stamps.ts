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
  const [hours, minutes, seconds] = [Math.floor(rest / 3600), Math.floor(rest / 60) % 60, rest % 60]
  const two = (part: number): string => String(part).padStart(2, '0')
  return `${two(hours)}:${two(minutes)}:${two(seconds)}${point}${String(ms % 1000).padStart(3, '0')}`
}
export const vttStamp = (ms: number): string => stamp(ms, '.')
export const srtStamp = (ms: number): string => stamp(ms, ',')
