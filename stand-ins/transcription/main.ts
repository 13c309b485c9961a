import { followClock } from '../clock'
import { transcriptionServer } from './server'
import { wordsIn } from './sounds'

/** A drafting service in small: it is given the address of a sound and knows nothing else of the house that asks. */
const port = Number(process.env.TRANSCRIPTION_PORT ?? 4312)
const workMs = Number(process.env.TRANSCRIPTION_WORK_MS ?? 8000)

const server = transcriptionServer(
  await wordsIn(process.env.TRANSCRIPTION_SOUNDS ?? 'demo/sounds'),
  workMs,
  followClock(process.env.CLOCK_URL),
)
server.listen(port, '127.0.0.1', () =>
  process.send?.({ listening: `http://127.0.0.1:${(server.address() as { port: number }).port}` }),
)
const stop = (): void => {
  server.close(() => process.exit(0)).closeAllConnections()
}
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
