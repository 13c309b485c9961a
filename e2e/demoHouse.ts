import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { createConnection } from 'mariadb'
import { type Browser, type BrowserContext, chromium, type Page } from 'playwright-core'
import { inject } from 'vitest'
import { startDatabase } from '../scripts/setup/database.mjs'
import { freePort } from '../scripts/setup/ports.mjs'
import { startProgram } from '../scripts/setup/programs.mjs'
import { clockOf } from './clock'
import { copyOf } from './demoTemplate'

export interface DemoHouse {
  address: string
  listenerAddress: string
  /** A window of a browser of its own, signed in, at the first show; by another server process where its address is given. */
  openWindow(context?: BrowserContext, at?: string): Promise<Page>
  /** Another server process on the same database and media; answers its address. */
  startAnother(): Promise<string>
  /** Changes rows that nobody can change in the studio yet. */
  change(statement: string): Promise<void>
  stopDatabase(): Promise<void>
  startDatabase(): Promise<void>
  /** The drafting service; a house has none running until it is started. */
  startTranscription(): Promise<void>
  stopTranscription(): Promise<void>
  /** Ends the server at once, as a power cut would. */
  killServer(): Promise<void>
  startServer(): Promise<void>
  stop(): Promise<void>
}

export const demoSounds = join(import.meta.dirname, '../demo/sounds')

let launched: Promise<Browser> | undefined

/** The windows that are open in the browser of this process. */
export const openWindows = async (): Promise<Page[]> =>
  (await launched)?.contexts().flatMap(context => context.pages()) ?? []

/** A Chromium, as it is begun for all journeys, and with more said to it. */
export const launchBrowser = (...more: string[]): Promise<Browser> =>
  chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--autoplay-policy=no-user-gesture-required',
      ...more,
    ],
  })
/** One Chromium for all files of a worker; it ends with the worker. */
const sharedBrowser = (): Promise<Browser> => (launched ??= launchBrowser())

/** The built server and listener with the demo's data, on a database, a folder and ports of their own, and a Chromium. */
export async function openDemoHouse(more: Record<string, string> = {}): Promise<DemoHouse> {
  const folder = await copyOf(inject('demoFolder'))
  let database = await startDatabase(folder, { isThrowAway: true })
  const [port, listenerPort, transcriptionPort] = [await freePort(), await freePort(), await freePort()]
  const address = `http://127.0.0.1:${port}`
  const listenerAddress = `http://127.0.0.1:${listenerPort}`
  const environment = {
    PORT: String(port),
    DATABASE_URL: database.url,
    MEDIA_DIR: join(folder, 'media'),
    LISTENER_URL: listenerAddress,
    TRANSCRIPTION_URL: `http://127.0.0.1:${transcriptionPort}`,
    ...clockOf(),
    ...more,
  }
  let server = startProgram('dist/server/main.js', environment)
  const others: ReturnType<typeof startProgram>[] = []
  /** What the first window that signed in was given: the next ones are signed in by it. */
  let signedIn: Awaited<ReturnType<BrowserContext['cookies']>> = []
  let transcription: ReturnType<typeof startProgram> | undefined
  const listener = startProgram('dist/server/listener.js', {
    LISTENER_PORT: String(listenerPort),
    CLOCK_URL: `${address}/api/v1/clock`,
  })
  await Promise.all([server.listening, listener.listening])
  const browser = await sharedBrowser()
  return {
    address,
    listenerAddress,
    async openWindow(context, at = address) {
      const own =
        context ?? (await browser.newContext({ viewport: { width: 1280, height: 800 }, timezoneId: 'Europe/Zurich' }))
      if (!context && at === address) await own.addCookies(signedIn)
      own.setDefaultTimeout(90_000)
      const page = await own.newPage()
      await page.addInitScript(() => {
        const refused: string[] = []
        Object.assign(window, { refused })
        document.addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI, sourceFile }) =>
          refused.push(`refused: ${violatedDirective} ${blockedURI} ${sourceFile}`),
        )
      })
      await page.goto(`${at}/studio/`)
      const shown = page.getByRole('button', { name: 'New episode' })
      await shown.or(page.locator('#email')).first().waitFor()
      if (await page.locator('#email').isVisible()) await signIn(page)
      await shown.waitFor()
      if (at === address) signedIn = await own.cookies()
      return page
    },
    async startAnother() {
      const ownPort = await freePort()
      const another = startProgram('dist/server/main.js', { ...environment, PORT: String(ownPort) })
      others.push(another)
      await another.listening
      return `http://127.0.0.1:${ownPort}`
    },
    async change(statement) {
      const connection = await createConnection(database.url)
      await connection.query(statement).finally(() => connection.end())
    },
    stopDatabase: () => database.stop(),
    async startDatabase() {
      database = await startDatabase(folder, { port: database.port, isThrowAway: true })
    },
    async startTranscription() {
      transcription = startProgram('dist/server/transcription.js', {
        TRANSCRIPTION_PORT: String(transcriptionPort),
        TRANSCRIPTION_WORK_MS: '3000',
      })
      await transcription.listening
    },
    async stopTranscription() {
      await transcription?.stop('SIGKILL')
    },
    killServer: () => server.stop('SIGKILL'),
    async startServer() {
      server = startProgram('dist/server/main.js', environment)
      await server.listening
    },
    async stop() {
      for (const context of browser.contexts()) await context.close()
      const { eventLoopDelayMs } = (await (await fetch(`${address}/healthz`)).json()) as {
        eventLoopDelayMs: { p99: number; max: number }
      }
      console.log(
        `  the server’s event loop was held for ${eventLoopDelayMs.max} ms at most, p99 ${eventLoopDelayMs.p99} ms`,
      )
      await transcription?.stop()
      await Promise.all([server, listener, ...others].map(program => program.stop()))
      await database.stop()
      await rm(folder, { recursive: true, force: true })
    },
  }
}

async function signIn(page: Page): Promise<void> {
  await page.fill('#email', 'demo@lakeletter.example')
  await page.fill('#password', 'lake-letter-demo')
  await page.click('button[type=submit]')
}
