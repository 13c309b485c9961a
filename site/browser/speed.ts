import { kept } from './kept'

export const speeds = [0.5, 0.75, 1, 1.1, 1.25, 1.5, 1.75, 2, 2.5, 3]
const speed = kept<number>('speed', 1, (value): value is number => speeds.includes(value as number))

/** A choice of speeds, beginning with that of the last visit. */
export function speedChoice(audio: HTMLAudioElement, label: string): HTMLSelectElement {
  const choice = document.createElement('select')
  choice.setAttribute('aria-label', label)
  // Digits are those that the times have.
  const { format } = new Intl.NumberFormat(audio.closest<HTMLElement>('[lang]')!.lang, { numberingSystem: 'latn' })
  for (const each of speeds) choice.add(new Option(`${format(each)} ×`, String(each)))
  const set = (value: number): void => {
    // What is loaded later begins with the default rate.
    audio.defaultPlaybackRate = value
    audio.playbackRate = value
    choice.value = String(value)
  }
  choice.addEventListener('change', () => {
    set(Number(choice.value))
    speed.write(Number(choice.value))
  })
  set(speed.read())
  return choice
}
