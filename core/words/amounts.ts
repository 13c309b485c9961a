/** A duration as people read it: `4:05`, `1:02:09`. */
export function clock(ms: number): string {
  const seconds = Math.round(ms / 1000)
  const parts = [Math.floor(seconds / 60) % 60, seconds % 60].map(part => String(part).padStart(2, '0'))
  const hours = Math.floor(seconds / 3600)
  return hours > 0 ? `${hours}:${parts.join(':')}` : parts.join(':').replace(/^0/, '')
}

/** An amount of data as people read it, in decimal units: `812 kB`, `24.6 MB`, `1.2 GB`. */
export function amount(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`
  if (bytes < 999_500) return `${Math.round(bytes / 1000)} kB`
  return bytes < 999_950_000 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`
}

/** A level with its sign, to a tenth: `−16.0`, `+1.2`. */
export const signed = (value: number): string =>
  `${value < -0.05 ? '−' : value > 0.05 ? '+' : ''}${Math.abs(value).toFixed(1)}`
