import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { uploadService } from './service'

const everyMs = 30_000

/** Looks after uploads at the start, and regularly from then on. */
export function startUploadWatch(platform: Platform, report: (error: unknown) => void): Repeated {
  const uploads = uploadService(platform)
  return repeat(everyMs, () => uploads.lookAfter(), report)
}
