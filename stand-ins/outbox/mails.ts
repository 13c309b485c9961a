import { type AddressObject, simpleParser } from 'mailparser'

/** A mail as it arrived. */
export interface Arrived {
  /** Counted from 1. */
  number: number
  messageId: string
  from: string
  to: string
  subject: string
  date: string
  /** When it came in here. */
  arrivedAt: string
  text: string
}

/** What has arrived, in memory, the newest first; only so many are kept. */
export function mailbox(mostKept = 500, now: () => number = Date.now) {
  const mails: Arrived[] = []
  let count = 0
  return {
    async take(raw: Buffer): Promise<void> {
      const { messageId, from, to, subject, date, text } = await simpleParser(raw)
      mails.unshift({
        number: ++count,
        messageId: messageId ?? '',
        from: from?.text ?? '',
        to: [to ?? []]
          .flat()
          .map((each: AddressObject) => each.text)
          .join(', '),
        subject: subject ?? '',
        date: (date ?? new Date(0)).toISOString(),
        text: text ?? '',
        arrivedAt: new Date(now()).toISOString(),
      })
      mails.length = Math.min(mails.length, mostKept)
    },
    all: (): readonly Arrived[] => mails,
  }
}
export type Mailbox = ReturnType<typeof mailbox>
