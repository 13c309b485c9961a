import { readFileSync } from 'node:fs'
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

function waitedMs(): number {
  try {
    return Number(readFileSync('/proc/self/schedstat', 'latin1').split(' ')[1]) / 1e6
  } catch {
    return 0
  }
}
