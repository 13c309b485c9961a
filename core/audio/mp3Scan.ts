import { bytesBefore, headerAt, id3v2Length, type Mp3Frame, type Mp3Header, mp3Header } from './mp3Frame'

/** What a walk over every frame of an MP3 finds. */
export interface Mp3Scan {
  /** Frames with sound; a Xing or Info frame is not one of them. */
  frames: number
  durationMs: number
  sampleRateHz: number
  channels: 1 | 2
  /** Mean over the frames. */
  bitRateBps: number
  /** Where the first frame begins, that of a Xing or Info header included, and where the last whole one ends. */
  soundFromBytes: number
  soundToBytes: number
  /** Bytes before the first frame that belong to no tag. */
  leadingJunkBytes: number
  /** Bytes between frames that belong to none. */
  innerJunkBytes: number
  /** Bytes behind the last frame that belong to no tag. */
  trailingJunkBytes: number
  /** The last frame is not whole, or there are fewer frames than the file's own header announces. */
  cutShort: boolean
  /** The first frame goes on with sound that began before it, and that is not there. */
  lacksBeginning: boolean
  /** Frames the Xing or Info header announces; null where there is no such header. */
  announcedFrames: number | null
  /** Samples at the beginning that the encoder needed to get going, as it says; 0 where it does not. */
  delaySamples: number
}

const lookaheadFrames = 3
const longestFrameBytes = 2881
const wanted = longestFrameBytes * (lookaheadFrames + 1)

/**
 * Walks an MP3 frame by frame as its bytes come in, in constant memory; the duration is the sum of the frames' samples
 * without those that the encoder added at the ends, so it is exact for any bit rate, constant or not.
 */
export class Mp3Scanner {
  private pending: Uint8Array = new Uint8Array(0)
  private skipBytes = 0
  private inSync = false
  private first: Mp3Frame | null = null
  private header: Mp3Header | null = null
  private frames = 0
  private seconds = 0
  private frameBytes = 0
  private leadingJunk = 0
  private innerJunk = 0
  private doubtfulJunk = 0
  private lastFrameCut = false
  private lacksBeginning = false
  /** Where `pending` begins in the file. */
  private pendingFrom = 0
  private soundFrom = 0
  private soundTo = 0

  /** @param onFrame is told each frame of sound, and the byte at which it begins */
  constructor(private readonly onFrame?: (atByte: number, frame: Mp3Frame) => void) {}

  push(chunk: Uint8Array): void {
    this.pending = this.pending.length ? concatenate(this.pending, chunk) : chunk
    this.walk(wanted)
  }

  /** Ends the walk. Null where no frame was found. */
  finish(): Mp3Scan | null {
    this.walk(0)
    if (!this.first || this.frames === 0) return null
    return {
      frames: this.frames,
      durationMs: Math.max(0, this.seconds - this.silentSeconds()) * 1000,
      sampleRateHz: this.first.sampleRateHz,
      channels: this.first.channels,
      bitRateBps: Math.round((this.frameBytes * 8) / this.seconds),
      soundFromBytes: this.soundFrom,
      soundToBytes: this.soundTo,
      leadingJunkBytes: this.leadingJunk,
      innerJunkBytes: this.innerJunk,
      trailingJunkBytes: this.doubtfulJunk,
      cutShort: this.lastFrameCut || (this.header?.frames ?? 0) > this.frames + 1,
      lacksBeginning: this.lacksBeginning,
      announcedFrames: this.header?.frames ?? null,
      delaySamples: this.header?.delaySamples ?? 0,
    }
  }

  /** Of a file that is cut short, the padding at the end is not there any more; what is left of the two is too little to tell apart. */
  private silentSeconds(): number {
    const isWhole = !this.lastFrameCut && (this.header?.frames ?? 0) <= this.frames
    const { delaySamples = 0, paddingSamples = 0 } = this.header ?? {}
    return isWhole ? (delaySamples + paddingSamples) / this.first!.sampleRateHz : 0
  }

  /** Takes what can be taken while `keepBytes` stay ahead of the place; 0 takes all, at the file's end. */
  private walk(keepBytes: number): void {
    let at = Math.min(this.skipBytes, this.pending.length)
    this.skipBytes -= at
    while (this.skipBytes === 0 && this.pending.length - at > keepBytes) {
      const step = this.step(at, keepBytes === 0)
      if (at + step > this.pending.length) this.skipBytes = at + step - this.pending.length
      at = Math.min(at + step, this.pending.length)
    }
    this.pending = this.pending.slice(at)
    this.pendingFrom += at
  }

