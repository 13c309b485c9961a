import { Op } from 'sequelize'
import type { SlotList } from '@contract/rhythm'
import { openSlots } from '@core/release/slots'
import type { Scope } from '../../people/access/scope'
import type { Clock } from '../../platform/clock'
import { Episode } from '../../show/episodes/models'
import { Show } from '../../show/shows/models'

/** The next moments of a show's rhythm on which nothing goes out yet; none where it has no rhythm. */
export async function nextSlots({ showId }: Scope, clock: Clock, count: number): Promise<SlotList> {
  const now = clock.now()
  const show = await Show.findByPk(showId, { attributes: ['rhythm', 'zone'], rejectOnEmpty: true })
  if (!show.rhythm) return { slots: [] }
  const going = await Episode.findAll({
    where: {
      showId,
      deletedAt: null,
      status: ['scheduled', 'released'],
      // What went out earlier today takes today's slot.
      releaseAt: { [Op.gt]: new Date(+now - dayMs) },
    },
    attributes: ['releaseAt'],
    raw: true,
  })
  const taken = going.map(({ releaseAt }) => releaseAt!)
  const slots = openSlots(show.rhythm, show.zone, taken, now, count)
  return { slots: slots.map(({ at, local }) => ({ at: at.toISOString(), local })) }
}
const dayMs = 24 * 3600_000
