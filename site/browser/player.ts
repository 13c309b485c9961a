import { clock } from '@core/words/amounts'
import { playerStepSeconds, type PlayerWords } from '../playerWords'
import { copy, sayDone } from './clipboard'
import { button, filled, row } from './elements'
import { mediaKeys } from './mediaKeys'
import { hashOf, type MediaFragment, readMediaFragment } from './mediaFragment'
import { keepPlace, stoppedAt } from './resume'
import { speedChoice } from './speed'

/** What a player plays. */
export interface Source {
  address: string
  durationMs: number
  title: string
  show: string
  picture: string
  /** The page of the episode. */
  page: string
}

export type Player = ReturnType<typeof createPlayer>

/** Puts our own player in the place of the browser's controls, which stay without script. */
export function createPlayer(place: HTMLElement) {
  const audio = place.querySelector('audio')!
  const words = JSON.parse(place.dataset.words!) as PlayerWords
  let source = sourceOf(place, audio.src)
  let stopAt = Infinity

  const play = button(words.play, () => toggle())
  const seek = Object.assign(document.createElement('input'), { type: 'range', min: '0', step: 'any' })
  seek.setAttribute('aria-label', words.position)
  const times = Object.assign(document.createElement('span'), { className: 'figures times' })
  const link = button('', async () => {
    await copy(source.page + hashOf(audio.currentTime))
    sayDone(link, words.copied)
  })

  const show = (): void => {
    const now = clock(audio.currentTime * 1000)
    times.textContent = filled(words.timeOf, { now, total: clock(source.durationMs) })
    seek.value = String(audio.currentTime)
    seek.setAttribute('aria-valuetext', times.textContent)
    seek.style.setProperty('--heard', `${((audio.currentTime * 1000) / source.durationMs) * 100}%`)
    play.textContent = audio.paused ? words.play : words.pause
    if (!link.disabled) link.textContent = filled(words.copyLinkAt, { time: now })
  }

  function toggle(): void {
    if (audio.paused) begin()
    else audio.pause()
  }
  function begin(): void {
    // Whoever pauses before it has begun wants it so.
    audio.play().catch((error: unknown) => {
      if (!(error instanceof DOMException)) throw error
    })
  }
  function goTo(seconds: number): void {
    audio.currentTime = Math.min(Math.max(0, seconds), source.durationMs / 1000)
    stopAt = Infinity
    show()
  }
  const moveBy = (seconds: number): void => goTo(audio.currentTime + seconds)
  function playFrom({ from, to }: MediaFragment): void {
    goTo(from)
    stopAt = to ?? Infinity
    begin()
  }
  /** Another sound in the same player, at a place, or where somebody stopped. */
  function load(wanted: Source, at: MediaFragment | null): void {
    if (wanted.address !== source.address) audio.src = wanted.address
    else audio.pause()
    source = wanted
    seek.max = String(source.durationMs / 1000)
    goTo(at?.from ?? stoppedAt(source.page))
    stopAt = at?.to ?? Infinity
  }

  seek.addEventListener('input', () => goTo(Number(seek.value)))
  for (const event of ['timeupdate', 'play', 'pause', 'seeked', 'ended']) audio.addEventListener(event, show)
  audio.addEventListener('timeupdate', () => {
    if (audio.currentTime < stopAt) return
    audio.pause()
    stopAt = Infinity
  })
  audio.addEventListener('play', () => {
    for (const other of document.querySelectorAll('audio')) if (other !== audio) other.pause()
  })
  audio.addEventListener('error', () => {
    times.textContent = words.unreachable
  })
  place.addEventListener('keydown', event => {
    if (event.altKey || event.ctrlKey || event.metaKey || event.target instanceof HTMLSelectElement) return
    // The bar has arrows of its own, of a length that says nothing.
    const way = { ArrowLeft: -playerStepSeconds, ArrowRight: playerStepSeconds }[event.key]
    if (way === undefined) return
    event.preventDefault()
    moveBy(way)
  })

  audio.controls = false
  play.className = 'play'
  const way = row(
    'way',
    play,
    button(`−${playerStepSeconds}`, () => moveBy(-playerStepSeconds), words.back),
    seek,
    button(`+${playerStepSeconds}`, () => moveBy(playerStepSeconds), words.forward),
    times,
  )
  // A sound runs from left to right wherever it is heard (common practice, no source); words run as they are written.
  for (const part of [play, times]) part.dir = (place.dir ? place : document.documentElement).dir
  way.dir = 'ltr'
  place.prepend(way)
  const aside = row('beside', speedChoice(audio, words.speed), link, share(), miniPlayer())
  const download = place.querySelector('.download')
  if (download) aside.append(download)
  place.append(aside)

  const player = {
    audio,
    words,
    step: playerStepSeconds,
    // A page has one list of chapters, which is of its one player.
    chapters: [...document.querySelectorAll<HTMLAnchorElement>('[data-chapters] a[data-at]')].map(
      ({ hash }) => readMediaFragment(hash)?.from ?? 0,
    ),
    get source() {
      return source
    },
    toggle,
    play: begin,
    goTo,
    moveBy,
    playFrom,
    load,
  }
  keepPlace(audio, () => source.page)
  mediaKeys(player)
  load(source, readMediaFragment(location.hash))
  return player

  /** The sheet of the device, where it has one. */
  function share(): HTMLButtonElement | null {
    if (!('share' in navigator)) return null
    return button(words.share, () => {
      const { title, page } = source
      // Whoever closes the sheet wants nothing else.
      navigator
        .share({ title, url: page + (audio.currentTime >= 1 ? hashOf(audio.currentTime) : '') })
        .catch(() => undefined)
    })
  }

  /** A small window that plays on while this one goes elsewhere. */
  function miniPlayer(): HTMLButtonElement | null {
    if (place.dataset.player === 'alone') return null
    return button(words.miniPlayer, () => {
      audio.pause()
      open(`${source.page}/embed?plays${hashOf(audio.currentTime)}`, 'lake-letter', 'popup,width=460,height=260')
    })
  }
}

export const sourceOf = ({ dataset }: HTMLElement, address: string): Source => ({
  address,
  durationMs: Number(dataset.durationMs),
  title: dataset.title ?? '',
  show: dataset.show ?? '',
  picture: dataset.picture ?? '',
  page: dataset.page ?? '',
})
