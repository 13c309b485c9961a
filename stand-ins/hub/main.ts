import type { AddressInfo } from 'node:net'
import { followClock } from '../clock'
import { hubServer } from './server'

/** A hub in small: it knows of feeds only what it is told, and fetches them as anybody does. */
const server = hubServer(followClock(process.env.CLOCK_URL))
server.listen(Number(process.env.HUB_PORT ?? 4318), '127.0.0.1', () =>
  process.send?.({ listening: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }),
)
const stop = (): void => {
  server.close(() => process.exit(0)).closeAllConnections()
}
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
