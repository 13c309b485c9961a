import { type MediaFragment, readMediaFragment } from './mediaFragment'
import type { Player } from './player'

/** Lets what has a time, chapters or words, lead to its place in the player, and lights what is heard; what has an end is played to it. */
export function times(list: HTMLElement, player: Player): void {
  const { audio } = player
  const links = [...list.querySelectorAll<HTMLAnchorElement>('a[data-at]')]
  const fragments = links.map(({ hash }): MediaFragment => readMediaFragment(hash) ?? { from: 0, to: null })
  const lightest = links.map(link => link.closest('li') ?? link)
  let lit: HTMLElement | null = null

  list.addEventListener('click', event => {
    const at = links.indexOf((event.target as HTMLElement).closest<HTMLAnchorElement>('a[data-at]')!)
    if (at < 0) return
    event.preventDefault()
    player.playFrom(fragments[at]!)
  })

  const light = (): void => {
    const now = audio.currentTime
    const at =
      audio.played.length > 0
        ? fragments.findLastIndex(({ from, to }) => from <= now + 0.05 && now < (to ?? Infinity))
        : -1
    const heard = lightest[at] ?? null
    if (heard === lit) return
    lit?.removeAttribute('aria-current')
    heard?.setAttribute('aria-current', 'true')
    lit = heard
    if (heard && list.dataset.follows !== undefined) follow(list, heard)
  }
  for (const event of ['timeupdate', 'seeked', 'play']) audio.addEventListener(event, light)
}

/** Keeps what is heard in the middle of a list that has its own height; the page itself stays where its reader has it. */
function follow(list: HTMLElement, heard: HTMLElement): void {
  if (list.scrollHeight <= list.clientHeight || list.matches(':hover, :focus-within')) return
  const { top, height } = heard.getBoundingClientRect()
  const frame = list.getBoundingClientRect()
  list.scrollBy({ top: top - frame.top - frame.height / 2 + height / 2, behavior: 'smooth' })
}
