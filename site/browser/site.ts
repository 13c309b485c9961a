import './site.css'
import { copyButton } from './copyButton'
import { player } from './player'
import { times } from './times'

for (const place of document.querySelectorAll<HTMLElement>('[data-player]')) player(place)
for (const list of document.querySelectorAll<HTMLElement>('[data-chapters], [data-soundbites], [data-said]'))
  times(list)
for (const button of document.querySelectorAll<HTMLButtonElement>('[data-copy]')) copyButton(button)
