import { hostFindings } from '@core/audio/elsewhere'
import { cutShortFinding, type Finding, mp3Findings } from '@core/audio/findings'
import { MoovFinder, soundInMoov } from '@core/audio/mp4Atoms'
import { id3v2Length } from '@core/audio/mp3Frame'
import { hasBitRate, mp3Opening } from '@core/audio/mp3Opening'
import { Mp3Scanner } from '@core/audio/mp3Scan'
import { sniff } from '@core/audio/sniff'
import type { DeliverableType } from '@core/audio/delivery'
import { amount } from '@core/words/amounts'
import { Refusal } from '../../platform/refusal'
import { refusalFor } from '../../media/sound/refusals'
import type { remoteFetcher, RemoteAnswer } from '../../platform/outside/fetch'

/** What was found out about a file that lives elsewhere, and from how many of its bytes. */
export interface RemoteFacts {
  type: DeliverableType
  bytes: number
  durationMs: number
  codec: string
  bitRateBps: number
  sampleRateHz: number
  channels: number
  redirects: number
  readBytes: number
  findings: Finding[]
}

type Fetch = ReturnType<typeof remoteFetcher>

const openingBytes = 64 * 1024
const pieceBytes = 8 * 1024
/** How much a file may have behind its last frame, in what would be sound of that length, before its header is doubted. */
const mostBehindMs = 1000
/** No sound that is heard is larger. */
const largestBytes = 50_000_000_000
/** What looking at one file may cost: so many requests, and so long altogether. */
const mostRequests = 100
const usualMs = 40_000

/**
 * Asks an address as a listening app would. Throws a Refusal, in words, where it is nothing an app could play, and where
 * finding that out would take too long; it ends at once where `signal` does.
 */
export async function inspectRemote(
  unbounded: Fetch,
  address: string,
  mostBytes: number,
  signal?: AbortSignal,
  mostMs = usualMs,
): Promise<RemoteFacts> {
  const late = AbortSignal.timeout(mostMs)
  const until = signal ? AbortSignal.any([signal, late]) : late
  let requests = 0
  const fetchRemote: Fetch = (asked, request) => {
    if (++requests > mostRequests) throw tooMuch('It takes too many requests to find out.')
    return unbounded(asked, { ...request, signal: until })
  }
  try {
    return await inspect(fetchRemote, address, mostBytes)
  } catch (error) {
    if (late.aborted && error === late.reason) throw tooMuch(`Finding out took longer than ${mostMs / 1000} s.`)
    throw error
  }
}

async function inspect(fetchRemote: Fetch, address: string, mostBytes: number): Promise<RemoteFacts> {
  let readBytes = 0
  const first = await fetchRemote(address, { range: { from: 0, to: openingBytes - 1 }, mostBytes: openingBytes })
  readBytes += first.body.length
  needSound(first)
  const bytes = await sizeOf(fetchRemote, address, first)
  const read = async (from: number, length: number): Promise<Buffer> => {
    const wanted = Math.min(length, bytes - from)
    const { status, body } = await fetchRemote(address, { range: { from, to: from + wanted - 1 }, mostBytes: wanted })
    readBytes += body.length
    if (status !== 206 || body.length !== wanted) throw lies(bytes, null)
    return body
  }
  const answersRanges = first.status === 206 && (await givesWhatIsAsked(read, first.body))
  const whole = {
    address,
    bytes,
    mostBytes,
    answersRanges,
    read,
    fetchRemote,
    add: (count: number) => {
      readBytes += count
    },
  }

  let tagBytes = id3v2Length(first.body, 0)
  if (tagBytes >= bytes) tagBytes = 0
  const opening =
    tagBytes + pieceBytes <= first.body.length || !answersRanges
      ? first.body.subarray(Math.min(tagBytes, first.body.length))
      : await read(tagBytes, openingBytes)
  const format = opening.length > 0 ? sniff(opening) : sniff(first.body)
  if (format !== 'mp3' && format !== 'm4a') {
    if (format === 'text' || format === 'unknown' || format === 'empty') throw refusalFor(format)
    throw new Refusal(
      'Apps cannot play this file',
      `It is ${format.toUpperCase()}; listening apps expect MP3 or M4A.`,
      'Upload it here, and it is encoded.',
    )
  }
  const facts = format === 'mp3' ? await mp3Facts(opening, tagBytes, whole) : await m4aFacts(whole)
  return {
    ...facts,
    bytes,
    redirects: first.redirects,
    readBytes,
    findings: [
      ...facts.findings,
      ...hostFindings({
        answersRanges,
        redirects: first.redirects,
        contentType: first.headers['content-type'] ?? null,
      }),
    ],
  }
}

