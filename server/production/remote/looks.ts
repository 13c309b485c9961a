import type { AudioFile } from '../../media/files/models'
import type { NewJob } from '../../platform/jobs/jobs'

const everyMs = 24 * 3600_000
/** So long before a planned release its file is asked for once more. */
const beforeReleaseMs = 5 * 60_000

/** The next of the daily looks at a file that lives elsewhere. */
export const nextLook = ({ id, showId }: Pick<AudioFile, 'id' | 'showId'>): NewJob => ({
  kind: 'check-address',
  payload: { fileId: id },
  subject: id,
  showId,
  afterMs: everyMs,
})

/** Another look in a while at a file that an episode waits for. */
export const lookAgain = ({ id, showId }: Pick<AudioFile, 'id' | 'showId'>): NewJob => ({
  kind: 'check-address-once',
  payload: { fileId: id },
  showId,
  afterMs: beforeReleaseMs,
})

/** One more look shortly before a moment. */
export const lookBefore = (moment: Date, { id, showId }: Pick<AudioFile, 'id' | 'showId'>, now: Date): NewJob => ({
  kind: 'check-address-once',
  payload: { fileId: id },
  showId,
  afterMs: Math.max(0, +moment - +now - beforeReleaseMs),
})
