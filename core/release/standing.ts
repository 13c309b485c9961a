import { isBlank } from '../words/line'

/** Where an episode stands. A draft is only here; a scheduled one waits; a released one is in the feed; a retired one was. */
export const standings = ['draft', 'scheduled', 'released', 'retired'] as const
export type Standing = (typeof standings)[number]

/** What a person can do to an episode's standing. */
export type Step = 'release' | 'schedule' | 'unschedule' | 'retire' | 'restore'

const steps: Readonly<Record<Step, { from: readonly Standing[]; to: Standing }>> = {
  release: { from: ['draft', 'scheduled'], to: 'released' },
  schedule: { from: ['draft', 'scheduled'], to: 'scheduled' },
  unschedule: { from: ['scheduled'], to: 'draft' },
  retire: { from: ['released'], to: 'retired' },
  restore: { from: ['retired'], to: 'released' },
}

/** The standing that a step leads to, or null where it cannot be taken from here. */
export function after(step: Step, from: Standing): Standing | null {
  return steps[step].from.includes(from) ? steps[step].to : null
}

/** The three needs of an episode: audio, a title and a moment. Answers those of the first two that are missing. */
export function missingForRelease(episode: { title: string; hasAudio: boolean }): ('audio' | 'title')[] {
  const missing: ('audio' | 'title')[] = []
  if (!episode.hasAudio) missing.push('audio')
  if (isBlank(episode.title)) missing.push('title')
  return missing
}
