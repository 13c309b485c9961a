export interface WavForm {
  sampleRateHz: number
  channels: number
  bitsPerSample: 16 | 24
}

export const wavHeadBytes = 44

/**
 * The head of a WAV of PCM (Multimedia Programming Interface and Data Specifications 1.0, "WAVE", from memory), before so many
 * bytes of samples; null for a stream that has not ended.
 */
export function wavHead({ sampleRateHz, channels, bitsPerSample }: WavForm, dataBytes: number | null): Uint8Array {
  const head = new DataView(new ArrayBuffer(wavHeadBytes))
  const letters = (at: number, text: string): void => {
    for (let i = 0; i < text.length; i++) head.setUint8(at + i, text.charCodeAt(i))
  }
  const frameBytes = (channels * bitsPerSample) / 8
  letters(0, 'RIFF')
  head.setUint32(4, dataBytes === null ? 0xffffffff : wavHeadBytes - 8 + dataBytes, true)
  letters(8, 'WAVEfmt ')
  head.setUint32(16, 16, true)
  head.setUint16(20, 1, true)
  head.setUint16(22, channels, true)
  head.setUint32(24, sampleRateHz, true)
  head.setUint32(28, sampleRateHz * frameBytes, true)
  head.setUint16(32, frameBytes, true)
  head.setUint16(34, bitsPerSample, true)
  letters(36, 'data')
  head.setUint32(40, dataBytes ?? 0xffffffff, true)
  return new Uint8Array(head.buffer)
}

const most = 2 ** 23 - 1

/** Samples, −1 to 1 and cut off there, as 24 bits each, the lowest first. */
export function pcm24(samples: Float32Array): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(samples.length * 3)
  for (let i = 0; i < samples.length; i++) {
    const value = Math.max(-most - 1, Math.min(most, Math.round(samples[i]! * (most + 1))))
    bytes[3 * i] = value
    bytes[3 * i + 1] = value >> 8
    bytes[3 * i + 2] = value >> 16
  }
  return bytes
}
