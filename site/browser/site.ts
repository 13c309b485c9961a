import './site.css'
import { copyButton } from './copyButton'
import { chapters } from './chapters'
import { player } from './player'

for (const place of document.querySelectorAll<HTMLElement>('[data-player]')) player(place)
for (const list of document.querySelectorAll<HTMLElement>('[data-chapters]')) chapters(list)
for (const button of document.querySelectorAll<HTMLButtonElement>('[data-copy]')) copyButton(button)
