import { readMediaFragment } from './mediaFragment'
import { type Player, sourceOf } from './player'

/** Lets links to places of several episodes play there, in one player that comes with the first press. */
export function plays(list: HTMLElement, player: Player): void {
  const heard = document.querySelector<HTMLAnchorElement>('[data-heard]')
  const hearing = document.querySelector<HTMLElement>('[data-hearing]')
  list.addEventListener('click', event => {
    const link = (event.target as HTMLElement).closest<HTMLAnchorElement>('a[data-plays]')
    const episode = link?.closest<HTMLElement>('[data-address]')
    if (!link || !episode) return
    event.preventDefault()
    const source = sourceOf(episode, episode.dataset.address!)
    const fragment = readMediaFragment(link.hash)
    player.load(source, fragment)
    if (heard) {
      heard.href = source.page + (fragment ? `#t=${fragment.from}` : '')
      heard.textContent = source.title
    }
    if (hearing) hearing.hidden = false
    player.play()
    for (const other of list.querySelectorAll('[aria-current]')) other.removeAttribute('aria-current')
    link.closest('li')!.setAttribute('aria-current', 'true')
  })
}
