import './site.css'
import './layouts.css'
import { chapterChoice } from './chapterChoice'
import { copyButton } from './copyButton'
import { film } from './film'
import { tellHeight } from './frameHeight'
import { createPlayer } from './player'
import { plays } from './plays'
import { times } from './times'

const all = <Kind extends HTMLElement>(selector: string): Kind[] => [...document.querySelectorAll<Kind>(selector)]

const [player] = all('[data-player]').map(createPlayer)
const [inFrame] = all('.embed [data-chapters]')
if (player && inFrame) chapterChoice(inFrame, player, all('.beside')[0]!)
if (player) for (const list of all('[data-chapters], [data-soundbites], [data-said]')) times(list, player)
// A list takes the height that it is given.
if (parent !== window) all('.embed:not(:has(.found))').forEach(tellHeight)
all<HTMLButtonElement>('[data-copy]').forEach(copyButton)
all('[data-film]').forEach(film)
if (player) for (const list of all('.found')) plays(list, player)
// A window of its own was opened to go on with what was heard.
if (player && location.search.includes('plays')) player.play()
