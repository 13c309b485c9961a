import { type ParsedMail, simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'

/** A mail server that takes everything, and what it took, the newest first. */
export function takingMailServer(): { server: SMTPServer; mails: ParsedMail[] } {
  const mails: ParsedMail[] = []
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, _session, callback) {
      simpleParser(stream)
        .then(mail => mails.unshift(mail))
        .then(() => callback(), callback)
    },
  })
  return { server, mails }
}
