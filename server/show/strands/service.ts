import { UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { NewStrand, Strand as StrandView, StrandChange, StrandList } from '@contract/strands'
import { podcastGuid } from '@core/feed/podcastGuid'
import { isInStrand, strandAddress } from '@core/feed/strands'
import { readSnapshot } from '@core/episode/snapshot'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { Episode } from '../episodes/models'
import { AppError, badInput } from '../../platform/http/errors'
import { needArtwork, publish } from '../../media/pictures/artwork'
import { studioPictureAddress } from '../../media/pictures/names'
import { pictureService } from '../../media/pictures/service'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../shows/feedRevision'
import { Show } from '../shows/models'
import { type Addressed, addressed, addressesOf } from '../shows/service'
import { Strand, StrandEpisode } from '../shows/strands'

const mostStrands = 100

/** The strands of shows. Each change of one is a change of what the show's feeds tell. */
export function strandService(platform: Platform) {
  const { database, clock, configuration } = platform
  const pictures = pictureService(platform)

  const addressIn = (show: Addressed, slug: string): string =>
    strandAddress(addressesOf(configuration.publicUrl, show).feedAddress, slug)

  async function list({ showId }: Pick<Scope, 'showId'>): Promise<StrandList> {
    const [show, strands, episodes] = await Promise.all([
      Show.findByPk(showId, { rejectOnEmpty: true }),
      Strand.findAll({ where: { showId }, order: [['name', 'ASC']] }),
      Episode.findAll({
        where: { showId, deletedAt: null },
        attributes: ['id', 'guid', 'title', 'number', 'status', 'released'],
        order: [
          ['number', 'DESC'],
          ['createdAt', 'DESC'],
        ],
      }),
    ])
    const chosen = await StrandEpisode.findAll({ where: { strandId: strands.map(({ id }) => id) } })
    const out = episodes.flatMap(({ id, guid, status, released }) =>
      status === 'released' && released ? [{ id, guid, ...readSnapshot(released) }] : [],
    )
    const viewOf = (strand: Strand): StrandView => {
      const ids = new Set(chosen.filter(({ strandId }) => strandId === strand.id).map(({ episodeId }) => episodeId))
      const guids = new Set(episodes.filter(({ id }) => ids.has(id)).map(({ guid }) => guid))
      const { id, slug, name, description, artworkId, goesBy, value } = strand
      return {
        id,
        slug,
        version: Number(strand.version),
        name,
        description,
        artworkId,
        artworkAddress: studioPictureAddress({ id: artworkId ?? show.artworkId }),
        goesBy,
        value,
        isPrivate: Boolean(strand.isPrivate),
        feedAddress: addressIn(show, slug),
        released: out.filter(each => isInStrand(strand, each, guids)).length,
        episodeIds: [...ids],
      }
    }
    return {
      strands: strands.map(viewOf),
      episodes: episodes.map(({ id, title, number }) => ({ id, title, number })),
    }
  }

  async function takeArtwork(
    artworkId: string | null,
    before: string | null,
    { accountId, showId }: Pick<Scope, 'accountId' | 'showId'>,
    transaction: Parameters<typeof publish>[1],
  ): Promise<void> {
    if (!artworkId || artworkId === before) return
    await needArtwork(pictures, 'artworkId', artworkId, accountId, transaction)
    await pictures.noteUse(showId, artworkId, transaction)
    await publish([artworkId], transaction)
  }

  return {
    list,

    /** Makes a strand; its feed answers from then on. Throws `address-taken` where another one of the show has its address part. */
    async create(scope: Scope, { slug, ...facts }: NewStrand): Promise<StrandList> {
      if ((await Strand.count({ where: { showId: scope.showId } })) >= mostStrands)
        throw badInput('slug', slug, `At most ${mostStrands} strands.`)
      try {
        await transact(database, async transaction => {
          await takeArtwork(facts.artworkId, null, scope, transaction)
          const show = await Show.findByPk(scope.showId, {
            attributes: [...addressed],
            transaction,
            rejectOnEmpty: true,
          })
          const guid = podcastGuid(addressIn(show, slug))
          await Strand.create(
            { id: uuidV7(), showId: scope.showId, slug, podcastGuid: guid, ...facts, createdAt: clock.now() },
            { transaction },
          )
          await touchFeed(platform, scope.showId, transaction)
        })
      } catch (error) {
        if (!(error instanceof UniqueConstraintError)) throw error
        throw new AppError('address-taken', 'Another strand of the show has this address.', [
          { field: 'slug', value: slug, rule: 'Another strand of the show has this address.' },
        ])
      }
      return list(scope)
    },

    /** Throws `version-conflict` where another window was first. */
    async change(scope: Scope, { version, ...facts }: StrandChange): Promise<StrandList> {
      await transact(database, async transaction => {
        const strand = await Strand.findByPk(scope.id, { rejectOnEmpty: true, transaction, lock: true })
        if (Number(strand.version) !== version)
          throw new AppError('version-conflict', 'The strand was changed in another window.')
        await takeArtwork(facts.artworkId, strand.artworkId, scope, transaction)
        await strand.update({ ...facts, version: version + 1 }, { transaction })
        await touchFeed(platform, scope.showId, transaction)
      })
      return list(scope)
    },

    /** Puts just these episodes into a strand that is chosen by hand; those of other shows are refused. */
    async choose(scope: Scope, episodeIds: readonly string[]): Promise<StrandList> {
      const wanted = [...new Set(episodeIds)]
      await transact(database, async transaction => {
        const known = await Episode.count({ where: { id: wanted, showId: scope.showId }, transaction })
        if (known !== wanted.length) throw badInput('episodeIds', wanted.length, 'Each is an episode of this show.')
        await StrandEpisode.destroy({ where: { strandId: scope.id }, transaction })
        await StrandEpisode.bulkCreate(
          wanted.map(episodeId => ({ strandId: scope.id, episodeId })),
          { transaction },
        )
        await touchFeed(platform, scope.showId, transaction)
      })
      return list(scope)
    },

    /** Takes a strand away with its feed; its episodes stay where they are. */
    async remove(scope: Scope): Promise<StrandList> {
      await transact(database, async transaction => {
        await Strand.destroy({ where: { id: scope.id }, transaction })
        await touchFeed(platform, scope.showId, transaction)
      })
      return list(scope)
    },
  }
}
