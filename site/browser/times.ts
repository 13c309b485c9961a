/** Lets what has a time, chapters or words, lead to its place in the player, and lights what is heard; what has an end is played to it. */
export function times(list: HTMLElement): void {
  const audio = document.querySelector<HTMLAudioElement>('[data-player] audio')
  if (!audio) return
  const items = [...list.querySelectorAll<HTMLElement>('[data-from-ms]')]
  const begins = items.map(item => Number(item.dataset.fromMs) / 1000)
  const ends = items.map(({ dataset: { toMs } }) => (toMs ? Number(toMs) / 1000 : Infinity))
  let lit: HTMLElement | null = null

  list.addEventListener('click', event => {
    const pressed = event.target as HTMLElement
    const item = pressed.closest('[data-at]') && pressed.closest<HTMLElement>('[data-from-ms]')
    if (!item) return
    event.preventDefault()
    const at = items.indexOf(item)
    audio.currentTime = begins[at]!
    // All lists share the sound, and with it where it is to stop.
    audio.dataset.stopAt = String(ends[at]!)
    void audio.play()
  })

  const light = (): void => {
    const now = audio.currentTime
    const at =
      audio.played.length > 0 ? begins.findLastIndex((begin, each) => begin <= now + 0.05 && now < ends[each]!) : -1
    const heard = items[at] ?? null
    if (heard === lit) return
    lit?.removeAttribute('aria-current')
    heard?.setAttribute('aria-current', 'true')
    lit = heard
  }
  audio.addEventListener('timeupdate', () => {
    const { stopAt } = audio.dataset
    if (!stopAt || audio.currentTime < Number(stopAt)) return
    delete audio.dataset.stopAt
    // Whoever went on behind the end wants to hear what is there.
    if (audio.currentTime < Number(stopAt) + 1) audio.pause()
  })
  for (const event of ['timeupdate', 'seeked', 'play']) audio.addEventListener(event, light)
}
