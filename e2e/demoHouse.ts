import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startDatabase } from '../scripts/setup/database.mjs'
import { freePort } from '../scripts/setup/ports.mjs'
import { runProgram, startProgram } from '../scripts/setup/programs.mjs'

export interface DemoHouse {
  address: string
  listenerAddress: string
  stop(): Promise<void>
}

/** The built server and listener with the demo's data, on a database, a folder and ports of their own. */
export async function openDemoHouse(): Promise<DemoHouse> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-journey-'))
  const database = await startDatabase(folder)
  const [port, listenerPort] = [await freePort(), await freePort()]
  const listenerAddress = `http://127.0.0.1:${listenerPort}`
  const environment = { PORT: String(port), DATABASE_URL: database.url, MEDIA_DIR: join(folder, 'media'), LISTENER_URL: listenerAddress }
  await runProgram('dist/server/demo.js', { ...environment, FILL_DEMO: 'yes' })
  const server = startProgram('dist/server/main.js', environment)
  const listener = startProgram('dist/server/listener.js', { LISTENER_PORT: String(listenerPort) })
  await Promise.all([server.listening, listener.listening])
  return {
    address: `http://127.0.0.1:${port}`,
    listenerAddress,
    async stop() {
      await Promise.all([server.stop(), listener.stop()])
      await database.stop()
      await rm(folder, { recursive: true, force: true })
    },
  }
}
