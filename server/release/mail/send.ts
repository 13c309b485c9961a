import { createTransport } from 'nodemailer'
import { Account } from '../../people/accounts/models'
import { transact } from '../../platform/database/transact'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { Mail } from './models'

const minuteMs = 60_000
/** How long a mail server is given after each try that failed; then the mail is given up, after two days in all. */
const pausesMs = [10_000, minuteMs, 5 * minuteMs, 15 * minuteMs, ...Array.from({ length: 24 }, () => 120 * minuteMs)]
/** A server that says nothing for so long is not waited for. */
const patienceMs = 10_000

/**
 * The job: hands a mail to the mail server. A mail keeps its Message-ID, so that one whose process died after the server took
 * it, and which is sent again, can be known as the same (RFC 5322 section 3.6.4).
 */
export function sendMail(platform: Platform, waitsMs = patienceMs): JobDefinition<Payloads['send-mail']> {
  const { database, clock, jobs, configuration } = platform
  const { hostname } = new URL(configuration.publicUrl)

  async function failed(mail: Mail, error: unknown): Promise<void> {
    const { responseCode } = error as { responseCode?: number }
    // RFC 5321 section 4.2.1: 5yz is for good, 4yz for now.
    const isForGood = responseCode !== undefined && responseCode >= 500
    const pause = isForGood ? undefined : pausesMs[mail.tries]
    const problem = (error as Error).message.slice(0, 300)
    await transact(database, async transaction => {
      const settled = pause === undefined && { state: 'given up' as const, settledAt: clock.now() }
      await mail.update({ tries: mail.tries + 1, problem, ...settled }, { transaction })
      if (pause !== undefined)
        await jobs.add({ kind: 'send-mail', payload: { mailId: mail.id }, afterMs: pause }, transaction)
    })
  }

  return {
    lane: 'mail',
    limitMs: minuteMs,
    async run({ mailId }) {
      const mail = await Mail.findByPk(mailId)
      if (mail?.state !== 'waiting' || !configuration.smtpUrl) return
      const { email } = await Account.findByPk(mail.accountId, { attributes: ['email'], rejectOnEmpty: true })
      const transport = createTransport({
        url: configuration.smtpUrl,
        connectionTimeout: waitsMs,
        greetingTimeout: waitsMs,
        socketTimeout: waitsMs,
        dnsTimeout: waitsMs,
      })
      try {
        await transport.sendMail({
          from: configuration.mailFrom,
          to: email,
          subject: mail.subject,
          text: mail.text,
          date: mail.createdAt,
          messageId: `<${mail.id}@${hostname}>`,
          headers: { 'Auto-Submitted': 'auto-generated' },
        })
      } catch (error) {
        return failed(mail, error)
      } finally {
        transport.close()
      }
      await transact(database, transaction =>
        mail.update({ state: 'sent', problem: null, tries: mail.tries + 1, settledAt: clock.now() }, { transaction }),
      )
    },
    async gaveUp({ mailId }) {
      await transact(database, transaction =>
        Mail.update(
          { state: 'given up', settledAt: clock.now() },
          { where: { id: mailId, state: 'waiting' }, transaction },
        ),
      )
    },
  }
}
