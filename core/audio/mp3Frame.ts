/** An MPEG audio layer III frame, as its header tells it (ISO/IEC 11172-3 section 2.4.2.3 and 13818-3). */
export interface Mp3Frame {
  lengthBytes: number
  samples: number
  sampleRateHz: number
  bitRateBps: number
  channels: 1 | 2
  /** Bytes from the frame's start to behind its side information, where a Xing or Info header stands. */
  sideEnd: number
  /** Bytes from the frame's start to its side information. */
  sideFrom: number
}

const bitRatesKbps = {
  version1: [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320],
  version2: [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160],
}
const sampleRatesHz: Readonly<Record<number, readonly number[]>> = {
  3: [44100, 48000, 32000],
  2: [22050, 24000, 16000],
  0: [11025, 12000, 8000],
}

/** Reads the frame header at an offset; null where there is none, or one of a free or forbidden bit rate. */
export function headerAt(bytes: Uint8Array, at: number): Mp3Frame | null {
  if (at + 4 > bytes.length || bytes[at] !== 0xff || (bytes[at + 1]! & 0xe0) !== 0xe0) return null
  const second = bytes[at + 1]!
  const third = bytes[at + 2]!
  const version = (second >> 3) & 3
  const layer = (second >> 1) & 3
  const bitRateKbps = (version === 3 ? bitRatesKbps.version1 : bitRatesKbps.version2)[third >> 4]
  const sampleRateHz = sampleRatesHz[version]?.[(third >> 2) & 3]
  if (version === 1 || layer !== 1 || !bitRateKbps || !sampleRateHz) return null
  const samples = version === 3 ? 1152 : 576
  const channels = bytes[at + 3]! >> 6 === 3 ? 1 : 2
  const sideBytes = version === 3 ? (channels === 1 ? 17 : 32) : channels === 1 ? 9 : 17
  return {
    lengthBytes: Math.floor(((samples / 8) * bitRateKbps * 1000) / sampleRateHz) + ((third >> 1) & 1),
    samples,
    sampleRateHz,
    bitRateBps: bitRateKbps * 1000,
    channels,
    sideEnd: 4 + ((second & 1) === 0 ? 2 : 0) + sideBytes,
    sideFrom: 4 + ((second & 1) === 0 ? 2 : 0),
  }
}

/** How many bytes of a frame's sound stand in the frames before it: `main_data_begin` (ISO/IEC 11172-3 section 2.4.1.7; 13818-3 has a bit less). */
export function bytesBefore(bytes: Uint8Array, at: number, { sideFrom, samples }: Mp3Frame): number {
  const [first = 0, second = 0] = bytes.subarray(at + sideFrom, at + sideFrom + 2)
  return samples === 1152 ? (first << 1) | (second >> 7) : first
}

/** Length in bytes of the ID3v2 tag at an offset, with header and footer; 0 where there is none. */
export function id3v2Length(bytes: Uint8Array, at: number): number {
  if (at + 10 > bytes.length || bytes[at] !== 0x49 || bytes[at + 1] !== 0x44 || bytes[at + 2] !== 0x33) return 0
  const size = bytes.subarray(at + 6, at + 10).reduce((sum, byte) => sum * 128 + (byte & 0x7f), 0)
  const hasFooter = (bytes[at + 5]! & 0x10) !== 0
  return 10 + size + (hasFooter ? 10 : 0)
}

/** Where a VBRI header stands in its frame, whatever the frame's form. */
const vbriAt = 36

/** What the header in an MP3's first frame says. */
export interface Mp3Header {
  /** Frames that it announces; 0 where it does not say. */
  frames: number
  /** Bytes from this frame to the end of the last, as it announces them; 0 where it does not say. */
  bytes: number
  /** Samples at the ends that are no sound: what the encoder needed to get going, and what filled its last frame. */
  delaySamples: number
  paddingSamples: number
}

/** The Xing, Info or VBRI header in this frame; null where it has none, and so is a frame of sound. */
export function mp3Header(bytes: Uint8Array, at: number, frame: Mp3Frame): Mp3Header | null {
  const mark = (from: number): string => String.fromCharCode(...bytes.subarray(from, from + 4))
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  // Some writers leave room for a checksum before it, some do not.
  const from = [at + frame.sideEnd, at + frame.sideEnd - checksumBytes].find(
    place => mark(place) === 'Xing' || mark(place) === 'Info',
  )
  if (from !== undefined && from + 8 <= bytes.length) {
    const flags = view.getUint32(from + 4)
    const frames = flags & 1 && from + 12 <= bytes.length ? view.getUint32(from + 8) : 0
    const bytesAt = from + 8 + (flags & 1 ? 4 : 0)
    const sized = flags & 2 && bytesAt + 4 <= bytes.length ? view.getUint32(bytesAt) : 0
    return { frames, bytes: sized, ...silentSamples(bytes, from + 8 + fieldBytes(flags)) }
  }
  // VBRI: version, delay, quality (two bytes each), bytes (four), then frames.
  return mark(at + vbriAt) === 'VBRI' && at + vbriAt + 18 <= bytes.length
    ? { frames: view.getUint32(at + vbriAt + 14), bytes: view.getUint32(at + vbriAt + 10), ...noneSilent }
    : null
}

const checksumBytes = 2

/** What the flags of a Xing header say that follows: frames, bytes, table of contents, quality. */
const fieldBytes = (flags: number): number =>
  (flags & 1 ? 4 : 0) + (flags & 2 ? 4 : 0) + (flags & 4 ? 100 : 0) + (flags & 8 ? 4 : 0)

/** The encoder's own field behind a Xing header: nine letters of its name, twelve bytes, then delay and padding of twelve bits each (as LAME's tag specification has it, from memory). */
function silentSamples(bytes: Uint8Array, from: number): Pick<Mp3Header, 'delaySamples' | 'paddingSamples'> {
  if (from + 24 > bytes.length || !/^(LAME|Lavf|Lavc)/.test(String.fromCharCode(...bytes.subarray(from, from + 4))))
    return noneSilent
  const [first, second, third] = bytes.subarray(from + 21, from + 24) as unknown as [number, number, number]
  return { delaySamples: (first << 4) | (second >> 4), paddingSamples: ((second & 15) << 8) | third }
}
const noneSilent = { delaySamples: 0, paddingSamples: 0 }
