import type { Transaction } from 'sequelize'
import { NoTranscript } from '@core/transcript/cue'
import { transact } from '../../platform/database/transact'
import { Episode } from '../../show/episodes/models'
import { AppError } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import { readText, TooMuchText } from '../../platform/foreignText/run'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import { Refused, Trouble } from '../../platform/outside/service'
import type { Platform } from '../../platform/platform'
import { transcriptService } from '../transcripts/service'
import { transcriptionServiceAt, type TranscriptDraftState } from './transcriptionService'
import { lentAddress, newToken } from './lent'
import { TranscriptDraft } from './models'
import { asking } from './service'

const hourMs = 3600_000
/** So long a draft may stand still, and so long the copyist may be away. */
const standstillMs = hourMs
const longestAbsenceMs = 12 * hourMs
/** A copyist that has forgotten a draft is asked to begin anew, so many times. */
const mostBeginnings = 5
const [shortestPauseMs, longestPauseMs] = [1_000, 60_000]

/** A draft that comes to nothing; the message is for a person. */
class NoDraft extends Error {}

/** The job that goes on with a draft: a step each time, until it is here or comes to nothing. */
export function askTranscriptionService(platform: Platform): JobDefinition<Payloads['ask-transcription-service']> {
  const { clock, database, events, jobs, configuration } = platform
  const transcripts = transcriptService(platform)

  /** Writes down how a draft stands, if it is still wanted, and tells whoever looks; `again`: asks once more in a while. */
  async function note(
    draft: TranscriptDraft,
    part: Partial<TranscriptDraft>,
    again: 'again' | 'no more',
  ): Promise<void> {
    const { showId } = await Episode.findByPk(draft.episodeId, { attributes: ['showId'], rejectOnEmpty: true })
    await transact(database, async transaction => {
      const current = await TranscriptDraft.findByPk(draft.id, { transaction, lock: true })
      if (!current) return
      const isTold = part.problem !== undefined || part.progress !== undefined || part.state !== undefined
      await current.update(part, { transaction })
      if (again === 'again') await askAgain(draft.id, pauseOf(current), transaction)
      if (isTold) await events.note({ kind: 'progress', showId, id: draft.id }, transaction)
    })
  }

  /** One question is open at a time, also where a process ended between asking and saying that it has. */
  async function askAgain(draftId: string, afterMs: number, transaction: Transaction): Promise<void> {
    await jobs.cancel('ask-transcription-service', draftId, transaction)
    await jobs.add(asking(draftId, afterMs), transaction)
  }

  /** Ever longer: a tenth of how long it has been worked on, or has been away. */
  function pauseOf({ createdAt, answeredAt, problem }: TranscriptDraft): number {
    const sinceMs = +clock.now() - +(problem === null ? createdAt : answeredAt)
    return Math.min(longestPauseMs, Math.max(shortestPauseMs, sinceMs / 10))
  }

  async function stateOf(
    draft: TranscriptDraft,
    service: TranscriptionService,
    signal: AbortSignal,
  ): Promise<TranscriptDraftState> {
    const known = draft.begun > 0 ? await service.look(draft.id, signal) : null
    if (known) return known
    if (draft.begun >= mostBeginnings)
      throw new NoDraft(`The copyist has forgotten the draft ${mostBeginnings} times while it was at work.`)
    const file = await AudioFile.findByPk(draft.fileId)
    if (!file) throw new NoDraft('The audio is not here any more.')
    const { token, hash } = newToken()
    const beginning = { begun: draft.begun + 1, tokenHash: hash, progress: 0, gotOnAt: clock.now() }
    await transact(database, transaction => draft.update(beginning, { transaction }))
    const audio = file.address ?? lentAddress(configuration.publicUrl, token, file)
    return service.begin(draft.id, { audio, language: draft.language }, signal)
  }

  async function take(draft: TranscriptDraft, service: TranscriptionService, signal: AbortSignal): Promise<void> {
    const bytes = await service.transcript(draft.id, signal)
    const content = await readText({ kind: 'draft', bytes }, configuration)
    if (content.cues.length === 0) throw new NoDraft('The copyist heard no words.')
    const { showId } = await Episode.findByPk(draft.episodeId, { attributes: ['showId'], rejectOnEmpty: true })
    await transcripts.put(
      { id: draft.episodeId, showId, accountId: null },
      draft.language,
      { content, origin: 'drafted', name: null, sourceId: draft.fileId, isUnread: true },
      async transaction => (await TranscriptDraft.destroy({ where: { id: draft.id }, transaction })) > 0,
    )
    // It is here; that the copyist need not keep it is only said.
    await service.drop(draft.id).catch(() => undefined)
  }

  async function step(draft: TranscriptDraft, service: TranscriptionService, signal: AbortSignal): Promise<void> {
    const now = clock.now()
    const state = await stateOf(draft, service, signal)
    if (state.state === 'failed') throw new NoDraft(`The copyist says: ${state.why}`)
    if (state.state === 'done') return take(draft, service, signal)
    const { progress } = state
    const isFurther = progress > draft.progress
    if (!isFurther && +now - +draft.gotOnAt > standstillMs) throw new NoDraft('The copyist has not got on for an hour.')
    const news = { ...(isFurther && { progress, gotOnAt: now }), ...(draft.problem !== null && { problem: null }) }
    await note(draft, { answeredAt: now, ...news }, 'again')
  }

  async function onTrouble(draft: TranscriptDraft, { message }: Trouble): Promise<void> {
    if (+clock.now() - +draft.answeredAt > longestAbsenceMs)
      throw new NoDraft(`${message} That has been so for twelve hours.`)
    await note(draft, { problem: message }, 'again')
  }

  return {
    lane: 'drafting',
    async run({ draftId }, { signal }) {
      const service = configuration.transcriptionUrl && transcriptionServiceAt(configuration.transcriptionUrl)
      const draft = await TranscriptDraft.findByPk(draftId)
      if (!draft || draft.state !== 'working') {
        if (service) await service.drop(draftId, signal).catch(() => undefined)
        return
      }
      try {
        if (!service) throw new NoDraft('No copyist is set up here any more.')
        await step(draft, service, signal).catch((error: unknown) => {
          if (!(error instanceof Trouble)) throw error
          return onTrouble(draft, error)
        })
      } catch (error) {
        if (!isForAPerson(error)) throw error
        await note(draft, { state: 'failed', problem: wordsOf(error) }, 'no more')
        if (service) await service.drop(draftId).catch(() => undefined)
      }
    },
    async gaveUp({ draftId }) {
      const draft = await TranscriptDraft.findByPk(draftId)
      if (draft) await note(draft, { state: 'failed', problem: 'The draft could not be fetched.' }, 'no more')
    },
  }
}

type TranscriptionService = ReturnType<typeof transcriptionServiceAt>

const isForAPerson = (error: unknown): error is Error =>
  [NoDraft, Refused, NoTranscript, TooMuchText, AppError].some(kind => error instanceof kind)

const wordsOf = (error: Error): string =>
  `${error instanceof NoTranscript ? 'What the copyist sent cannot be taken. ' : ''}${error.message}`.slice(0, 500)
