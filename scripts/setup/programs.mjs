import { spawn } from 'node:child_process'
import { Halt } from './halt.mjs'
import { root } from './place.mjs'

/**
 * Starts a Node.js program of ours and waits until it says over IPC that it listens. It does not get the terminal's
 * Ctrl-C, we end it; and it ends by itself when we are gone, because the IPC channel closes.
 */
export function startProgram(entry, environment) {
  const child = spawn(process.execPath, [entry], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', ...environment },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  })
  const ended = new Promise(resolve => child.once('close', resolve))
  const listening = new Promise((resolve, reject) => {
    child.once('message', ({ listening: address }) => resolve(address))
    child.once('close', () => reject(new Halt(`${entry} ended before it listened; its own message stands above.`)))
  })
  return {
    process: child,
    listening,
    ended,
    async stop(signal = 'SIGTERM') {
      child.kill(signal)
      await ended
    },
  }
}

/** Ends a program as soon as the one that started it is gone, however that ended; it does not live longer for it. Its threads run this, too, and have no channel. */
const endWithUs = `data:text/javascript,${encodeURIComponent('process.once("disconnect", () => process.exit(1)); process.channel?.unref()')}`

/** Runs a Node.js program of ours to its end, or to ours. */
export function runProgram(entry, environment, given = []) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', endWithUs, entry, ...given], {
      cwd: root,
      env: { ...process.env, ...environment },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    child.once('close', code =>
      code === 0 ? resolve() : reject(new Halt(`${entry} failed; its own message stands above.`)),
    )
  })
}
