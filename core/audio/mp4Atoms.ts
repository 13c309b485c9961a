/** An atom of an MP4 file: its four letters and where its content stands (ISO/IEC 14496-12 section 4.2). */
export interface Atom {
  type: string
  from: number
  to: number
}

/** The head of the atom at an offset: its type, its length with the head; null where the bytes do not reach. */
export function atomHead(
  bytes: Uint8Array,
  at: number,
): { type: string; headBytes: number; lengthBytes: number } | null {
  if (at + 8 > bytes.length) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8))
  const short = view.getUint32(at)
  if (short !== 1) return { type, headBytes: 8, lengthBytes: short }
  return at + 16 > bytes.length ? null : { type, headBytes: 16, lengthBytes: Number(view.getBigUint64(at + 8)) }
}

const mostAtoms = 2_000

/** The atoms side by side in a piece, as many as a sound file can have. */
export function atomsIn(bytes: Uint8Array, from: number, to: number): Atom[] {
  const found: Atom[] = []
  for (let at = from; at < to && found.length < mostAtoms;) {
    const head = atomHead(bytes, at)
    if (!head || head.lengthBytes < head.headBytes || at + head.lengthBytes > to) break
    found.push({ type: head.type, from: at + head.headBytes, to: at + head.lengthBytes })
    at += head.lengthBytes
  }
  return found
}

export interface Mp4Sound {
  durationMs: number
  sampleRateHz: number
  channels: number
  codec: string
}

/** Length and form of the sound that a `moov` atom's content describes; null where it describes none, or nothing that could be. */
export function soundInMoov(moov: Uint8Array): Mp4Sound | null {
  try {
    const sound = describedIn(moov)
    return sound &&
      sound.durationMs > 0 &&
      Number.isFinite(sound.durationMs) &&
      sound.sampleRateHz > 0 &&
      sound.channels > 0
      ? sound
      : null
  } catch (error) {
    // An atom that ends before its fields do.
    if (error instanceof RangeError) return null
    throw error
  }
}

function describedIn(moov: Uint8Array): Mp4Sound | null {
  const view = new DataView(moov.buffer, moov.byteOffset, moov.byteLength)
  const letters = (at: number): string => String.fromCharCode(...moov.subarray(at, at + 4))
  const inside = (parent: Atom | undefined, type: string): Atom | undefined =>
    parent && atomsIn(moov, parent.from, parent.to).find(atom => atom.type === type)
  for (const track of atomsIn(moov, 0, moov.length).filter(({ type }) => type === 'trak')) {
    const media = inside(track, 'mdia')
    const handler = inside(media, 'hdlr')
    const header = inside(media, 'mdhd')
    const samples = inside(inside(inside(media, 'minf'), 'stbl'), 'stsd')
    // hdlr: version and flags, a reserved word, then the handler's type.
    if (!handler || !header || !samples || letters(handler.from + 8) !== 'soun') continue
    const isLong = moov[header.from] === 1
    const timescale = view.getUint32(header.from + (isLong ? 20 : 12))
    const duration = isLong ? Number(view.getBigUint64(header.from + 24)) : view.getUint32(header.from + 16)
    const skipped = skippedAtHead(view, inside(inside(track, 'edts'), 'elst'))
    // stsd: version, count, then the first entry: size, format, 8 bytes, 8 bytes, channels, sample size, 4 bytes, rate as 16.16.
    const entry = samples.from + 8
    const coding = inside({ type: '', from: entry + 36, to: samples.to }, 'esds')
    return {
      durationMs: ((duration - skipped) / timescale) * 1000,
      codec: letters(entry + 4),
      channels: (coding && channelsIn(moov.subarray(coding.from, coding.to))) ?? view.getUint16(entry + 24),
      sampleRateHz: view.getUint16(entry + 32),
    }
  }
  return null
}

/** What the edit list leaves out at the head, which is what the coder needed to get going (ISO/IEC 14496-12 section 8.6.6). */
function skippedAtHead(view: DataView, list: Atom | undefined): number {
  if (!list || view.getUint32(list.from + 4) === 0) return 0
  const isLong = view.getUint8(list.from) === 1
  return Math.max(0, isLong ? Number(view.getBigInt64(list.from + 16)) : view.getInt32(list.from + 12))
}

