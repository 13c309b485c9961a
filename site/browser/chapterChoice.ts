import { readMediaFragment } from './mediaFragment'
import type { Player } from './player'

/** In a small frame, a choice in the place of the list of chapters: it says which one is heard, and leads to each. */
export function chapterChoice(list: HTMLElement, player: Player, place: HTMLElement): void {
  const { audio } = player
  const choice = document.createElement('select')
  const { lang, dir } = document.documentElement
  choice.setAttribute('aria-label', player.words.chapter)
  const starts = [...list.querySelectorAll<HTMLElement>('li')].map(row => {
    const link = row.querySelector<HTMLAnchorElement>('a[data-at]')!
    const option = new Option(`${link.textContent} ${row.querySelector('span')!.textContent}`)
    // The player’s words are its own; titles are in the language of the show.
    choice.add(Object.assign(option, { lang, dir }))
    return readMediaFragment(link.hash)!.from
  })
  const show = (): void => {
    choice.selectedIndex = starts.findLastIndex(from => from <= audio.currentTime + 0.05)
  }
  choice.addEventListener('change', () => player.playFrom({ from: starts[choice.selectedIndex]!, to: null }))
  for (const event of ['timeupdate', 'seeked']) audio.addEventListener(event, show)
  show()
  place.prepend(choice)
  list.closest('section')!.remove()
}
