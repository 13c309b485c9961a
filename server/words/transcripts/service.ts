import { literal, type Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type {
  BroughtTranscript,
  CueChange,
  Transcript as TranscriptView,
  TranscriptFacts,
  TranscriptSummary,
} from '@contract/transcripts'
import { isTimed, mostCues, NoTranscript, transcriptEnding, type Transcript as Content } from '@core/transcript/cue'
import { formatsOf, type TranscriptFormat, transcriptTypes, writeTranscript } from '@core/transcript/formats'
import type { Columns } from '../../platform/database/columns'
import type { Scope } from '../../people/access/scope'
import { episodeChanges } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { fileIdOf, loadRoles } from '../../show/episodes/roles'
import { AppError, badInput } from '../../platform/http/errors'
import { readText, TooMuchText } from '../../platform/foreignText/run'
import type { Platform } from '../../platform/platform'
import { Transcript } from './models'

/** What is said in an episode, as it is worked on. */
export function transcriptService(
  platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>,
) {
  const { clock, jobs } = platform
  const { changeEpisode } = episodeChanges(platform)

  async function find(id: string, transaction?: Transaction): Promise<Transcript> {
    const row = await Transcript.findOne({ where: { id, removedAt: null }, transaction })
    if (!row) throw new AppError('not-found', 'There is no such transcript.')
    return row
  }

  async function sourceOf(episodeId: string): Promise<string | null> {
    const episode = await Episode.findByPk(episodeId, { attributes: ['id'], rejectOnEmpty: true })
    return fileIdOf(await loadRoles(episode), 'source')
  }

  async function summaryOf(row: Transcript, sourceId: string | null): Promise<TranscriptSummary> {
    const { id, language, isSpoken, version, cueCount, isTimed: timed, origin, name, alignment, updatedAt } = row
    return {
      id,
      language,
      isSpoken: Boolean(isSpoken),
      version,
      cueCount,
      isTimed: Boolean(timed),
      origin,
      isUnread: Boolean(row.isUnread),
      name,
      alignment,
      alignedShare: alignment === 'working' ? ((await jobs.openFor(id))?.progress ?? 0) : 0,
      fits: row.sourceId === sourceId || !timed,
      hasBefore: Boolean((row.get('hasBefore') as number | undefined) ?? row.beforeContent),
      updatedAt: updatedAt.toISOString(),
    }
  }

  const view = async (id: string): Promise<TranscriptView> => {
    const row = await find(id)
    return { ...(await summaryOf(row, await sourceOf(row.episodeId))), cues: row.content.cues }
  }

  /** Changes a transcript under its episode's lock, as a window has seen it. */
  async function change(
    { id, showId, accountId }: Scope,
    version: number | null,
    decide: (row: Transcript, episode: Episode, transaction: Transaction) => Promise<void> | void,
  ): Promise<TranscriptView> {
    const { episodeId } = await find(id)
    await changeEpisode({ id: episodeId, showId, accountId }, {}, async (episode, transaction) => {
      const row = await find(id, transaction)
      if (version !== null && row.version !== version)
        throw new AppError('version-conflict', 'The transcript was changed in another window.', undefined, {
          current: { ...(await summaryOf(row, fileIdOf(episode, 'source'))), cues: row.content.cues },
        })
      await decide(row, episode, transaction)
      const goesOut =
        !row.isUnread && (['content', 'language', 'isSpoken', 'isUnread'] as const).some(field => row.changed(field))
      row.set({ version: row.version + 1, updatedAt: clock.now() })
      await row.save({ transaction })
      return goesOut ? { transcripts: true } : {}
    })
    return view(id)
  }

  /**
   * Puts a whole transcript in the place of what an episode has in that language, unless `isWanted` says in the same
   * transaction that it is not any more; answers its id.
   */
  async function put(
    { id: episodeId, showId, accountId }: Pick<Scope, 'id' | 'showId' | 'accountId'>,
    language: string,
    made: Columns<Transcript, 'content' | 'origin' | 'name'> & Partial<Columns<Transcript, 'sourceId' | 'isUnread'>>,
    isWanted: (transaction: Transaction) => Promise<boolean> = () => Promise.resolve(true),
  ): Promise<string> {
    let id = uuidV7()
    await changeEpisode({ id: episodeId, showId, accountId }, {}, async (episode, transaction) => {
      if (!(await isWanted(transaction))) return null
      const [known, others] = [
        await Transcript.findOne({ where: { episodeId, language }, transaction }),
        await Transcript.count({ where: { episodeId, removedAt: null }, transaction }),
      ]
      if (!known && others >= mostLanguages)
        throw badInput('language', language, `An episode has transcripts in at most ${mostLanguages} languages.`)
      const facts = {
        sourceId: fileIdOf(episode, 'source'),
        isUnread: false,
        ...made,
        ...countsOf(made.content),
        updatedAt: clock.now(),
        removedAt: null,
        alignment: 'none' as const,
      }
      if (known) {
        id = known.id
        const before = known.removedAt ? null : known.isUnread ? known.beforeContent : known.content
        const isSpoken = known.removedAt ? others === 0 : known.isSpoken
        await known.update({ ...facts, isSpoken, beforeContent: before, version: known.version + 1 }, { transaction })
      } else
        await Transcript.create(
          { id, episodeId, language, isSpoken: others === 0, createdAt: clock.now(), ...facts },
          { transaction },
        )
      return made.isUnread ? {} : { transcripts: true }
    })
    return id
  }

  return {
    put,
    find,
    get: ({ id }: Scope): Promise<TranscriptView> => view(id),

    async list({ id: episodeId }: Pick<Scope, 'id'>): Promise<TranscriptSummary[]> {
      const rows = await Transcript.findAll({
        where: { episodeId, removedAt: null },
        attributes: { exclude: ['content', 'beforeContent', 'released'], include: [hasBefore] },
        order: [
          ['isSpoken', 'DESC'],
          ['language', 'ASC'],
        ],
      })
      const sourceId = await sourceOf(episodeId)
      return Promise.all(rows.map(row => summaryOf(row, sourceId)))
    },

    /** Reads a file and puts it in the place of what is there in that language. Throws `transcript-refused` where it is none. */
    async bring(
      scope: Scope,
      { language, name }: { language: string; name: string },
      bytes: Uint8Array,
    ): Promise<BroughtTranscript> {
      const { people } = await Episode.findByPk(scope.id, { attributes: ['people'], rejectOnEmpty: true })
      const { transcript, format, remarks } = await read(
        bytes,
        name,
        people.map(person => person.name),
        platform.configuration,
      )
      const origin = format === 'txt' && !transcript.cues.every(isTimed) ? 'written' : 'file'
      const id = await put(scope, language, { content: transcript, origin, name: name || null })
      return { ...(await view(id)), remarks }
    },

    /** Changes a stretch of cues. Throws `version-conflict` with what is there by now where another window was first. */
    write: (scope: Scope, { version, at, remove, insert }: CueChange): Promise<TranscriptView> =>
      change(scope, version, row => {
        const { cues } = row.content
        if (at + remove > cues.length) throw badInput('at', at, `There are ${cues.length} cues.`)
        const changed = [...cues.slice(0, at), ...insert, ...cues.slice(at + remove)]
        if (changed.length > mostCues)
          throw badInput('insert', insert.length, `At most ${mostCues.toLocaleString('en')} cues.`)
        if (new Set(changed.map(cue => cue.id)).size < changed.length)
          throw badInput('insert', insert.length, 'Each cue has an id of its own.')
        const content = { ...row.content, cues: changed }
        row.set({ content, ...countsOf(content) })
      }),

    changeFacts: (scope: Scope, { version, language, isSpoken, fits, isUnread }: TranscriptFacts) =>
      change(scope, version, async (row, episode, transaction) => {
        if (language && language !== row.language) {
          if (await Transcript.count({ where: { episodeId: row.episodeId, language }, transaction }))
            throw badInput('language', language, 'The episode has a transcript in this language.')
          row.set({ language })
        }
        if (isSpoken) {
          await Transcript.update({ isSpoken: false }, { where: { episodeId: row.episodeId }, transaction })
          row.set({ isSpoken: true })
        }
        if (isUnread === false) row.set({ isUnread })
        if (fits) row.set({ sourceId: fileIdOf(episode, 'source') })
      }),

    /** Brings back what it was before it was last replaced as a whole; that takes the other's place. */
    bringBack: (scope: Scope): Promise<TranscriptView> =>
      change(scope, null, row => {
        const { beforeContent: content, content: beforeContent } = row
        if (!content)
          throw badInput(
            'before',
            '(nothing)',
            'A transcript comes back that was replaced as a whole; this one was not.',
          )
        row.set({ content, beforeContent, isUnread: false, ...countsOf(content) })
      }),

    /** Takes a transcript away; `restore` brings it back. */
    async remove(scope: Scope): Promise<void> {
      const { episodeId } = await find(scope.id)
      await setRemoved({ ...scope, id: episodeId }, scope.id, clock.now())
    },
    async restore(scope: Scope): Promise<TranscriptView> {
      const row = await Transcript.findByPk(scope.id, { attributes: ['episodeId'], rejectOnEmpty: true })
      await setRemoved({ ...scope, id: row.episodeId }, scope.id, null)
      return view(scope.id)
    },

    /** A transcript as a file to take along. Throws `bad-input` where it cannot be one of that format. */
    async file({ id }: Scope, format: TranscriptFormat): Promise<{ type: string; words: string; name: string }> {
      const { content, language } = await find(id)
      if (!formatsOf(content).includes(format))
        throw badInput('format', format, 'Captions need times, and this transcript has none.')
      return {
        type: transcriptTypes[format],
        words: writeTranscript(format, content),
        name: `transcript.${language}.${format}`,
      }
    },
  }

  async function setRemoved(place: Scope, id: string, removedAt: Date | null): Promise<void> {
    await changeEpisode(place, {}, async (_episode, transaction) => {
      await Transcript.update({ removedAt }, { where: { id }, transaction })
      return { transcripts: true }
    })
  }
}

const mostLanguages = 40

export const countsOf = (content: Content): Pick<Transcript, 'cueCount' | 'isTimed'> => ({
  cueCount: content.cues.length,
  isTimed: content.cues.every(isTimed),
})

/** Of a list, whether there is something rather than what. */
const hasBefore: [ReturnType<typeof literal>, string] = [literal('before_content IS NOT NULL'), 'hasBefore']

/** Reads a file, and says in words why it is none. */
async function read(
  bytes: Uint8Array,
  name: string,
  known: readonly string[],
  configuration: Platform['configuration'],
) {
  try {
    const reading = await readText({ kind: 'transcript', bytes, known }, configuration)
    const ending = transcriptEnding(name)
    if (reading.format === 'html' && ending && !ending.startsWith('.htm'))
      throw new NoTranscript(
        `It is an HTML page, though its name ends in ${ending}; it may say why it is not the file.`,
      )
    return reading
  } catch (error) {
    if (!(error instanceof NoTranscript || error instanceof TooMuchText)) throw error
    throw new AppError('transcript-refused', `${name ? `${name}: ` : ''}${error.message}`)
  }
}
