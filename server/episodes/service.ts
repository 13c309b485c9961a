import { createHash } from 'node:crypto'
import { literal, QueryTypes, type Transaction } from 'sequelize'
import { v4 as uuidV4, v7 as uuidV7 } from 'uuid'
import { type Episode as EpisodeView, type EpisodeChange, type EpisodeSummary, type KeptText as KeptTextView, mostNotesCharacters } from '@contract/episodes'
import { differingFields, type EpisodeText } from '@core/episode/text'
import { cleanNotes } from '@core/notes/clean'
import { isBlank } from '@core/words/line'
import { transact } from '../database/transact'
import { AppError, badInput } from '../errors'
import { AudioFile } from '../files/models'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { Upload } from '../uploads/models'
import { Episode, KeptText } from './models'
import { soundOf } from './sound'
import { episodeOf, summaryOf, textOf } from './views'

/** Compared in the database, byte by byte, so that a list need not carry all notes. */
const notesChanged = literal("standing = 'released' AND NOT (BINARY notes <=> BINARY JSON_VALUE(released_text, '$.notes'))")

const withoutWaveform = { attributes: { exclude: ['waveform'] } }

/** Episodes and what is written about them. */
export function episodeService({ database, clock, configuration }: Pick<Platform, 'database' | 'clock' | 'configuration'>) {
  async function view(id: string): Promise<EpisodeView> {
    const episode = await Episode.findOne({
      where: { id, deletedAt: null },
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
  async function write(id: string, version: number, fields: Partial<EpisodeText>): Promise<void> {
    const refused = await transact(database, async transaction => {
      const episode = await lockEpisode(id, transaction)
      if (episode.version !== version) return keepAside(episode, version, fields, transaction)
      if (episode.standing === 'scheduled' && fields.title !== undefined && isBlank(fields.title)) {
        throw badInput('title', fields.title, 'A scheduled episode needs a title. Take it back to draft first, or write one.')
      }
      if (differingFields(textOf(episode), { ...textOf(episode), ...fields }).length === 0) return null
      await episode.update({ ...fields, version: version + 1, updatedAt: clock.now() }, { transaction })
      return null
    })
    if (refused) throw new AppError('version-conflict', 'The episode was changed in another window.', undefined, { current: await view(id), keptId: refused.id })
  }

  function keepAside(episode: Episode, fromVersion: number, text: Partial<EpisodeText>, transaction: Transaction): Promise<KeptText> {
    return KeptText.create({ id: uuidV7(), episodeId: episode.id, fromVersion, text, savedAt: clock.now() }, { transaction })
  }

  return {
    get: view,

    /** All episodes of a show: those to come first, then the released ones, newest first. */
    async list(showId: string): Promise<EpisodeSummary[]> {
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
    async listRevision(showId: string): Promise<string> {
      const [row] = await database.query<Record<string, string | number | null>>(
        `SELECT COUNT(*) AS episodes, SUM(version) AS versions, MAX(updated_at) AS at,
          (SELECT CONCAT_WS(' ', COUNT(*), MAX(u.created_at)) FROM uploads u JOIN episodes e ON e.id = u.episode_id WHERE e.show_id = :showId AND u.state IN ('receiving', 'reading')) AS underway,
          (SELECT SUM(duration_ms) FROM files WHERE show_id = :showId) AS durations
        FROM episodes WHERE show_id = :showId AND deleted_at IS NULL`,
        { replacements: { showId }, type: QueryTypes.SELECT },
      )
      return createHash('sha256').update(JSON.stringify(row)).digest('base64url').slice(0, 22)
    },

    async create(showId: string, text: { title?: string }): Promise<EpisodeView> {
      const now = clock.now()
      const id = uuidV7()
      if (!/^[0-9a-f-]{36}$/.test(showId) || !await Show.findByPk(showId)) throw new AppError('not-found', 'There is no such show.')
      await Episode.create({ id, showId, guid: uuidV4(), notes: '', ...text, createdAt: now, updatedAt: now })
      return view(id)
    },

    /**
     * Saves what was written. Throws `version-conflict` where another window saved first; the refused text is then
     * kept (see `kept`), and the answer carries the newest one.
     */
    async change(id: string, { version, text }: EpisodeChange): Promise<EpisodeView> {
      const fields = text.notes === undefined ? text : { ...text, notes: cleanNotes(text.notes) }
      // Cleaning closes tags and spells letters out, which can make more of them.
      if ((fields.notes?.length ?? 0) > mostNotesCharacters) throw badInput('text.notes', text.notes, 'At most 100,000 characters, markup counted as it is kept.')
      await write(id, version, fields)
      return view(id)
    },

    /** Texts of this episode that were refused because another window was first, newest first. */
    async kept(id: string): Promise<KeptTextView[]> {
      const rows = await KeptText.findAll({ where: { episodeId: id }, order: [['savedAt', 'DESC']], limit: 50 })
      return rows.map(row => ({ id: row.id, savedAt: row.savedAt.toISOString(), text: row.text }))
    },

    /** Takes a draft off the list. Its words and its file stay, and `restore` brings it back. */
    async remove(id: string): Promise<void> {
      await transact(database, async transaction => {
        const episode = await lockEpisode(id, transaction)
        if (episode.standing !== 'draft') throw new AppError('wrong-standing', `Only a draft can be removed; this episode is ${episode.standing}.`)
        await episode.update({ deletedAt: clock.now() }, { transaction })
      })
    },

    async restore(id: string): Promise<EpisodeView> {
      await Episode.update({ deletedAt: null }, { where: { id } })
      return view(id)
    },
  }
}

/** An episode, locked until the transaction ends. Throws `not-found`. */
export async function lockEpisode(id: string, transaction: Transaction): Promise<Episode> {
  const episode = /^[0-9a-f-]{36}$/.test(id) ? await Episode.findOne({ where: { id, deletedAt: null }, lock: true, transaction }) : null
  if (!episode) throw new AppError('not-found', 'There is no such episode.')
  return episode
}

/** The same, where it is still the version that a window has seen. Throws `version-conflict`. */
export async function lockEpisodeAt(id: string, version: number, transaction: Transaction): Promise<Episode> {
  const episode = await lockEpisode(id, transaction)
  if (episode.version !== version) throw new AppError('version-conflict', 'The episode was changed in another window. Look at it and decide again.')
  return episode
}

const depth = { draft: 0, scheduled: 1, released: 2, retired: 3 } as const

/** Drafts, newest first; scheduled, the next one last; released and retired, newest first. */
function byWaterline(one: EpisodeSummary, other: EpisodeSummary): number {
  const when = (episode: EpisodeSummary): string => (episode.standing === 'draft' ? episode.updatedAt : episode.releaseAt ?? '')
  return depth[one.standing] - depth[other.standing] || when(other).localeCompare(when(one)) || other.id.localeCompare(one.id)
}
