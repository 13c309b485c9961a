import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { createTransport } from 'nodemailer'
import { followClock } from '../clock'
import { bookOf, type Submission } from './book'
import { directoriesServer } from './server'

/** Directories in small: they fetch feeds as anybody does, write to their owners, and list them. */
const port = Number(process.env.DIRECTORIES_PORT ?? 4315)
const file = process.env.DIRECTORIES_FILE
const smtp = process.env.SMTP_URL
const tickMs = Number(process.env.DIRECTORIES_TICK_MS ?? 1_000)

const now = followClock(process.env.CLOCK_URL)
const book = bookOf(kept(), {
  now,
  keep(submissions) {
    if (!file) return
    writeFileSync(`${file}.new`, JSON.stringify(submissions))
    renameSync(`${file}.new`, file)
  },
  async mail(to, subject, text) {
    if (!smtp) return
    const transport = createTransport({ url: smtp })
    await transport.sendMail({ from: 'shows@directories.example', to, subject, text }).finally(() => transport.close())
  },
})

function kept(): Submission[] {
  try {
    return file ? (JSON.parse(readFileSync(file, 'utf8')) as Submission[]) : []
  } catch {
    return []
  }
}

let address = ''
const server = directoriesServer(book, () => address, now)
server.listen(port, '127.0.0.1', () => {
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  process.send?.({ listening: address })
})
const timer = setInterval(() => void book.tick().catch(() => undefined), tickMs)
const stop = (): void => {
  clearInterval(timer)
  server.close(() => process.exit(0)).closeAllConnections()
}
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
