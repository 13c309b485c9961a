/** Lets times of a list lead to their place in the player, and lights the chapter that is heard. */
export function chapters(list: HTMLElement): void {
  const audio = document.querySelector<HTMLAudioElement>('[data-player] audio')
  if (!audio) return
  const items = [...list.querySelectorAll<HTMLElement>('[data-from-ms]')]
  const beginsAt = (item: HTMLElement): number => Number(item.dataset.fromMs) / 1000

  for (const item of items)
    item.querySelector('[data-at]')?.addEventListener('click', event => {
      event.preventDefault()
      audio.currentTime = beginsAt(item)
      void audio.play()
    })

  const light = (): void => {
    const heard = audio.played.length > 0 ? items.findLast(item => beginsAt(item) <= audio.currentTime + 0.05) : null
    for (const item of items) {
      if (item === heard) item.setAttribute('aria-current', 'true')
      else item.removeAttribute('aria-current')
    }
  }
  for (const event of ['timeupdate', 'seeked', 'play']) audio.addEventListener(event, light)
}
