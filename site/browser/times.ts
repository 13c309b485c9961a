/** Lets what has a time, chapters or words, lead to its place in the player, and lights what is heard. */
export function times(list: HTMLElement): void {
  const audio = document.querySelector<HTMLAudioElement>('[data-player] audio')
  if (!audio) return
  const items = [...list.querySelectorAll<HTMLElement>('[data-from-ms]')]
  const begins = items.map(item => Number(item.dataset.fromMs) / 1000)
  let lit: HTMLElement | null = null

  list.addEventListener('click', event => {
    const pressed = event.target as HTMLElement
    const item = pressed.closest('[data-at]') && pressed.closest<HTMLElement>('[data-from-ms]')
    if (!item) return
    event.preventDefault()
    audio.currentTime = Number(item.dataset.fromMs) / 1000
    void audio.play()
  })

  const light = (): void => {
    const at = audio.played.length > 0 ? begins.findLastIndex(begin => begin <= audio.currentTime + 0.05) : -1
    const heard = items[at] ?? null
    if (heard === lit) return
    lit?.removeAttribute('aria-current')
    heard?.setAttribute('aria-current', 'true')
    lit = heard
  }
  for (const event of ['timeupdate', 'seeked', 'play']) audio.addEventListener(event, light)
}
