import { expect, it } from 'vitest'
import type { AudioFile } from '@contract/sound'
import { formatOf, loudnessWords, peakWords } from './words'

const file = (facts: Partial<AudioFile>) =>
  ({ type: 'audio/mpeg', bitRateBps: 128_000, sampleRateHz: 44_100, channels: 2, ...facts }) as AudioFile

it.each([
  [{}, 'MP3, 128 kbit/s, 44.1 kHz, stereo'],
  [{ type: 'audio/mp4', channels: 1, sampleRateHz: 48_000, bitRateBps: 63_700 }, 'M4A, 64 kbit/s, 48 kHz, mono'],
  [{ type: 'audio/wav', channels: 6, bitRateBps: 0 }, 'WAV, 44.1 kHz, 6 channels'],
  [{ type: 'audio/ogg' }, 'Ogg, 128 kbit/s, 44.1 kHz, stereo'],
])('a file of %j is told as %s', (facts, words) => expect(formatOf(file(facts))).toBe(words))

it('levels have a true minus, a tenth, and silence its word', () => {
  expect([-16.04, 0.96, 0, -0.04, null].map(peakWords)).toEqual([
    '−16.0 dBTP',
    '+1.0 dBTP',
    '0.0 dBTP',
    '0.0 dBTP',
    'silence',
  ])
  expect(loudnessWords(-19.06)).toBe('−19.1 LUFS')
})