type Whole = Pick<RemoteFacts, 'bytes'> & {
  address: string
  mostBytes: number
  answersRanges: boolean
  read: (from: number, length: number) => Promise<Buffer>
  fetchRemote: Fetch
  add: (count: number) => void
}
type Sound = Omit<RemoteFacts, 'bytes' | 'redirects' | 'readBytes'>

/** Some hosts answer each range with the beginning of the file, and call it what was asked for. */
async function givesWhatIsAsked(read: Whole['read'], opening: Buffer): Promise<boolean> {
  const [from, length] = [16, 32]
  if (opening.length < from + length) return true
  return (await read(from, length)).equals(opening.subarray(from, from + length))
}

/**
 * Exact from the header where the file is as large as that says; else from the bit rate where four pieces show that it is
 * constant; else from every frame.
 */
async function mp3Facts(opening: Buffer, tagBytes: number, whole: Whole): Promise<Sound> {
  const found = mp3Opening(opening)
  if (!found) throw refusalFor('unknown')
  const { sampleRateHz, channels, bitRateBps, fromBytes } = found
  const form = { type: 'audio/mpeg' as const, codec: 'mp3', sampleRateHz, channels }
  const soundBytes = whole.bytes - tagBytes - fromBytes
  if (found.durationMs !== null && found.soundBytes !== null) {
    const meanBps = (found.soundBytes * 8000) / found.durationMs
    const otherMs = (Math.abs(soundBytes - found.soundBytes) * 8000) / meanBps
    if (otherMs <= mostBehindMs)
      return { ...form, durationMs: Math.round(found.durationMs), bitRateBps: Math.round(meanBps), findings: [] }
  }
  if (whole.answersRanges && whole.bytes > 8 * pieceBytes) {
    const places = [0.2, 0.45, 0.7].map(share => tagBytes + fromBytes + Math.floor(soundBytes * share))
    const pieces = [
      opening.subarray(0, pieceBytes),
      ...(await Promise.all(places.map(place => whole.read(place, pieceBytes)))),
    ]
    const end = await whole.read(whole.bytes - pieceBytes, pieceBytes)
    const v1Bytes = end.subarray(-128).toString('latin1').startsWith('TAG') ? 128 : 0
    if ([...pieces, end.subarray(0, end.length - v1Bytes)].every(piece => hasBitRate(piece, bitRateBps))) {
      const durationMs = Math.round(((soundBytes - v1Bytes) * 8000) / bitRateBps)
      return { ...form, bitRateBps, durationMs, findings: cutShort(found.durationMs, durationMs) }
    }
  }
  const scanner = new Mp3Scanner()
  await readWhole(whole, chunk => scanner.push(chunk))
  const scan = scanner.finish()
  if (!scan) throw refusalFor('unknown')
  return {
    ...form,
    bitRateBps: scan.bitRateBps,
    durationMs: Math.round(scan.durationMs),
    findings: mp3Findings(scan).filter(({ code }) => code === 'cut-short'),
  }
}

/** What a header that announces too much is told by; one that announces nothing by nothing. */
const cutShort = (announcedMs: number | null, heardMs: number): Finding[] =>
  [cutShortFinding(announcedMs ?? 0, heardMs, 'header')].filter(found => found !== null)

/** Reads all of a file; a host that gives fewer bytes than it announces is refused. */
async function readWhole({ address, bytes, mostBytes, fetchRemote, add }: Whole, take: (chunk: Buffer) => void) {
  if (bytes > mostBytes) throw tooMuch(`It has ${amount(bytes)}, and all of it would have to be read.`)
  let given = 0
  await fetchRemote(address, {
    mostBytes: bytes + 1,
    onBytes: chunk => {
      given += chunk.length
      add(chunk.length)
      take(chunk)
      return true
    },
  })
  if (given !== bytes) throw lies(bytes, given)
}

