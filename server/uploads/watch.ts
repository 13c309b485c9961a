import type { Platform } from '../platform'
import { uploadService } from './service'

const everyMs = 30_000

/** Looks after uploads at the start, and regularly from then on. */
export function startUploadWatch(platform: Platform, report: (error: unknown) => void): { stop(): Promise<void> } {
  const uploads = uploadService(platform)
  let timer: NodeJS.Timeout | undefined
  let stopped = false
  let looking = Promise.resolve()
  const look = (): void => {
    looking = uploads
      .lookAfter()
      .catch(report)
      .then(() => {
        if (!stopped) timer = setTimeout(look, everyMs)
      })
  }
  look()
  return {
    async stop() {
      stopped = true
      clearTimeout(timer)
      await looking
    },
  }
}
