import { isInStrand } from '@core/feed/strands'
import { readSnapshot } from '@core/episode/snapshot'
import { publicAccess } from '../../platform/storage/publicAccess'
import { Show } from '../shows/models'
import { Strand, StrandEpisode } from '../shows/strands'
import type { Episode } from './models'

/**
 * Who something goes out to: everybody; listeners with an address of their own, to a show or to one of its strands; or, for the
 * house itself, whoever it may be.
 */
export type Audience = 'everybody' | 'whoever' | { strandId: string | null }

/** How something goes out: to whom, under which beginning of all its addresses, and with which headers. */
export interface Outlet {
  audience: Audience
  base: string
  headers: Readonly<Record<string, string>>
}
export const publicOutlet = (publicUrl: string): Outlet => ({
  audience: 'everybody',
  base: publicUrl,
  headers: publicAccess,
})

/** Tells whether a released episode goes out to an audience. */
export type GoesTo = (episode: Pick<Episode, 'id' | 'released'>) => boolean

/**
 * Which released episodes of a show go out to an audience; null where all do. To everybody go those of a show that is for
 * everybody, without those in a strand that is for its own listeners; listeners of a show get the same, those of a strand what
 * is in it.
 */
export async function goesTo(showId: string, audience: Audience): Promise<GoesTo | null> {
  if (audience === 'whoever') return null
  if (audience === 'everybody') {
    const show = await Show.findByPk(showId, { attributes: ['isPrivate'], raw: true })
    if (!show || show.isPrivate) return () => false
  }
  const ofStrand = typeof audience === 'object' ? audience.strandId : null
  const strands = await Strand.findAll({ where: ofStrand ? { id: ofStrand, showId } : { showId, isPrivate: true } })
  if (!ofStrand && strands.length === 0) return null
  const chosen = await StrandEpisode.findAll({ where: { strandId: strands.map(({ id }) => id) }, raw: true })
  const membersOf = new Map(
    strands.map(({ id }) => [
      id,
      new Set(chosen.flatMap(({ strandId, episodeId }) => (strandId === id ? [episodeId] : []))),
    ]),
  )
  return ({ id, released }) => {
    if (!released) return false
    const told = { guid: id, ...readSnapshot(released) }
    const isIn = strands.some(strand => isInStrand(strand, told, membersOf.get(strand.id)!))
    return ofStrand ? isIn : !isIn
  }
}
