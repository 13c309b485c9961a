import type { Transaction } from 'sequelize'
import { v4 as uuidV4, v7 as uuidV7 } from 'uuid'
import type { Episode as EpisodeView, EpisodeChange, NewEpisode, SavedText } from '@contract/episodes'
import type { Sound } from '@contract/sound'
import { differingFields, type EpisodeText, mostNotesCharacters, picturesIn, textOf } from '@core/episode/fields'
import { isOfNewerHouse } from '@core/mix/document'
import { cleanNotes } from '@core/notes/clean'
import { isBlank } from '@core/words/line'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { AppError, badInput } from '../../platform/http/errors'
import { Upload } from '../../media/files/upload'
import { lastWritten } from '../history/service'
import { KeptText } from '../history/models'
import type { NewJob } from '../../platform/jobs/jobs'
import { askLinks, badLinksIn, unasked, webAddressesIn } from '../links/known'
import { needArtwork, usePictures } from '../../media/pictures/artwork'
import { pictureService } from '../../media/pictures/service'
import type { Platform } from '../../platform/platform'
import { lockShow } from '../shows/feedRevision'
import { Show } from '../shows/models'
import { goesTo } from './audience'
import { episodeChanges, type InShow } from './change'
import { Episode } from './models'
import { nextNumber, numberingOf } from './numbering'
import { withFiles } from './roles'
import { soundOf } from './sound'
import { episodeOf, savedTextOf } from './views'

