import { useEventListener, useLocalStorage, useWakeLock } from '@vueuse/core'
import { v7 as uuidV7 } from 'uuid'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { level } from '@core/audio/decibels'
import { OverloadFinder } from '@core/audio/overloads'
import { pcm24, wavHeadBytes } from '@core/audio/wav'
import { type Microphone, microphones, openMicrophone } from './microphone'
import {
  discardTake,
  fileOf,
  type Heard,
  keepPortion,
  keepUpload,
  lengthMs,
  type Take,
  takesOf,
  wavFile,
} from './takes'

/** Why there is no microphone, or none any more. */
export type MicrophoneTrouble = 'denied' | 'none' | 'busy' | 'gone'
const troubleOf = (error: unknown): MicrophoneTrouble => {
  const { name } = error as DOMException
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'denied'
  return name === 'NotFoundError' || name === 'OverconstrainedError' ? 'none' : 'busy'
}

/** What is counted before a take begins. */
const countFrom = 3
/** The highest level stands so long. */
const holdMs = 1_500
/** Under this the level is told as silence. */
export const quietestDb = -60
const lockOf = (id: string): string => `lake-letter:take:${id}`

/** A take that runs, with what of it the browser has not been given yet. */
interface Running {
  take: Take
  overloads: OverloadFinder
  /** Not yet a portion. */
  waiting: Uint8Array<ArrayBuffer>[]
  waitingFrames: number
  /** Portions that the browser had no room for. */
  unkept: Uint8Array<ArrayBuffer>[]
  /** Ends the claim by which other windows know that it runs. */
  letGo: () => Promise<void>
}

