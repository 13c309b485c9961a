import { v7 as uuidV7 } from 'uuid'
import type { TranscriptDraft as TranscriptDraftView } from '@contract/drafts'
import type { Scope } from '../../people/access/scope'
import { episodeChanges } from '../../show/episodes/change'
import { fileIdOf } from '../../show/episodes/roles'
import { AppError } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import type { NewJob } from '../../platform/jobs/jobs'
import type { Platform } from '../../platform/platform'
import { TranscriptDraft } from './models'

/** Having a copyist draft what is said in an episode: asked for by a person, done by a job. */
export function draftingService(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
  const { clock, configuration } = platform
  const { changeEpisode } = episodeChanges(platform)

  return {
    async get({ id: episodeId }: Pick<Scope, 'id'>): Promise<TranscriptDraftView | null> {
      const draft = await TranscriptDraft.findOne({ where: { episodeId } })
      if (!draft) return null
      const { id, language, state, progress, problem } = draft
      return { id, language, state, progress, problem }
    },

    /** Asks for a draft; one that is on its way goes on. Throws `not-ready` where there is no copyist, or no sound. */
    async begin(scope: Scope, language: string): Promise<void> {
      if (!configuration.transcriptionUrl)
        throw new AppError('not-ready', 'No copyist was set up here (TRANSCRIPTION_URL).')
      await changeEpisode(scope, {}, async (episode, transaction) => {
        const fileId = fileIdOf(episode, 'source')
        if (!fileId) throw new AppError('not-ready', 'There is no audio here that somebody could write down.')
        if ((await AudioFile.count({ where: { id: fileId, origin: 'mix' }, transaction })) > 0)
          throw new AppError(
            'not-ready',
            'What is put together here is no file yet that could be sent to be written down.',
          )
        const known = await TranscriptDraft.findOne({ where: { episodeId: scope.id }, transaction })
        if (known?.state === 'working') return null
        await known?.destroy({ transaction })
        const [id, now] = [uuidV7(), clock.now()]
        await TranscriptDraft.create(
          { id, episodeId: scope.id, fileId, language, createdAt: now, gotOnAt: now, answeredAt: now },
          { transaction },
        )
        return { jobs: [asking(id)] }
      })
    },

    /** Does without the draft; its job tells the copyist so. */
    async stop(scope: Scope): Promise<void> {
      await changeEpisode(scope, {}, async (_episode, transaction) => {
        const count = await TranscriptDraft.destroy({ where: { episodeId: scope.id }, transaction })
        return count > 0 ? {} : null
      })
    },
  }
}

/** Asks the copyist in a while. */
export const asking = (draftId: string, afterMs = 0): NewJob => ({
  kind: 'ask-transcription-service',
  payload: { draftId },
  subject: draftId,
  afterMs,
})
