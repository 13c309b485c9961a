import { v4 as uuidV4 } from 'uuid'
import type { Transcript as TranscriptView } from '@contract/transcripts'
import { type Cue, isTimed } from '@core/transcript/cue'
import type { Laid } from '@core/transcript/lay/lay'
import { unitsOf } from '@core/transcript/lay/units'
import type { Scope } from '../access/scope'
import { episodeChanges } from '../episodes/change'
import { Episode } from '../episodes/models'
import { fileIn, withFiles } from '../episodes/roles'
import { AppError } from '../errors'
import type { AudioFile } from '../files/models'
import type { JobDefinition, Payloads } from '../jobs/kinds'
import type { Platform } from '../platform'
import { runSound } from '../sound/run'
import { Transcript } from './models'
import { countsOf, transcriptService } from './service'
import { voiceFor } from './voices'

/** An hour takes about a minute. */
const limitMs = 60 * 60_000

/** Laying a text over the speech: asked for by a person, done by a job. */
export function layingService(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
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
        await platform.jobs.cancel('lay-transcript', scope.id, transaction)
        await Transcript.update({ laying: 'working' }, { where: { id: scope.id }, transaction })
        const job = { kind: 'lay-transcript' as const, payload: { transcriptId: scope.id }, subject: scope.id }
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
export function layTranscript(platform: Platform): JobDefinition<Payloads['lay-transcript']> {
  const { media, configuration, clock } = platform
  const { changeEpisode } = episodeChanges(platform)

  /** Writes the outcome down, unless the transcript has become another meanwhile: then that is told. */
  async function settle(row: Transcript, part: Partial<Transcript>): Promise<void> {
    const { showId } = await Episode.findByPk(row.episodeId, { attributes: ['showId'], rejectOnEmpty: true })
    await changeEpisode({ id: row.episodeId, showId }, {}, async (_episode, transaction) => {
      const current = await Transcript.findByPk(row.id, { transaction })
      if (!current || current.laying !== 'working') return null
      const isSame = current.version === row.version
      const isLaid = isSame && part.laying === 'none'
      current.set(isSame ? part : { laying: 'overtaken' })
      if (isLaid) current.set({ version: current.version + 1, updatedAt: clock.now() })
      await current.save({ transaction })
      return isLaid && !current.isUnread ? { transcripts: true } : {}
    })
  }

  return {
    lane: 'laying',
    limitMs,
    async run({ transcriptId }, run) {
      const row = await Transcript.findOne({ where: { id: transcriptId, removedAt: null } })
      if (!row || row.laying !== 'working') return
      const source = await sourceOf(row.episodeId)
      if (!source || source.address) return settle(row, { laying: 'failed' })
      const units = unitsOf(row.content.cues.map(loosened), row.language, uuidV4)
      if (units.length === 0) return settle(row, { laying: 'failed' })
      const script = {
        texts: units.map(({ text }) => text),
        speakers: units.map(({ speaker }) => speaker),
        pinnedMs: units.map(({ fromMs }) => fromMs),
        voice: await voiceFor(row.language),
      }
      const laid = await media.workIn(`lay-${row.id}`, async folder => {
        const { path, release } = await media.onDisk(source.sha256)
        try {
          const sound = {
            path,
            sampleRateHz: source.sampleRateHz,
            channels: 1 as const,
            junkBytes: Number(source.soundFromBytes ?? 0),
          }
          return await runSound(
            { kind: 'lay', source: sound, expectedMs: source.durationMs, script, folder },
            run,
            configuration,
          )
        } finally {
          await release()
        }
      })
      const content = { ...row.content, cues: units.map((unit, at) => withTimes(unit, laid[at]!)) }
      await settle(row, {
        content,
        ...countsOf(content),
        beforeContent: row.isUnread ? row.beforeContent : row.content,
        origin: 'laid',
        sourceId: source.id,
        laying: 'none',
      })
    },
    async gaveUp({ transcriptId }) {
      const row = await Transcript.findByPk(transcriptId)
      if (row) await settle(row, { laying: 'failed' })
    },
  }
}

/** What nobody has said the time of loses it, to be found anew. */
const loosened = (cue: Cue): Cue => (cue.isPinned ? cue : { ...cue, fromMs: null, toMs: null })

function withTimes(cue: Cue, { fromMs, toMs, sure }: Laid): Cue {
  if (cue.isPinned && isTimed(cue)) return cue
  return { ...cue, fromMs, toMs, sure }
}
