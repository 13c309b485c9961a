import { v4 as uuidV4 } from 'uuid'
import type { Transcript as TranscriptView } from '@contract/transcripts'
import { type Cue, isTimed } from '@core/transcript/cue'
import type { Aligned } from '@core/transcript/alignment/forcedAlignment'
import { unitsOf } from '@core/transcript/alignment/units'
import type { Scope } from '../../people/access/scope'
import { episodeChanges } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { fileIn, withFiles } from '../../show/episodes/roles'
import { AppError } from '../../platform/http/errors'
import { withBytes } from '../../media/files/lent'
import type { AudioFile } from '../../media/files/models'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { runSound } from '../../media/sound/run'
import { Transcript } from './models'
import { countsOf, transcriptService } from './service'
import { voiceFor } from './voices'

/** An hour takes about a minute. */
const limitMs = 60 * 60_000

/** Laying a text over the speech: asked for by a person, done by a job. */
export function alignmentService(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
  const { changeEpisode } = episodeChanges(platform)
  const transcripts = transcriptService(platform)

  return {
    /** Begins to lay a transcript over its episode's sound. Throws `not-ready` where there is none that is here. */
    async begin(scope: Scope): Promise<TranscriptView> {
      const { episodeId } = await transcripts.find(scope.id)
      await changeEpisode({ ...scope, id: episodeId }, {}, async (_episode, transaction) => {
        const source = await sourceOf(episodeId)
        if (!source || source.address)
          throw new AppError('not-ready', 'There is no audio here that it could be laid over.')
        await platform.jobs.cancel('align-transcript', scope.id, transaction)
        await Transcript.update({ alignment: 'working' }, { where: { id: scope.id }, transaction })
        const job = { kind: 'align-transcript' as const, payload: { transcriptId: scope.id }, subject: scope.id }
        return { jobs: [job] }
      })
      return transcripts.get(scope)
    },
  }
}

async function sourceOf(episodeId: string): Promise<AudioFile | null> {
  const episode = await Episode.findByPk(episodeId, { include: withFiles(), rejectOnEmpty: true })
  return fileIn(episode, 'source')
}

/** The job that finds when everything of a transcript is said. */
export function alignTranscript(platform: Platform): JobDefinition<Payloads['align-transcript']> {
  const { media, configuration, clock } = platform
  const { changeEpisode } = episodeChanges(platform)

  /** Writes the outcome down, unless the transcript has become another meanwhile: then that is told. */
  async function settle(row: Transcript, part: Partial<Transcript>): Promise<void> {
    const { showId } = await Episode.findByPk(row.episodeId, { attributes: ['showId'], rejectOnEmpty: true })
    await changeEpisode({ id: row.episodeId, showId }, {}, async (_episode, transaction) => {
      const current = await Transcript.findByPk(row.id, { transaction })
      if (!current || current.alignment !== 'working') return null
      const isSame = current.version === row.version
      const isAligned = isSame && part.alignment === 'none'
      current.set(isSame ? part : { alignment: 'overtaken' })
      if (isAligned) current.set({ version: current.version + 1, updatedAt: clock.now() })
      await current.save({ transaction })
      return isAligned && !current.isUnread ? { transcripts: true } : {}
    })
  }

  return {
    lane: 'alignment',
    limitMs,
    async run({ transcriptId }, run) {
      const row = await Transcript.findOne({ where: { id: transcriptId, removedAt: null } })
      if (!row || row.alignment !== 'working') return
      const source = await sourceOf(row.episodeId)
      if (!source || source.address) return settle(row, { alignment: 'failed' })
      const units = unitsOf(row.content.cues.map(loosened), row.language, uuidV4)
      if (units.length === 0) return settle(row, { alignment: 'failed' })
      const script = {
        texts: units.map(({ text }) => text),
        speakers: units.map(({ speaker }) => speaker),
        pinnedMs: units.map(({ fromMs }) => fromMs),
        voice: await voiceFor(row.language),
      }
      const aligned = await media.workIn(`align-${row.id}`, folder =>
        withBytes(media, source, files => {
          const sound = { ...files, sampleRateHz: source.sampleRateHz, channels: 1 as const }
          return runSound(
            { kind: 'align', source: sound, expectedMs: source.durationMs, script, folder },
            run,
            configuration,
          )
        }),
      )
      const content = { ...row.content, cues: units.map((unit, at) => withTimes(unit, aligned[at]!)) }
      await settle(row, {
        content,
        ...countsOf(content),
        beforeContent: row.isUnread ? row.beforeContent : row.content,
        origin: 'aligned',
        sourceId: source.id,
        alignment: 'none',
      })
    },
    async gaveUp({ transcriptId }) {
      const row = await Transcript.findByPk(transcriptId)
      if (row) await settle(row, { alignment: 'failed' })
    },
  }
}

/** What nobody has said the time of loses it, to be found anew. */
const loosened = (cue: Cue): Cue => (cue.isPinned ? cue : { ...cue, fromMs: null, toMs: null })

function withTimes(cue: Cue, { fromMs, toMs, sure }: Aligned): Cue {
  if (cue.isPinned && isTimed(cue)) return cue
  return { ...cue, fromMs, toMs, sure }
}
