import { kept } from './kept'

type Places = [page: string, seconds: number][]
/** Where somebody stopped in the episodes heard last, the newest at the end. */
const places = kept<Places>('heard', [], (value): value is Places => Array.isArray(value))
const most = 60
/** Nobody wants to go on in the first seconds, or in the last. */
const edgeSeconds = 15

/** Where somebody stopped; 0 where they have not begun, or have heard it all. */
export const stoppedAt = (page: string): number => places.read().find(([known]) => known === page)?.[1] ?? 0

/** Keeps where somebody is, from now and then while they listen. */
export function keepPlace(audio: HTMLAudioElement, page: () => string): void {
  let lastAt = 0
  const keep = (): void => {
    lastAt = Date.now()
    const { currentTime, duration } = audio
    const others = places.read().filter(([known]) => known !== page())
    const isWithin = currentTime > edgeSeconds && !(currentTime > duration - edgeSeconds)
    places.write(isWithin ? [...others, [page(), Math.floor(currentTime)] as Places[number]].slice(-most) : others)
  }
  audio.addEventListener('timeupdate', () => {
    if (!audio.paused && Date.now() - lastAt > 5000) keep()
  })
  for (const event of ['pause', 'ended']) audio.addEventListener(event, keep)
  addEventListener('pagehide', () => {
    if (audio.played.length > 0) keep()
  })
}
