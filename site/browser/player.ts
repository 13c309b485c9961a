import { clock } from '@core/words/amounts'

const stepSeconds = 15

/** Puts our own play button, seek bar and times in the place of the browser's controls. Without script those stay. */
export function player(place: HTMLElement): void {
  const audio = place.querySelector('audio')
  if (!audio) return
  const durationMs = Number(place.dataset.durationMs)
  const play = button('Play')
  const back = button(`−${stepSeconds} s`, `Back ${stepSeconds} s`)
  const on = button(`+${stepSeconds} s`, `On ${stepSeconds} s`)
  const seek = Object.assign(document.createElement('input'), {
    type: 'range',
    min: '0',
    max: String(Math.round(durationMs / 1000)),
    value: '0',
  })
  const times = Object.assign(document.createElement('span'), { className: 'figures times' })
  seek.setAttribute('aria-label', 'Place in the episode')

  const show = (): void => {
    times.textContent = `${clock(audio.currentTime * 1000)} of ${clock(durationMs)}`
    seek.value = String(audio.currentTime)
    seek.setAttribute('aria-valuetext', times.textContent)
    seek.style.setProperty('--heard', `${((audio.currentTime * 1000) / durationMs) * 100}%`)
    play.textContent = audio.paused ? 'Play' : 'Pause'
  }
  const moveBy = (seconds: number) => (): void => {
    audio.currentTime = Math.max(0, audio.currentTime + seconds)
  }

  play.addEventListener('click', () => void (audio.paused ? audio.play() : audio.pause()))
  back.addEventListener('click', moveBy(-stepSeconds))
  on.addEventListener('click', moveBy(stepSeconds))
  seek.addEventListener('input', () => {
    audio.currentTime = Number(seek.value)
  })
  for (const event of ['timeupdate', 'play', 'pause', 'seeked', 'ended']) audio.addEventListener(event, show)
  audio.addEventListener('error', () => {
    times.textContent = 'The sound cannot be reached at the moment.'
  })

  audio.controls = false
  play.className = 'play'
  place.append(play, back, seek, on, times)
  show()
}

/** A button; what is read aloud where that is more than what stands on it. */
function button(words: string, label = words): HTMLButtonElement {
  const made = Object.assign(document.createElement('button'), { type: 'button', textContent: words })
  if (label !== words) made.setAttribute('aria-label', label)
  return made
}