/** From the `moov` atom, wherever in the file it stands; of a file that ends within its sound, about as much as is there. */
async function m4aFacts(whole: Whole): Promise<Sound> {
  const finder = new MoovFinder()
  if (whole.answersRanges) await findByRanges(finder, whole)
  else await readWhole(whole, chunk => finder.push(chunk))
  const sound = finder.moov && soundInMoov(finder.moov)
  if (!sound) throw refusalFor('no sound')
  if (sound.codec !== 'mp4a') throw refusalFor('other codec', sound.codec)
  const { from, to } = finder.media ?? { from: 0, to: whole.bytes }
  const share = Math.max(0, Math.min(to, whole.bytes) - from) / (to - from)
  const durationMs = Math.round(sound.durationMs * (Number.isFinite(share) ? share : 1))
  return {
    type: 'audio/mp4',
    codec: 'aac',
    durationMs,
    sampleRateHz: sound.sampleRateHz,
    channels: sound.channels,
    bitRateBps: Math.round((whole.bytes * 8000) / Math.max(1, durationMs)),
    findings: cutShort(sound.durationMs, durationMs),
  }
}

/** From atom to atom, without what stands in those that are of no use. */
async function findByRanges(finder: MoovFinder, { bytes, read }: Whole): Promise<void> {
  for (let at = 0; at < bytes;) {
    const piece = await read(at, Math.max(pieceBytes, finder.wantedBytes))
    if (!finder.push(piece)) return
    at += piece.length + finder.jump()
  }
}

function needSound({ status, headers, body }: RemoteAnswer): void {
  if (status === 401 || status === 403 || status === 407)
    throw new Refusal(
      'The address asks for a sign-in',
      `It answers ${status}; apps send no name and password, and would get nothing.`,
      'Make the file public at its host, or upload it here.',
    )
  if (status === 404 || status === 410)
    throw new Refusal('There is nothing at this address', `It answers ${status}.`, 'Copy the address again.')
  if (status !== 200 && status !== 206)
    throw new Refusal(
      'The address does not give the file',
      `It answers ${status}.`,
      'Try again later, or ask its host.',
    )
  const opening = body.subarray(0, 512).toString('latin1').trimStart()
  if (/^text\/html/i.test(headers['content-type'] ?? '') || /^<(!doctype|html|head|body)/i.test(opening)) {
    throw new Refusal(
      'This is a web page, not the file',
      'The address answers HTML, as pages around a file do.',
      'Copy the address of the file itself; hosts call it the direct link or the download address.',
    )
  }
}

/** The size that the host tells; where it can be put to the test, it is. */
async function sizeOf(fetchRemote: Fetch, address: string, first: RemoteAnswer): Promise<number> {
  const told =
    first.status === 206 ? /\/(\d+)$/.exec(first.headers['content-range'] ?? '')?.[1] : first.headers['content-length']
  if (!told)
    throw new Refusal(
      'The host does not say how large the file is',
      'A feed tells each file’s size in bytes, and apps rely on it.',
      'Upload the file here, or take another host.',
    )
  const bytes = Number(told)
  if (!Number.isSafeInteger(bytes) || bytes > largestBytes)
    throw new Refusal(
      'The file is too large',
      `Its host says that it has ${told.slice(0, 24)} bytes; no app fetches so much.`,
      'Encode it at 128 kbit/s; that is plenty.',
    )
  const head = await fetchRemote(address, { method: 'HEAD', mostBytes: 0 })
  const headBytes = Number(head.headers['content-length'] ?? bytes)
  if (head.status === 200 && headBytes !== bytes) throw lies(headBytes, bytes)
  if (first.status === 206 && bytes > 0) {
    const last = await fetchRemote(address, { range: { from: bytes - 1, to: bytes - 1 }, mostBytes: 2 })
    if (last.status !== 206 || last.body.length !== 1) throw lies(bytes, null)
  }
  return bytes
}

const tooMuch = (why: string): Refusal =>
  new Refusal('The host is too slow to tell how long the file is', why, 'Upload the file here, or take another host.')

const lies = (told: number, other: number | null): Refusal =>
  new Refusal(
    'The host tells two sizes for this file',
    other === null
      ? `It says ${amount(told)}, and has nothing at its last byte.`
      : `It says ${told.toLocaleString('en')} bytes one time and ${other.toLocaleString('en')} bytes another.`,
    'Apps would break off before the end. Upload the file here, or ask its host.',
  )
