import { onScopeDispose, ref } from 'vue'
import { amplitude } from '@core/audio/decibels'

/** One of the sounds that a player can switch between. */
export interface Track {
  address: string
  durationMs: number
  /** Where in the first track this one begins. */
  offsetMs: number
  lufs: number | null
}

/**
 * Plays one of several tracks of the same sound. All are played as loud as the quietest of them, so that the ear judges
 * quality and not level, and switching goes on at the same place.
 */
export function useSoundPlayer(tracks: () => readonly Track[]) {
  const sound = new Audio()
  const current = ref(0)
  const playing = ref(false)
  const atMs = ref(0)
  const unreachable = ref(false)
  const rate = ref(1)
  let stopAtMs: number | null = null
  let frame = 0

  sound.preload = 'metadata'
  sound.addEventListener('play', () => {
    playing.value = true
    follow()
  })
  sound.addEventListener('pause', () => {
    playing.value = false
    note()
  })
  sound.addEventListener('error', () => {
    unreachable.value = sound.hasAttribute('src')
  })
  sound.addEventListener('loadedmetadata', () => {
    unreachable.value = false
  })

  const track = (): Track | undefined => tracks()[current.value]

  function note(): void {
    atMs.value = sound.currentTime * 1000
    if (stopAtMs !== null && atMs.value >= stopAtMs) {
      stopAtMs = null
      sound.pause()
    }
  }
  function follow(): void {
    note()
    if (playing.value) frame = requestAnimationFrame(follow)
  }

  function equalVolume(): number {
    const levels = tracks()
      .map(each => each.lufs)
      .filter(lufs => lufs !== null)
    const own = track()?.lufs
    return own === null || own === undefined || levels.length < 2 ? 1 : amplitude(Math.min(...levels) - own)
  }

  /** Begins to play; that another file took its place before it did is no fault. */
  async function play(): Promise<void> {
    try {
      await sound.play()
    } catch (error) {
      if (!(error instanceof DOMException && error.name === 'AbortError')) throw error
    }
  }

  /** Takes a track over as it is now, from the place where the last one stood. */
  function load(index: number): void {
    const from = track()?.offsetMs ?? 0
    const wasPlaying = playing.value
    current.value = Math.min(index, tracks().length - 1)
    const next = track()
    if (!next) return
    const placeMs = Math.min(Math.max(atMs.value + from - next.offsetMs, 0), next.durationMs)
    sound.src = next.address
    sound.volume = equalVolume()
    sound.playbackRate = rate.value
    sound.currentTime = placeMs / 1000
    atMs.value = placeMs
    stopAtMs = null
    if (wasPlaying) void play()
  }

  function seek(ms: number): void {
    stopAtMs = null
    sound.currentTime = Math.min(Math.max(ms, 0), track()?.durationMs ?? 0) / 1000
    atMs.value = sound.currentTime * 1000
  }

  /** Plays a stretch and stops. */
  async function playStretch(fromMs: number, toMs: number): Promise<void> {
    seek(fromMs)
    stopAtMs = toMs
    await play()
  }

  function setRate(to: number): void {
    rate.value = to
    sound.playbackRate = to
  }

  function toggle(): void {
    stopAtMs = null
    if (playing.value) sound.pause()
    else void play()
  }

  onScopeDispose(() => {
    cancelAnimationFrame(frame)
    sound.pause()
    sound.removeAttribute('src')
  })
  return { current, playing, atMs, unreachable, rate, load, seek, playStretch, toggle, setRate }
}
