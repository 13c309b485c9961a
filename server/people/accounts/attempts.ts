import type { Sequelize } from 'sequelize'
import { networksOf } from '@core/address/network'
import type { Clock } from '../../platform/clock'
import { rateCounts } from '../../platform/database/rateCounts'
import { untilDone } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'

const windowMs = 15 * 60_000
const most = { email: 10, address: 30, site: 120 }

/** Attempts to sign in, counted by email and by network before anything costly is done for them. */
export function signInAttempts({ database, clock }: { database: Sequelize; clock: Clock }) {
  const counts = rateCounts({ database, clock }, windowMs)

  return {
    /** Counts an attempt. Throws `too-many-attempts` where it is one too many. */
    async need(email: string, address: string): Promise<void> {
      const { own, site } = networksOf(address)
      // One after the other, so that of thousands at once only the first ones have a row to wait for.
      for (const [kind, subject] of [
        ['email', email],
        ['address', own],
        ['site', site],
      ] as const)
        if ((await untilDone(() => counts.count(kind, subject))) > most[kind])
          throw new AppError(
            'too-many-attempts',
            'There were too many attempts with this email or from this network in the last quarter of an hour.',
          )
    },

    /** Takes back what an attempt that was right had counted. */
    async forgive(email: string, address: string): Promise<void> {
      const { own, site } = networksOf(address)
      await counts.forget('email', email)
      await counts.uncount('address', own)
      await counts.uncount('site', site)
    },
  }
}
