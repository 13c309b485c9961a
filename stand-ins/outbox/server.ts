import { createServer, type Server } from 'node:http'
import { SMTPServer } from 'smtp-server'
import type { Mailbox } from './mails'
import { page } from './page'

const mostBytes = 5_000_000

/** Takes any mail over SMTP (RFC 5321), without sign-in and without encryption: it listens on loopback only. */
export function mailServer(box: Mailbox): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: mostBytes,
    onData(stream, _session, callback) {
      const parts: Buffer[] = []
      stream.on('data', (part: Buffer) => parts.push(part))
      stream.on('error', callback)
      stream.on('end', () => {
        // RFC 1870 section 6.1: what is larger than was offered is refused.
        if (stream.sizeExceeded)
          return callback(Object.assign(new Error('The mail is too large.'), { responseCode: 552 }))
        box.take(Buffer.concat(parts)).then(() => callback(), callback)
      })
    },
  })
}

/** Shows what arrived: `/` is a page, `/mails` the same as JSON. */
export function pageServer(box: Mailbox): Server {
  return createServer((request, response) => {
    const { pathname } = new URL(request.url ?? '/', 'http://outbox')
    if (pathname === '/mails')
      response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(box.all()))
    else if (pathname === '/')
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(box.all()))
    else response.writeHead(404, { 'content-type': 'text/plain' }).end('There is nothing here.')
  }).on('clientError', (_error, socket) => {
    socket.destroy()
  })
}
