import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { Op, type Transaction } from 'sequelize'
import { clockMove, type ClockMove, type ClockReading, clockReading } from '@contract/clockOffset'
import { signedIn } from '../../people/access/access'
import { transact } from '../../platform/database/transact'
import { Episode } from '../../show/episodes/models'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { moveClock, readOffset, OffsetClock } from './clock'

/** Moving the clock, where it can be moved: in the demo. The stand-ins ask what time it is, without signing in. */
export const clockRoutes =
  ({ clock, database }: Platform): FastifyPluginAsyncZod =>
  async app => {
    if (!(clock instanceof OffsetClock)) return
    const told = (): ClockReading => ({ now: clock.now().toISOString(), offsetMs: clock.offsetMs })

    app.get('/clock', { config: { access: 'anyone' }, schema: { response: { 200: clockReading } } }, told)

    app.post('/clock', { ...signedIn, schema: { body: clockMove, response: { 200: clockReading } } }, async request => {
      clock.offsetMs = await transact(database, async transaction => {
        const run = (sql: string, replacements: Record<string, unknown>) =>
          database.query(sql, { replacements, transaction })
        await moveClock(database, 0, transaction)
        const byMs = await wayTo(request.body, transaction)
        await moveClock(database, byMs, transaction)
        // Whoever moves it stays signed in.
        await run('UPDATE sessions SET expires_at = expires_at + INTERVAL :byMs * 1000 MICROSECOND', { byMs })
        await run(
          "INSERT INTO events (kind, show_id, subject, at) SELECT 'clock', id, id, :at FROM shows ORDER BY id LIMIT 1000",
          { at: new Date(+clock.now() + byMs) },
        )
        return readOffset(database, transaction)
      })
      return told()
    })

    async function wayTo(body: ClockMove, transaction: Transaction): Promise<number> {
      if (body.to === 'later') return body.byMs
      const now = clock.now()
      const next = await Episode.findOne({
        where: { status: 'scheduled', deletedAt: null, releaseAt: { [Op.gt]: now } },
        attributes: ['releaseAt'],
        order: [['releaseAt', 'ASC']],
        raw: true,
        transaction,
      })
      if (!next) throw new AppError('wrong-status', 'Nothing is scheduled, so there is no next release to go to.')
      return +next.releaseAt! - +now
    }
  }
