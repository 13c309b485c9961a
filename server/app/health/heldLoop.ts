import { openSync, readSync } from 'node:fs'
import { createHistogram } from 'node:perf_hooks'

const everyMs = 20

/**
 * How long the event loop of this process is held by what is done in it, in ms. What the process waited for a processor that others
 * had is left out where the system tells it (Linux, `Documentation/scheduler/sched-stats.rst`: the second number of `schedstat`, ns).
 */
export function heldLoop() {
  const held = createHistogram()
  let [last, waited] = [0, 0]
  let timer: NodeJS.Timeout | undefined

  function look(): void {
    const [now, waitedNow] = [performance.now(), waitedMs()]
    const ms = now - last - everyMs - (waitedNow - waited)
    // What was held in between is in whole µs, of which there is at least one.
    held.record(Math.max(1, Math.round(ms * 1000)))
    ;[last, waited] = [now, waitedNow]
    timer = setTimeout(look, everyMs).unref()
  }

  return {
    begin(): void {
      ;[last, waited] = [performance.now(), waitedMs()]
      timer = setTimeout(look, everyMs).unref()
    },
    end: (): void => clearTimeout(timer),
    told: (): { p99: number; max: number } => ({ p99: held.percentile(99) / 1000, max: held.max / 1000 }),
  }
}

/** The file stays open, since it is read all the time; null where the system has none. */
const schedstat = ((): number | null => {
  try {
    return openSync('/proc/self/schedstat', 'r')
  } catch {
    return null
  }
})()
const numbers = Buffer.alloc(80)

function waitedMs(): number {
  if (schedstat === null) return 0
  const length = readSync(schedstat, numbers, 0, numbers.length, 0)
  return Number(numbers.toString('latin1', 0, length).split(' ')[1]) / 1e6
}
