/** What is to be shown and done of a player. */
interface Playing {
  audio: HTMLAudioElement
  /** What the keys for back and on move by, in seconds, where they do not say it. */
  step: number
  source: { title: string; show: string; picture: string }
  /** Where its chapters begin, in seconds; the keys for the next and the one before lead along them. */
  chapters: readonly number[]
  toggle(): void
  goTo(seconds: number): void
  moveBy(seconds: number): void
}

/** Within so many seconds of a beginning, “before” means the one before. */
const again = 3

/** What lock screens and media keys show and do while this player plays (W3C Media Session). */
export function mediaKeys(player: Playing): void {
  const { mediaSession } = navigator
  if (!mediaSession) return
  const { audio } = player
  const place = (): void => {
    const { duration, playbackRate, currentTime: position } = audio
    if (duration > 0 && position <= duration && Number.isFinite(duration))
      mediaSession.setPositionState({ duration, playbackRate, position })
  }
  audio.addEventListener('play', () => {
    const { title, show: artist, picture } = player.source
    mediaSession.metadata = new MediaMetadata({ title, artist, artwork: [{ src: picture }] })
    const acts: Partial<Record<MediaSessionAction, MediaSessionActionHandler>> = {
      play: () => player.toggle(),
      pause: () => player.toggle(),
      seekbackward: ({ seekOffset }) => player.moveBy(-(seekOffset ?? player.step)),
      seekforward: ({ seekOffset }) => player.moveBy(seekOffset ?? player.step),
      seekto: ({ seekTime }) => player.goTo(seekTime ?? 0),
      ...(player.chapters.length > 0 && {
        nexttrack: () => player.goTo(player.chapters.find(from => from > audio.currentTime) ?? Infinity),
        // As everywhere: first to where this one begins, and at once again to the one before.
        previoustrack: () => player.goTo(player.chapters.findLast(from => from < audio.currentTime - again) ?? 0),
      }),
    }
    for (const [act, handler] of Object.entries(acts)) mediaSession.setActionHandler(act as MediaSessionAction, handler)
    place()
  })
  for (const event of ['seeked', 'ratechange', 'pause']) audio.addEventListener(event, place)
}
