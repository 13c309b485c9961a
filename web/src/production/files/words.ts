import type { AudioFile } from '@contract/sound'
import { signed } from '@core/words/amounts'
import { t } from './messages'

const names: Readonly<Record<string, string>> = {
  'audio/mpeg': 'MP3',
  'audio/mp4': 'M4A',
  'audio/wav': 'WAV',
  'audio/flac': 'FLAC',
  'audio/ogg': 'Ogg',
}

/** `MP3, 128 kbit/s, 44.1 kHz, stereo` */
export function formatOf({ type, bitRateBps, sampleRateHz, channels }: AudioFile): string {
  return [
    names[type] ?? type,
    bitRateBps ? t('bitRate', { kilobits: Math.round(bitRateBps / 1000) }) : null,
    t('sampleRate', { kilohertz: sampleRateHz / 1000 }),
    t('channels', { count: channels }),
  ]
    .filter(Boolean)
    .join(', ')
}

/** Loudness and peak as the desk shows them: `−16.0 LUFS`, `−1.2 dBTP`; `silence` where there is none. */
export const loudnessWords = (lufs: number | null): string =>
  lufs === null ? t('silence') : t('lufs', { lufs: signed(lufs) })
export const peakWords = (dbtp: number | null): string =>
  dbtp === null ? t('silence') : t('dbtp', { dbtp: signed(dbtp) })
