import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { mailChange, mailState, type MailState } from '@contract/mail'
import { signedIn } from '../../people/access/access'
import type { Account } from '../../people/accounts/models'
import type { Platform } from '../../platform/platform'
import { Mail } from './models'

const mostLast = 10

/** What somebody is written of. */
export const mailRoutes =
  ({ configuration }: Platform): FastifyPluginAsyncZod =>
  async app => {
    const answer = { 200: mailState }

    async function stateFor({ id, email, unwantedMail }: Account): Promise<MailState> {
      const last = await Mail.findAll({
        where: { accountId: id },
        attributes: ['id', 'subject', 'state', 'problem', 'createdAt'],
        order: [['createdAt', 'DESC']],
        limit: mostLast,
      })
      return {
        to: email,
        isSent: configuration.smtpUrl !== null,
        unwanted: unwantedMail,
        last: last.map(mail => ({
          id: mail.id,
          subject: mail.subject,
          state: mail.state,
          problem: mail.problem,
          at: mail.createdAt.toISOString(),
        })),
      }
    }

    app.get('/mail', { ...signedIn, schema: { response: answer } }, request => stateFor(request.account))
    app.put('/mail', { ...signedIn, schema: { body: mailChange, response: answer } }, async request => {
      await request.account.update({ unwantedMail: [...new Set(request.body.unwanted)] })
      return stateFor(request.account)
    })
  }
