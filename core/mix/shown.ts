import { clock } from '../words/amounts'
import { isOfNewerHouse, type MixDocument } from './document'
import { layoutOf } from './layout'

/** A mix in words, by which two of them are told apart. */
export function shownMix(mix: MixDocument): string {
  if (isOfNewerHouse(mix)) return 'as a newer version of Lake Letter has it'
  const { durationMs } = layoutOf(mix, () => Infinity)
  const [pieces, beds] = [mix.pieces.length, mix.beds.length]
  return `${pieces} ${pieces === 1 ? 'piece' : 'pieces'}, ${beds} ${beds === 1 ? 'bed' : 'beds'}, ${clock(durationMs)}`
}