/** Episodes and what is written about them. */
export function episodeService(
  platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events' | 'media'>,
) {
  const { database, clock, configuration, events, jobs } = platform
  const { changeEpisode } = episodeChanges(platform)
  const pictures = pictureService(platform)

  async function find({ id, showId }: InShow): Promise<Episode> {
    const episode = await Episode.findOne({
      where: { id, showId, deletedAt: null },
      include: [{ model: Show, as: 'show' }, withFiles()],
    })
    if (!episode) throw new AppError('not-found', 'There is no such episode.')
    return episode
  }

  async function view(place: InShow): Promise<EpisodeView> {
    const [episode, written, upload] = await Promise.all([
      find(place),
      lastWritten(place),
      Upload.findOne({
        where: { episodeId: place.id, role: 'source' },
        order: [
          ['createdAt', 'DESC'],
          ['id', 'DESC'],
        ],
      }),
    ])
    const [numbering, badLinks, isForEverybody] = await Promise.all([
      numberingOf(database, episode),
      badLinksIn(episode.notes),
      goesTo(place.showId, 'everybody'),
    ])
    const isPrivate = episode.released !== null && isForEverybody !== null && !isForEverybody(episode)
    const open = upload && upload.state !== 'done' ? upload : null
    return episodeOf(episode, configuration.publicUrl, open, { written, numbering, badLinks, isPrivate })
  }

  /** Asks for the links of new notes in a while, where there are any that were not there before and are not known. */
  async function asking(
    { id, showId }: InShow,
    before: string,
    after: string | undefined,
    transaction: Transaction,
  ): Promise<NewJob[]> {
    const known = new Set(webAddressesIn(before))
    const fresh = webAddressesIn(after ?? '').filter(address => !known.has(address))
    if ((await unasked(fresh, clock.now(), transaction)).length === 0) return []
    const job = askLinks({ id, showId })
    await jobs.cancel(job.kind, job.subject!, transaction)
    return [job]
  }

  /** Writes fields that were checked before, with the next version, or keeps them aside where another window was first; answers as what. */
  async function write(
    scope: Scope,
    version: number,
    fields: Partial<EpisodeText>,
  ): Promise<{ keptId: string } | SavedText> {
    let kept = null as { keptId: string } | null
    const written = await changeEpisode(scope, {}, async (episode, transaction) => {
      kept = null
      if (episode.version !== version) {
        const row = await KeptText.create(
          {
            id: uuidV7(),
            episodeId: episode.id,
            accountId: scope.accountId,
            fromVersion: version,
            text: fields,
            savedAt: clock.now(),
          },
          { transaction },
        )
        kept = { keptId: row.id }
        return null
      }
      if (episode.status === 'scheduled' && fields.title !== undefined && isBlank(fields.title)) {
        throw badInput(
          'title',
          fields.title,
          'A scheduled episode needs a title. Take it back to draft first, or write one.',
        )
      }
      const text = textOf(episode)
      if (fields.mix !== undefined && text.mix && isOfNewerHouse(text.mix))
        throw badInput(
          'text.mix.version',
          text.mix.version,
          'It was put together by a newer version of Lake Letter: change it there.',
        )
      if (fields.artworkId && fields.artworkId !== text.artworkId)
        await needArtwork(pictures, 'text.artworkId', fields.artworkId, scope.accountId, transaction)
      await usePictures(pictures, newPictures(fields, text), scope, transaction)
      // Notes from before there was one spelling are changed by who changes them, and not by who spells them.
      if (fields.notes !== undefined && fields.notes === cleanNotes(text.notes)) fields.notes = text.notes
      if (differingFields(text, { ...text, ...fields }).length === 0) return null
      return { fields, jobs: await asking(episode, text.notes, fields.notes, transaction) }
    })
    return kept ?? savedTextOf(written)
  }

  return {
    get: view,

    sound: async (place: InShow): Promise<Sound> => soundOf(await find(place), { clock, configuration }),

    /** Begins a draft; one whose id was given, and is begun in this show already, is answered as it is. Throws `bad-input` for the id of another. */
    async create({ showId }: Scope, { id = uuidV7(), ...text }: NewEpisode): Promise<EpisodeView> {
      const now = clock.now()
      await transact(database, async transaction => {
        // Of episodes that are begun together each has a number of its own.
        await lockShow(showId, transaction)
        const known = await Episode.findByPk(id, { attributes: ['showId'], transaction })
        if (known?.showId === showId) return
        if (known) throw badInput('id', id, 'Another episode has this id.')
        const { notesTemplate, hosts } = await Show.findByPk(showId, { transaction, rejectOnEmpty: true })
        const numbers = await nextNumber(database, showId, transaction)
        const begun = { notes: notesTemplate, people: hosts, ...numbers, ...text, createdAt: now, updatedAt: now }
        await Episode.create({ id, showId, guid: uuidV4(), ...begun }, { transaction })
        await events.note({ kind: 'episode', showId, id }, transaction)
      })
      return view({ id, showId })
    },

    /**
     * Saves what was written. Throws `version-conflict` where another window saved first; the refused text is then
     * kept (see `kept`), and the answer carries the newest one.
     */
    async change(scope: Scope, { version, text }: EpisodeChange): Promise<SavedText> {
      const fields = text.notes === undefined ? text : { ...text, notes: cleanNotes(text.notes) }
      // Cleaning closes tags and spells letters out, which can make more of them.
      if ((fields.notes?.length ?? 0) > mostNotesCharacters)
        throw badInput('text.notes', text.notes, 'At most 100,000 characters, markup counted as it is kept.')
      const written = await write(scope, version, fields)
      if ('keptId' in written)
        throw new AppError('version-conflict', 'The episode was changed in another window.', undefined, {
          current: await view(scope),
          ...written,
        })
      return written
    },

    /** Takes a draft off the list. Its words and its file stay, and `restore` brings it back. */
    async remove(scope: Scope): Promise<void> {
      await changeEpisode(scope, {}, async ({ status }) => {
        if (status !== 'draft')
          throw new AppError('wrong-status', `Only a draft can be removed; this episode is ${status}.`)
        return { fields: { deletedAt: clock.now() } }
      })
    },

    async restore(scope: Scope): Promise<EpisodeView> {
      await changeEpisode(
        scope,
        {},
        async ({ deletedAt }) => deletedAt && { fields: { deletedAt: null } },
        'also removed',
      )
      return view(scope)
    },
  }
}

/** Pictures of people and chapters that a text did not have before. */
function newPictures(fields: Partial<EpisodeText>, text: EpisodeText): { field: string; id: string }[] {
  const known = new Set(picturesIn(text))
  return (['people', 'chapters'] as const).flatMap(name =>
    (fields[name] ?? []).flatMap(({ pictureId: id }, at) =>
      id && !known.has(id) ? [{ field: `text.${name}.${at}.pictureId`, id }] : [],
    ),
  )
}
