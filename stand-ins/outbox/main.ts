import type { AddressInfo } from 'node:net'
import { followClock } from '../clock'
import { mailbox } from './mails'
import { mailServer, pageServer } from './server'

/** A mail server in small: what it is handed it shows, and sends nowhere. */
const smtpPort = Number(process.env.OUTBOX_SMTP_PORT ?? 4314)
const pagePort = Number(process.env.OUTBOX_PORT ?? 4313)

const box = mailbox(500, followClock(process.env.CLOCK_URL))
const mail = mailServer(box)
const pages = pageServer(box)
mail.on('error', () => undefined)
mail.listen(smtpPort, '127.0.0.1', () => {
  pages.listen(pagePort, '127.0.0.1', () => {
    const { port } = mail.server.address() as AddressInfo
    process.send?.({
      listening: `http://127.0.0.1:${(pages.address() as AddressInfo).port}`,
      smtp: `smtp://127.0.0.1:${port}`,
    })
  })
})
const stop = (): void => {
  mail.close(() => pages.close(() => process.exit(0)).closeAllConnections())
}
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
