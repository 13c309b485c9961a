import { followClock } from '../clock'
import { listenerServer } from './server'

/** A listening app in small: it knows a feed's address and nothing else of the house that wrote it. */
const port = Number(process.env.LISTENER_PORT ?? 4311)

const server = listenerServer(followClock(process.env.CLOCK_URL))
server.listen(port, '127.0.0.1', () =>
  process.send?.({ listening: `http://127.0.0.1:${(server.address() as { port: number }).port}` }),
)
const stop = (): void => {
  server.close(() => process.exit(0)).closeAllConnections()
}
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
