import { createHash } from 'node:crypto'
import { literal, QueryTypes, type Transaction } from 'sequelize'
import { v4 as uuidV4, v7 as uuidV7 } from 'uuid'
import { type Episode as EpisodeView, type EpisodeChange, type EpisodeSummary, type KeptText as KeptTextView, mostNotesCharacters } from '@contract/episodes'
import { differingFields, type EpisodeText } from '@core/episode/text'
import { cleanNotes } from '@core/notes/clean'
import { isBlank } from '@core/words/line'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { AppError, badInput } from '../errors'
import { AudioFile } from '../files/models'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { Upload } from '../uploads/models'
import { episodeChanges, type InShow } from './change'
import { Episode, KeptText } from './models'
import { soundOf } from './sound'
import { episodeOf, summaryOf, textOf } from './views'

/** Compared in the database, byte by byte, so that a list need not carry all notes. */
const notesChanged = literal("standing = 'released' AND NOT (BINARY notes <=> BINARY JSON_VALUE(released_text, '$.notes'))")

const withoutWaveform = { attributes: { exclude: ['waveform'] } }

/** Episodes and what is written about them. */
export function episodeService(platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events'>) {
  const { database, clock, configuration, events } = platform
  const { changeEpisode } = episodeChanges(platform)
  async function view({ id, showId }: InShow): Promise<EpisodeView> {
    const episode = await Episode.findOne({
      where: { id, showId, deletedAt: null },
      include: [
        { model: Show, as: 'show' },
        { model: AudioFile, as: 'file', ...withoutWaveform },
        { model: AudioFile, as: 'releasedFile', ...withoutWaveform },
        { model: AudioFile, as: 'finishedFile', ...withoutWaveform },
      ],
    })
    if (!episode) throw new AppError('not-found', 'There is no such episode.')
    const [upload, sound] = await Promise.all([
      Upload.findOne({ where: { episodeId: id }, order: [['createdAt', 'DESC'], ['id', 'DESC']] }),
      soundOf(episode, { clock, configuration }),
    ])
    return episodeOf(episode, configuration.publicUrl, upload && upload.state !== 'done' ? upload : null, sound)
  }

  /** Writes fields that were checked before, with the next version, or keeps them aside where another window was first. */
  async function write(scope: Scope, version: number, fields: Partial<EpisodeText>): Promise<void> {
    let refused: KeptText | null = null
    await changeEpisode(scope, null, async (episode, transaction) => {
      refused = episode.version === version ? null : await keepAside(episode, version, fields, transaction)
      if (refused) return null
      if (episode.standing === 'scheduled' && fields.title !== undefined && isBlank(fields.title)) {
        throw badInput('title', fields.title, 'A scheduled episode needs a title. Take it back to draft first, or write one.')
      }
      return differingFields(textOf(episode), { ...textOf(episode), ...fields }).length === 0 ? null : { fields }
    })
    const { id: keptId } = refused ?? {} as Partial<KeptText>
    if (keptId) throw new AppError('version-conflict', 'The episode was changed in another window.', undefined, { current: await view(scope), keptId })
  }

  function keepAside(episode: Episode, fromVersion: number, text: Partial<EpisodeText>, transaction: Transaction): Promise<KeptText> {
    return KeptText.create({ id: uuidV7(), episodeId: episode.id, fromVersion, text, savedAt: clock.now() }, { transaction })
  }

  return {
    get: view,

    /** All episodes of a show: those to come first, then the released ones, newest first. */
    async list({ showId }: Scope): Promise<EpisodeSummary[]> {
      const episodes = await Episode.findAll({
        where: { showId, deletedAt: null },
        attributes: { exclude: ['notes'], include: [[notesChanged, 'notesChanged']] },
        include: [
          { model: AudioFile, as: 'file', attributes: ['id', 'durationMs'] },
          { model: AudioFile, as: 'finishedFile', attributes: ['id', 'durationMs'] },
        ],
      })
      const underway = await Upload.findAll({ where: { episodeId: episodes.map(({ id }) => id), state: ['receiving', 'reading'] }, attributes: ['episodeId', 'fileName'], order: [['createdAt', 'ASC']] })
      const arriving = new Map(underway.map(({ episodeId, fileName }) => [episodeId, fileName]))
      return episodes.map(episode => summaryOf(episode, arriving.get(episode.id) ?? null)).sort(byWaterline)
    },

    /** Changes with everything that `list` tells, and takes no more than three sums to find out. */
    async listRevision({ showId }: Scope): Promise<string> {
      const [row] = await database.query<Record<string, string | number | null>>(
        `SELECT COUNT(*) AS episodes, SUM(version) AS versions, MAX(updated_at) AS at,
          (SELECT CONCAT_WS(' ', COUNT(*), MAX(u.created_at)) FROM uploads u JOIN episodes e ON e.id = u.episode_id WHERE e.show_id = :showId AND u.state IN ('receiving', 'reading')) AS underway,
          (SELECT SUM(duration_ms) FROM files WHERE show_id = :showId) AS durations
        FROM episodes WHERE show_id = :showId AND deleted_at IS NULL`,
        { replacements: { showId }, type: QueryTypes.SELECT },
      )
      return createHash('sha256').update(JSON.stringify(row)).digest('base64url').slice(0, 22)
    },

    async create({ showId }: Scope, text: { title?: string }): Promise<EpisodeView> {
      const now = clock.now()
      const id = uuidV7()
      await transact(database, async transaction => {
        await Episode.create({ id, showId, guid: uuidV4(), notes: '', ...text, createdAt: now, updatedAt: now }, { transaction })
        await events.note({ kind: 'episode', showId, id }, transaction)
      })
      return view({ id, showId })
    },

    /**
     * Saves what was written. Throws `version-conflict` where another window saved first; the refused text is then
     * kept (see `kept`), and the answer carries the newest one.
     */
    async change(scope: Scope, { version, text }: EpisodeChange): Promise<EpisodeView> {
      const fields = text.notes === undefined ? text : { ...text, notes: cleanNotes(text.notes) }
      // Cleaning closes tags and spells letters out, which can make more of them.
      if ((fields.notes?.length ?? 0) > mostNotesCharacters) throw badInput('text.notes', text.notes, 'At most 100,000 characters, markup counted as it is kept.')
      await write(scope, version, fields)
      return view(scope)
    },

    /** Texts of this episode that were refused because another window was first, newest first. */
    async kept({ id }: Scope): Promise<KeptTextView[]> {
      const rows = await KeptText.findAll({ where: { episodeId: id }, order: [['savedAt', 'DESC']], limit: 50 })
      return rows.map(row => ({ id: row.id, savedAt: row.savedAt.toISOString(), text: row.text }))
    },

    /** Takes a draft off the list. Its words and its file stay, and `restore` brings it back. */
    async remove(scope: Scope): Promise<void> {
      await changeEpisode(scope, null, async ({ standing }) => {
        if (standing !== 'draft') throw new AppError('wrong-standing', `Only a draft can be removed; this episode is ${standing}.`)
        return { fields: { deletedAt: clock.now() } }
      })
    },

    async restore(scope: Scope): Promise<EpisodeView> {
      await changeEpisode(scope, null, async ({ deletedAt }) => deletedAt && { fields: { deletedAt: null } }, 'also removed')
      return view(scope)
    },
  }
}

const depth = { draft: 0, scheduled: 1, released: 2, retired: 3 } as const

/** Drafts, newest first; scheduled, the next one last; released and retired, newest first. */
function byWaterline(one: EpisodeSummary, other: EpisodeSummary): number {
  const when = (episode: EpisodeSummary): string => (episode.standing === 'draft' ? episode.updatedAt : episode.releaseAt ?? '')
  return depth[one.standing] - depth[other.standing] || when(other).localeCompare(when(one)) || other.id.localeCompare(one.id)
}