  /** Handles what stands at an offset and answers how many bytes it takes up. */
  private step(at: number, atEnd: boolean): number {
    const tag = tagLength(this.pending, at)
    if (tag > 0) {
      this.inSync = false
      // A tag that has a footer only: what stood before it and looked like junk belongs to it.
      this.doubtfulJunk = Math.max(0, this.doubtfulJunk - apeBytesBefore(this.pending, at))
      return tag
    }
    const frame = headerAt(this.pending, at)
    if (!frame || !this.fits(frame, at, atEnd)) return this.junk(at)
    if (at + frame.lengthBytes > this.pending.length) {
      this.lastFrameCut = true
      return this.pending.length - at
    }
    this.take(frame, at)
    return frame.lengthBytes
  }

  private take(frame: Mp3Frame, at: number): void {
    this.inSync = true
    this.innerJunk += this.doubtfulJunk
    this.doubtfulJunk = 0
    this.soundTo = this.pendingFrom + at + frame.lengthBytes
    if (!this.first) {
      this.soundFrom = this.pendingFrom + at
      this.first = frame
      const header = mp3Header(this.pending, at, frame)
      if (header) {
        this.header = header
        return
      }
      this.lacksBeginning = bytesBefore(this.pending, at, frame) > 0
    }
    this.onFrame?.(this.pendingFrom + at, frame)
    this.frames++
    this.seconds += frame.samples / frame.sampleRateHz
    this.frameBytes += frame.lengthBytes
  }

  /** In step, any header is believed; out of step only one that others follow, as four bytes can look like one by chance. */
  private fits(frame: Mp3Frame, at: number, atEnd: boolean): boolean {
    if (this.inSync) return true
    let next = at + frame.lengthBytes
    for (let n = 0; n < lookaheadFrames; n++) {
      if (next >= this.pending.length) return atEnd && n > 0
      const header = headerAt(this.pending, next)
      if (!header) return atEnd && n > 0 && tagLength(this.pending, next) > 0
      next += header.lengthBytes
    }
    return true
  }

  private junk(at: number): number {
    const next = nextMark(this.pending, at + 1)
    // A mark that the piece's end cuts in two is found with the next piece.
    const width = next < 0 ? Math.max(1, this.pending.length - at - (apeMark.length - 1)) : next - at
    this.inSync = false
    // Junk behind the last frame is harmless; it counts only once another frame follows it.
    if (this.first) this.doubtfulJunk += width
    else this.leadingJunk += width
    return width
  }
}

const apeMark = [...'APETAGEX'].map(letter => letter.charCodeAt(0))

/** Where a frame or an APE tag could begin next; −1 where none could. */
function nextMark(bytes: Uint8Array, from: number): number {
  const frame = bytes.indexOf(0xff, from)
  const end = frame < 0 ? bytes.length : frame
  for (let at = bytes.indexOf(apeMark[0]!, from); at >= 0 && at < end; at = bytes.indexOf(apeMark[0]!, at + 1)) {
    if (apeMark.every((letter, index) => bytes[at + index] === letter)) return at
  }
  return frame
}

/** Length of an ID3v2, ID3v1 or APE tag at an offset; 0 where there is none. */
function tagLength(bytes: Uint8Array, at: number): number {
  const id3 = id3v2Length(bytes, at)
  if (id3 > 0) return id3
  const starts = (mark: string): boolean => [...mark].every((letter, i) => bytes[at + i] === letter.charCodeAt(0))
  if (starts('TAG') && bytes.length - at <= 128) return 128
  if (!starts('APETAGEX') || at + 32 > bytes.length) return 0
  const view = new DataView(bytes.buffer, bytes.byteOffset + at, 32)
  return isApeHeader(view) ? 32 + view.getUint32(12, true) : 32
}

// APEv2: bit 29 of the flags says that this is the header; bit 31 that there is one (from memory of the published description).
const isApeHeader = (view: DataView): boolean => (view.getUint32(20, true) & 0x20000000) !== 0

/** How many bytes before an APE footer belong to its tag, where that has no header; 0 for everything else. */
function apeBytesBefore(bytes: Uint8Array, at: number): number {
  if (at + 32 > bytes.length || String.fromCharCode(...bytes.subarray(at, at + 8)) !== 'APETAGEX') return 0
  const view = new DataView(bytes.buffer, bytes.byteOffset + at, 32)
  const hasHeader = (view.getUint32(20, true) & 0x80000000) !== 0
  return isApeHeader(view) || hasHeader ? 0 : Math.max(0, view.getUint32(12, true) - 32)
}

function concatenate(one: Uint8Array, other: Uint8Array): Uint8Array {
  const both = new Uint8Array(one.length + other.length)
  both.set(one)
  both.set(other, one.length)
  return both
}
