import { createStore, delMany, get, getMany, keys, setMany, update } from 'idb-keyval'
import type { Stretch } from '@core/audio/measurement'
import { wavHead } from '@core/audio/wav'

/** What a microphone hears: interleaved samples. */
export type Heard = Float32Array<ArrayBuffer>

/** A recording, kept in this browser while it runs and until it is used or discarded. Its sound lies beside it in portions. */
export interface Take {
  id: string
  episodeId: string
  /** ISO 8601. */
  begunAt: string
  sampleRateHz: number
  channels: number
  frames: number
  portions: number
  /** The largest sample, 1 at full scale. */
  peak: number
  clips: readonly Stretch[]
  /** Of the upload by which it was used; it stays until all of it is with the server. */
  uploadId?: string
}

const store = createStore('lake-letter-takes', 'takes')
const bitsPerSample = 24
const keyOf = (id: string): string => `take:${id}`
const portionKeys = ({ id, portions }: Pick<Take, 'id' | 'portions'>): string[] =>
  Array.from({ length: portions }, (_none, n) => `portion:${id}:${n}`)

export const lengthMs = ({ frames, sampleRateHz }: Pick<Take, 'frames' | 'sampleRateHz'>): number =>
  (frames / sampleRateHz) * 1000

/** Keeps one portion more, together with what the take comes to with it. Throws where the browser has no room. */
export async function keepPortion(take: Take, portion: Uint8Array<ArrayBuffer>): Promise<void> {
  await setMany(
    [
      [keyOf(take.id), take],
      [portionKeys(take).at(-1)!, portion],
    ],
    store,
  )
}

/** The takes of an episode that this browser has, the newest first. */
export async function takesOf(episodeId: string): Promise<Take[]> {
  const known = (await keys<string>(store)).filter(key => key.startsWith('take:'))
  const takes = (await getMany<Take | undefined>(known, store)).filter(take => take?.episodeId === episodeId)
  return (takes as Take[]).toSorted((one, other) => (one.begunAt < other.begunAt ? 1 : -1))
}

/** So many portions are in memory at once; those before lie with the browser. */
const atOnce = 60

/** A take as a file of uncompressed sound. */
export async function fileOf(take: Take, name: string): Promise<File> {
  const parts: Blob[] = []
  const wanted = portionKeys(take)
  for (let at = 0; at < wanted.length; at += atOnce)
    parts.push(new Blob((await getMany(wanted.slice(at, at + atOnce), store)) as Uint8Array<ArrayBuffer>[]))
  return wavFile(take, name, parts)
}

/** The file of sound in parts that are at hand. */
export function wavFile({ sampleRateHz, channels }: Take, name: string, parts: readonly BlobPart[]): File {
  const { size } = new Blob([...parts])
  const head = wavHead({ sampleRateHz, channels, bitsPerSample }, size) as Uint8Array<ArrayBuffer>
  return new File([head, ...parts], name, { type: 'audio/wav' })
}

/** Keeps by which upload a take is used. */
export async function keepUpload(take: Take, uploadId: string): Promise<void> {
  await update<Take>(keyOf(take.id), known => ({ ...(known ?? take), uploadId }), store)
}

export const discardTake = async (id: string): Promise<void> => {
  const take = await get<Take>(keyOf(id), store)
  if (take) await delMany([keyOf(id), ...portionKeys(take)], store)
}
