import pLimit from 'p-limit'
import { NoTranscript } from '@core/transcript/cue'
import type { Configuration } from '../configuration'
import { threads } from '../threads'
import type { TextAnswers, TextSaid, TextTask } from './tasks'

/** A text could not be read within the time and the memory that there are for it. */
export class TooMuchText extends Error {
  constructor() {
    super('It takes too much time or memory to be read.')
  }
}

/** Of a feed of 25 MB all is looked through. */
const limitMs: Readonly<Record<TextTask['kind'], number>> = {
  addresses: 60_000,
  check: 60_000,
  compare: 60_000,
  transcript: 20_000,
  draft: 20_000,
  'transcript fault': 10_000,
  'chapters fault': 10_000,
}
const mostAtOnce = 2
const line = pLimit(mostAtOnce)
const read = threads<TextTask, TextSaid>('textWorker.js', { mostAtOnce, mostMemoryMb: 2_000 })

/**
 * Has text that others wrote read by a thread, so that nothing else waits for it. Throws NoTranscript where it is said to be one and
 * is none, and TooMuchText where it is not done in time, or the thread ends on it.
 */
export async function readText<T extends TextTask>(
  task: T,
  { serverDir }: Pick<Configuration, 'serverDir'>,
): Promise<TextAnswers[T['kind']]> {
  const said = await line(() =>
    read(task, serverDir, AbortSignal.timeout(limitMs[task.kind])).catch(() => {
      throw new TooMuchText()
    }),
  )
  if ('noTranscript' in said) throw new NoTranscript(said.noTranscript)
  return said.answer as TextAnswers[T['kind']]
}
