import './site.css'
import { copyButton } from './copyButton'
import { player } from './player'

for (const place of document.querySelectorAll<HTMLElement>('[data-player]')) player(place)
for (const button of document.querySelectorAll<HTMLButtonElement>('[data-copy]')) copyButton(button)