/**
 * The channels that the coder's own setup tells, which the sample entry need not (ISO/IEC 14496-1 section 7.2.6, an ES
 * descriptor with a decoder's within; 14496-3 section 1.6.2.1, where they follow the object type and the rate).
 */
function channelsIn(descriptor: Uint8Array): number | null {
  for (let at = 4; at + 2 < descriptor.length;) {
    const tag = descriptor[at++]
    let length = 0
    for (let more = true; more && at < descriptor.length;) {
      more = (descriptor[at]! & 0x80) !== 0
      length = length * 128 + (descriptor[at++]! & 0x7f)
    }
    if (tag === 5) {
      const [first = 0, second = 0] = descriptor.subarray(at)
      const hasPlainRate = (((first & 7) << 1) | (second >> 7)) !== 15
      return hasPlainRate ? (second >> 3) & 15 || null : null
    }
    // An ES descriptor begins with 3 bytes, a decoder's with 13; what they hold follows. Others are passed over.
    at += tag === 3 ? 3 : tag === 4 ? 13 : length
  }
  return null
}

const mostMoovBytes = 8_000_000
/** Atoms on top of each other in a file; one for sound has a handful. */
const mostOnTop = 64

/**
 * Finds the `moov` atom in a file that comes in from its beginning, without keeping anything else of it, and where its
 * sound stands. `push` answers whether more is wanted.
 */
export class MoovFinder {
  /** The content of the atom, once it is here. */
  moov: Uint8Array | null = null
  /** Where the atoms that were met so far end. */
  private endBytes = 0
  /** Where the sound is in the file, once it is met. */
  media: Pick<Atom, 'from' | 'to'> | null = null
  /** How many bytes more the `moov` atom needs; 0 where it is not being read. */
  wantedBytes = 0
  private pending: Uint8Array = new Uint8Array(0)
  private skipBytes = 0
  private seen = 0

  /** Leaves out what need not be read: how many bytes of the file the next push may begin further on. */
  jump(): number {
    const bytes = this.skipBytes
    this.skipBytes = 0
    return bytes
  }

  push(chunk: Uint8Array): boolean {
    const skipped = Math.min(this.skipBytes, chunk.length)
    this.skipBytes -= skipped
    if (this.skipBytes > 0) return true
    this.pending = joined(this.pending, chunk.subarray(skipped))
    for (;;) {
      const head = atomHead(this.pending, 0)
      this.wantedBytes = 0
      if (!head) return this.pending.length < 16
      if (!this.meet(head)) return false
      if (head.type === 'moov' && this.pending.length < head.lengthBytes) {
        // Asked again with each piece; it is one atom all the same.
        this.seen--
        this.wantedBytes = head.lengthBytes - this.pending.length
        return true
      }
      if (head.type === 'moov') this.moov = this.pending.slice(head.headBytes, head.lengthBytes)
      this.endBytes += head.lengthBytes
      if (head.lengthBytes > this.pending.length) {
        this.skipBytes = head.lengthBytes - this.pending.length
        this.pending = new Uint8Array(0)
        return true
      }
      this.pending = this.pending.slice(head.lengthBytes)
    }
  }

  /** Whether an atom can be one of a sound file's; where the sound is, is kept. */
  private meet({ type, headBytes, lengthBytes }: NonNullable<ReturnType<typeof atomHead>>): boolean {
    if (lengthBytes < headBytes || ++this.seen > mostOnTop) return false
    if (type === 'mdat') this.media ??= { from: this.endBytes + headBytes, to: this.endBytes + lengthBytes }
    return type !== 'moov' || lengthBytes <= mostMoovBytes
  }
}

function joined(one: Uint8Array, other: Uint8Array): Uint8Array {
  const both = new Uint8Array(one.length + other.length)
  both.set(one)
  both.set(other, one.length)
  return both
}
