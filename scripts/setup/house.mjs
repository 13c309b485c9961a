import { rmSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { readOrNull } from './files.mjs'
import { Halt } from './halt.mjs'

/** Claims a data folder for this process; throws a Halt where a living one holds it. A dead one's claim does not count. */
export function claim(folder, address) {
  const path = join(folder, 'running.json')
  const held = JSON.parse(readOrNull(path) ?? 'null')
  if (held && held.pid !== process.pid && (readOrNull(`/proc/${held.pid}/cmdline`) ?? '').includes(held.script)) {
    throw new Halt(
      `Lake Letter runs from this folder already, at ${held.address}; use that one, or end it with Ctrl-C in its terminal.`,
    )
  }
  writeFileSync(path, JSON.stringify({ pid: process.pid, script: basename(process.argv[1]), address }))
  return () => {
    if (JSON.parse(readOrNull(path) ?? 'null')?.pid === process.pid) rmSync(path, { force: true })
  }
}

/** Keeps the parts that a script started, and stops them, the last started first. */
export class Parts {
  #parts = []
  #stopped = false

  add(part) {
    this.#parts.push(part)
    return part
  }

  /** Starts a small outside service, and starts it again where it falls: nothing else depends on it. */
  addStandIn(start, pauseMs = 1000) {
    const holder = { standIn: true, stop: () => holder.current.stop() }
    const run = () => {
      holder.current = start()
      holder.current.process.once('close', () =>
        setTimeout(() => {
          if (!this.#stopped) run()
        }, pauseMs),
      )
      // One that falls before it listens is started again, too.
      holder.current.listening?.catch(() => {})
    }
    run()
    return this.add(holder).current
  }

  async stop() {
    this.#stopped = true
    for (const part of this.#parts.splice(0).toReversed()) await part.stop()
  }

  /** Stops everything and ends this process on Ctrl-C, SIGTERM or a closed terminal, from now on. */
  stopOnSignals(also = () => {}) {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
      process.once(
        signal,
        () =>
          void this.stop()
            .then(also)
            .then(() => process.exit(0)),
      )
  }

  /** Waits until a part ends by itself, which none should; throws a Halt then. */
  async keepRunning() {
    await Promise.race(
      this.#parts
        .filter(part => !part.standIn)
        .map(part => new Promise(resolve => part.process.once('close', resolve))),
    )
    if (this.#parts.length === 0) return new Promise(() => {})
    throw new Halt('A part of Lake Letter ended by itself, so all of it was stopped; start it again.')
  }
}
