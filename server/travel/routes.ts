import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { Op, type Transaction } from 'sequelize'
import { type Travel, travel, type Travelled, travelled } from '@contract/travel'
import { signedIn } from '../access/access'
import { transact } from '../database/transact'
import { Episode } from '../episodes/models'
import { AppError } from '../errors'
import type { Platform } from '../platform'
import { moveClock, readOffset, TravellingClock } from './clock'

/** Moving the clock, where it can be moved: in the demo. The stand-ins ask what time it is, without signing in. */
export const travelRoutes =
  ({ clock, database }: Platform): FastifyPluginAsyncZod =>
  async app => {
    if (!(clock instanceof TravellingClock)) return
    const told = (): Travelled => ({ now: clock.now().toISOString(), offsetMs: clock.offsetMs })

    app.get('/travel', { config: { access: 'anyone' }, schema: { response: { 200: travelled } } }, told)

    app.post('/travel', { ...signedIn, schema: { body: travel, response: { 200: travelled } } }, async request => {
      clock.offsetMs = await transact(database, async transaction => {
        const run = (sql: string, replacements: Record<string, unknown>) =>
          database.query(sql, { replacements, transaction })
        await moveClock(database, 0, transaction)
        const byMs = await wayTo(request.body, transaction)
        await moveClock(database, byMs, transaction)
        // Whoever travels stays signed in.
        await run('UPDATE sessions SET expires_at = expires_at + INTERVAL :byMs * 1000 MICROSECOND', { byMs })
        await run(
          "INSERT INTO events (kind, show_id, subject, at) SELECT 'clock', id, id, :at FROM shows ORDER BY id LIMIT 1000",
          { at: new Date(+clock.now() + byMs) },
        )
        return readOffset(database, transaction)
      })
      return told()
    })

    async function wayTo(body: Travel, transaction: Transaction): Promise<number> {
      if (body.to === 'later') return body.byMs
      const now = clock.now()
      const next = await Episode.findOne({
        where: { standing: 'scheduled', deletedAt: null, releaseAt: { [Op.gt]: now } },
        attributes: ['releaseAt'],
        order: [['releaseAt', 'ASC']],
        raw: true,
        transaction,
      })
      if (!next) throw new AppError('wrong-standing', 'Nothing is scheduled, so there is no next release to go to.')
      return +next.releaseAt! - +now
    }
  }
