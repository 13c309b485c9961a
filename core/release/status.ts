/** Where an episode stands. A draft is only here; a scheduled one waits; a released one is in the feed; a retired one was. */
export const statuses = ['draft', 'scheduled', 'released', 'retired'] as const
export type Status = (typeof statuses)[number]

/** What can be done to an episode's status, or to what the feed tells of it. */
export const stepNames = [
  'schedule',
  'unschedule',
  'release',
  'send',
  'redate',
  'set an end',
  'drop the end',
  'retire',
  'restore',
] as const
export type Step = (typeof stepNames)[number]

/** One step of the machine, and what it means for whoever takes it. */
export interface StepRule {
  from: readonly Status[]
  to: Status
  /** Why somebody takes it. */
  reason: string
  /** What apps do that have the episode, or will get it. */
  effect: string
  /** The step that undoes it, as far as apps let it; null where nothing does. */
  undo: Step | null
}

/** Every step that there is. What is not here cannot be done. */
export const steps: Readonly<Record<Step, StepRule>> = {
  schedule: {
    from: ['draft', 'scheduled'],
    to: 'scheduled',
    reason: 'It will be released automatically at its time.',
    effect: 'Nothing until then; what is written meanwhile goes along.',
    undo: 'unschedule',
  },
  unschedule: {
    from: ['scheduled'],
    to: 'draft',
    reason: 'It should not be released then.',
    effect: 'None: no app has it.',
    undo: 'schedule',
  },
  release: {
    from: ['draft', 'scheduled'],
    to: 'released',
    reason: 'It is released now, or its time has come.',
    effect: 'Apps find it when they next read the feed, mostly within hours, and keep it from then on.',
    undo: 'retire',
  },
  send: {
    from: ['released'],
    to: 'released',
    reason: 'Something was corrected since it went out.',
    effect: 'Apps take over the words; a file that somebody has downloaded stays as it is there.',
    undo: null,
  },
  redate: {
    from: ['released'],
    to: 'released',
    reason: 'It is in the wrong place.',
    effect: 'Apps that sort by date move it; some show it as new once more, some keep the date that they had.',
    undo: 'redate',
  },
  'set an end': {
    from: ['released'],
    to: 'released',
    reason: 'It is to be there only until a day.',
    effect: 'Nothing until then.',
    undo: 'drop the end',
  },
  'drop the end': {
    from: ['released'],
    to: 'released',
    reason: 'It is to stay after all.',
    effect: 'None.',
    undo: 'set an end',
  },
  retire: {
    from: ['released'],
    to: 'retired',
    reason: 'It is not to be found any more, or its time is over.',
    effect: 'It leaves the feed. Apps that have it may keep it; others do not find it any more.',
    undo: 'restore',
  },
  restore: {
    from: ['retired'],
    to: 'released',
    reason: 'It is to be there again.',
    effect: 'It is in the feed again as it was, with its date and its GUID; apps that kept it know it.',
    undo: 'retire',
  },
}

/** The status that a step leads to, or null where it cannot be taken from here. */
export function after(step: Step, from: Status): Status | null {
  return steps[step].from.includes(from) ? steps[step].to : null
}
