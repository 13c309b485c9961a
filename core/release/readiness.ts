import { isDeliverable } from '../audio/delivery'
import { isBlank } from '../words/line'

/** What keeps an episode from going out. */
export const hindrances = [
  'no audio',
  'no title',
  'being finished',
  'not finished',
  'other format',
  'not there',
] as const
export type Hindrance = (typeof hindrances)[number]

/** An episode as far as it matters for that. */
export interface Goer {
  title: string
  /** What was uploaded, or is elsewhere; null without audio. */
  source: { type: string; isReachable: boolean } | null
  /** Where it has a recipe: how far the finished file is. */
  finish: 'none' | 'working' | 'done' | 'failed' | null
}

/** What keeps an episode from going out at this moment; nothing where it can. */
export function hindrancesOf({ title, source, finish }: Goer): Hindrance[] {
  const found: Hindrance[] = []
  if (!source) found.push('no audio')
  if (isBlank(title)) found.push('no title')
  if (source && finish === 'working') found.push('being finished')
  else if (source && finish !== null && finish !== 'done') found.push('not finished')
  else if (source && finish === null && !isDeliverable(source.type)) found.push('other format')
  else if (source && finish === null && !source.isReachable) found.push('not there')
  return found
}

/** What may be so all the same: a moment that lies ahead waits for finishing, and an address may answer again. */
const passing: Readonly<Record<'release' | 'schedule', readonly Hindrance[]>> = {
  release: ['not there'],
  schedule: ['being finished', 'not finished', 'other format', 'not there'],
}

/** Of what keeps an episode from going out, what keeps it from being released or scheduled by hand. */
export const hindering = (step: 'release' | 'schedule', found: readonly Hindrance[]): Hindrance[] =>
  found.filter(hindrance => !passing[step].includes(hindrance))

/** The same with a title that is not saved yet. */
export const withTitle = (found: readonly Hindrance[], title: string): Hindrance[] => [
  ...found.filter(hindrance => hindrance !== 'no title'),
  ...(isBlank(title) ? (['no title'] as const) : []),
]

/** What each waits for, shortly: `a title`. */
export const hindranceNeeds: Readonly<Record<Hindrance, string>> = {
  'no audio': 'audio',
  'no title': 'a title',
  'being finished': 'the finished audio',
  'not finished': 'the finished audio',
  'other format': 'audio in a format that apps play',
  'not there': 'audio that answers at its address',
}

/** The rule that each breaks, in words. */
export const hindranceRules: Readonly<Record<Hindrance, string>> = {
  'no audio': 'A release needs audio.',
  'no title': 'A release needs a title.',
  'being finished': 'The audio is still being finished.',
  'not finished': 'The audio is not finished yet. Finish it, or use the uploaded file as it is.',
  'other format': 'Only MP3 and M4A can be published. Finish the audio first, which encodes it.',
  'not there': 'The audio lives elsewhere, and its address did not answer when it was last asked.',
}

/** The same shortly, after the name of an episode: `has no title`. */
export const hindranceWords: Readonly<Record<Hindrance, string>> = {
  'no audio': 'has no audio',
  'no title': 'has no title',
  'being finished': 'is still being finished',
  'not finished': 'is not finished',
  'other format': 'has audio that apps cannot be given; finish it',
  'not there': 'has its audio elsewhere, where it does not answer',
}