/** Records takes for an episode: each is kept in the browser while it runs, second by second, until it is used or discarded. */
export function useRecorder(episodeId: string) {
  const microphone = shallowRef<Microphone | null>(null)
  const devices = shallowRef<readonly MediaDeviceInfo[]>([])
  const chosenId = useLocalStorage<string | null>('lake-letter:microphone', null)
  const trouble = ref<MicrophoneTrouble | null>(null)
  const state = ref<'closed' | 'opening' | 'ready' | 'counting' | 'recording'>('closed')
  const countsIn = useLocalStorage('lake-letter:count-in', true)
  const isMonitored = ref(false)
  const count = ref(0)
  /** In dBFS: now, and the highest of the last while. */
  const levelDb = ref(quietestDb)
  const heldDb = ref(quietestDb)
  let heldAt = 0

  const takes = shallowRef<readonly Take[]>([])
  /** Takes that another window records just now. */
  const elsewhere = shallowRef<ReadonlySet<string>>(new Set())
  const running = shallowRef<Running | null>(null)
  /** A screen that goes dark while somebody speaks takes the microphone along on many tablets. */
  const screen = useWakeLock()
  const elapsedMs = ref(0)
  const clippedAtMs = ref<number | null>(null)
  /** Takes of which the browser could not keep all: they are whole here, as long as the window is open. */
  const unkept = shallowRef<ReadonlyMap<string, readonly Uint8Array<ArrayBuffer>[]>>(new Map())
  const hasUnkept = computed(() => unkept.value.size > 0)
  /** The take that was recorded last, of which it is told that it clipped. */
  let lastId: string | null = null
  let keeping: Promise<unknown> = Promise.resolve()
  let turns = 0
  let counts = 0

  function onHeard(sound: Heard): void {
    let peak = 0
    for (const value of sound) peak = Math.max(peak, Math.abs(value))
    levelDb.value = Math.max(quietestDb, level(peak) ?? quietestDb)
    if (levelDb.value >= heldDb.value || Date.now() - heldAt > holdMs) {
      heldDb.value = levelDb.value
      heldAt = Date.now()
    }
    if (running.value) take(running.value, sound, peak)
  }

  function take(to: Running, sound: Heard, peak: number): void {
    const { channels, sampleRateHz, frames } = to.take
    to.overloads.look(sound, frames)
    to.take = { ...to.take, frames: frames + sound.length / channels, peak: Math.max(to.take.peak, peak) }
    to.waiting.push(pcm24(sound))
    to.waitingFrames += sound.length / channels
    elapsedMs.value = lengthMs(to.take)
    clippedAtMs.value = to.overloads.found[0]?.fromMs ?? null
    if (to.waitingFrames >= sampleRateHz) keep(to)
  }

  /** What waits is a portion, and goes to the browser behind those before it. */
  function keep(to: Running): void {
    if (to.waiting.length === 0) return
    to.take = { ...to.take, portions: to.take.portions + 1, clips: [...to.overloads.found] }
    const { take: asItIs } = to
    const portion = joined(to.waiting)
    to.waiting = []
    to.waitingFrames = 0
    keeping = keeping.then(async () => {
      // Behind one that had no room none is kept: a take is whole up to its last portion.
      if (to.unkept.length === 0) await keepPortion(asItIs, portion).catch(() => to.unkept.push(portion))
      else to.unkept.push(portion)
      if (to.unkept.length > 0) unkept.value = new Map(unkept.value).set(asItIs.id, to.unkept)
    })
  }

  async function open(deviceId = chosenId.value): Promise<void> {
    const turn = ++turns
    state.value = 'opening'
    trouble.value = null
    await microphone.value?.close()
    microphone.value = null
    try {
      const opened = await openMicrophone(deviceId, { onHeard, onGone: () => void gone() }).catch(error => {
        // The one that was used last may not be here today.
        if (deviceId && troubleOf(error) === 'none') return openMicrophone(null, { onHeard, onGone: () => void gone() })
        throw error
      })
      if (turn !== turns) return await opened.close()
      opened.setMonitored(isMonitored.value)
      devices.value = await microphones().catch(() => [])
      microphone.value = opened
      chosenId.value = opened.deviceId
      state.value = 'ready'
    } catch (error) {
      if (turn !== turns) return
      trouble.value = troubleOf(error)
      state.value = 'closed'
    }
  }

  async function gone(): Promise<void> {
    await stop()
    await close()
    trouble.value = 'gone'
  }

  async function close(): Promise<void> {
    turns++
    await stop()
    await microphone.value?.close()
    microphone.value = null
    state.value = 'closed'
    levelDb.value = heldDb.value = quietestDb
  }

  async function start(): Promise<void> {
    const from = microphone.value
    if (!from || state.value !== 'ready') return
    const counting = ++counts
    clippedAtMs.value = null
    elapsedMs.value = 0
    state.value = 'counting'
    for (count.value = countsIn.value ? countFrom : 0; count.value > 0; count.value--) {
      await new Promise(resolve => setTimeout(resolve, 1000))
      // It may have been stopped, and begun again meanwhile.
      if (state.value !== 'counting' || counting !== counts) return
    }
    begin(from)
  }

  function begin({ sampleRateHz, channels }: Microphone): void {
    const id = uuidV7()
    lastId = id
    running.value = {
      take: {
        id,
        episodeId,
        begunAt: new Date().toISOString(),
        sampleRateHz,
        channels,
        frames: 0,
        portions: 0,
        peak: 0,
        clips: [],
      },
      overloads: new OverloadFinder(channels, sampleRateHz),
      waiting: [],
      waitingFrames: 0,
      unkept: [],
      letGo: claim(id),
    }
    state.value = 'recording'
    void screen.request('screen').catch(() => undefined)
  }

  async function stop(): Promise<void> {
    const ended = running.value
    if (state.value === 'counting' || state.value === 'recording') state.value = 'ready'
    if (!ended) return
    running.value = null
    void screen.release().catch(() => undefined)
    keep(ended)
    await keeping
    await ended.letGo()
    await load(ended.take)
  }

  /** Ends a take that is spoilt, and begins the next. */
  async function again(): Promise<void> {
    await stop()
    await start()
  }

  /** What the browser has; and what it had no room for, of which all that is told is here. */
  async function load(newest?: Take): Promise<void> {
    const [kept, claims] = await Promise.all([takesOf(episodeId).catch(() => []), navigator.locks?.query()])
    elsewhere.value = new Set(
      claims?.held?.flatMap(({ name }) => (name?.startsWith(lockOf('')) ? name.slice(lockOf('').length) : [])),
    )
    const whole = new Map(takes.value.filter(({ id }) => unkept.value.has(id)).map(each => [each.id, each]))
    if (newest && unkept.value.has(newest.id)) whole.set(newest.id, newest)
    const missing = [...whole.values()].filter(({ id }) => kept.every(each => each.id !== id))
    takes.value = [...missing, ...kept.map(each => whole.get(each.id) ?? each)].filter(
      ({ id }) => id !== running.value?.take.id,
    )
  }

  async function fileFor(wanted: Take, name: string): Promise<File> {
    const rest = unkept.value.get(wanted.id) ?? []
    const kept = await fileOf({ ...wanted, portions: wanted.portions - rest.length }, name)
    return rest.length === 0 ? kept : wavFile(wanted, name, [kept.slice(wavHeadBytes), ...rest])
  }

  /** Notes by which upload a take is used, though the browser may have no room for that. */
  async function markUsed(used: Take, uploadId: string): Promise<void> {
    takes.value = takes.value.map(each => (each.id === used.id ? { ...each, uploadId } : each))
    if (!unkept.value.has(used.id)) await keepUpload(used, uploadId).catch(() => undefined)
  }

  async function discard({ id }: Take): Promise<void> {
    const isGone = discardTake(id)
    // Of one that is here alone the browser may have nothing to let go of, nor a place to look.
    await (unkept.value.has(id) ? isGone.catch(() => undefined) : isGone)
    if (id === lastId) clippedAtMs.value = null
    unkept.value = new Map([...unkept.value].filter(([each]) => each !== id))
    await load()
  }

  useEventListener(window, 'beforeunload', event => {
    if (running.value || hasUnkept.value) event.preventDefault()
  })
  useEventListener(document, 'visibilitychange', () => {
    if (document.visibilityState === 'visible') void load()
  })
  onScopeDispose(() => void close())

  return {
    state,
    trouble,
    devices,
    microphone,
    countsIn,
    count,
    isMonitored,
    levelDb,
    heldDb,
    takes,
    elsewhere,
    hasUnkept,
    elapsedMs,
    clippedAtMs,
    open,
    close,
    start,
    stop,
    again,
    load,
    fileFor,
    markUsed,
    discard,
    setMonitored(is: boolean) {
      isMonitored.value = is
      microphone.value?.setMonitored(is)
    },
  }
}

/** Has other windows know that a take runs, until it is let go; where this window ends, that ends with it. */
function claim(id: string): () => Promise<void> {
  let end = (): void => undefined
  const until = new Promise<void>(resolve => (end = resolve))
  const claimed = navigator.locks?.request(lockOf(id), () => until)
  return async () => {
    end()
    await claimed
  }
}

function joined(parts: readonly Uint8Array<ArrayBuffer>[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  return all
}
