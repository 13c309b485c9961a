import type { AudioFile } from '@contract/sound'
import { signed } from '@core/words/amounts'

const names: Readonly<Record<string, string>> = {
  'audio/mpeg': 'MP3',
  'audio/mp4': 'M4A',
  'audio/wav': 'WAV',
  'audio/flac': 'FLAC',
  'audio/ogg': 'Ogg',
}

/** `MP3, 128 kbit/s, 44.1 kHz, stereo` */
export function formatOf({ type, bitRateBps, sampleRateHz, channels }: AudioFile): string {
  const sides = channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`
  return [
    names[type] ?? type,
    bitRateBps ? `${Math.round(bitRateBps / 1000)} kbit/s` : null,
    `${sampleRateHz / 1000} kHz`,
    sides,
  ]
    .filter(Boolean)
    .join(', ')
}

/** Loudness and peak as the desk shows them: `−16.0 LUFS`, `−1.2 dBTP`; `silence` where there is none. */
export const loudnessWords = (lufs: number | null): string => (lufs === null ? 'silence' : `${signed(lufs)} LUFS`)
export const peakWords = (dbtp: number | null): string => (dbtp === null ? 'silence' : `${signed(dbtp)} dBTP`)
