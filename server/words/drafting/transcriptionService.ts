import { z } from 'zod'
import { mostTranscriptBytes } from '@core/transcript/formats'
import { type Asked, Refused, serviceAt } from '../../platform/outside/service'

const stateOfDraft = z.discriminatedUnion('state', [
  z.object({ state: z.literal('working'), progress: z.number().min(0).max(1) }),
  z.object({ state: z.literal('done') }),
  z.object({ state: z.literal('failed'), why: z.string() }),
])
export type TranscriptDraftState = z.infer<typeof stateOfDraft>

export interface WantedDraft {
  /** Where the sound can be fetched. */
  audio: string
  /** BCP 47. */
  language: string
}

const transcriptPatienceMs = 120_000

/** A service that writes down what is said in a sound, by the interface in stand-ins/transcription/openapi.json. Each throws Trouble or Refused. */
export function transcriptionServiceAt(address: string) {
  const service = serviceAt(address, 'The copyist')

  async function askState(path: string, asked: Asked): Promise<TranscriptDraftState | null> {
    const answer = await service.ask(path, asked)
    if (answer.status === 404) return null
    return service.read(answer, stateOfDraft)
  }

  return {
    /** Asks for a draft by a name of our own: asked twice it is one draft. */
    async begin(id: string, wanted: WantedDraft, signal?: AbortSignal): Promise<TranscriptDraftState> {
      const state = await askState(`drafts/${id}`, { method: 'PUT', json: wanted, signal })
      if (!state) throw new Refused('The copyist is not at the address that was set for it.')
      return state
    },
    /** How far it is; null where the copyist does not know it. */
    look: (id: string, signal?: AbortSignal): Promise<TranscriptDraftState | null> =>
      askState(`drafts/${id}`, { signal }),
    async transcript(id: string, signal?: AbortSignal): Promise<Uint8Array> {
      const answer = await service.ask(`drafts/${id}/transcript.vtt`, {
        signal,
        mostBytes: mostTranscriptBytes,
        waitMs: transcriptPatienceMs,
      })
      service.refuseErrors(answer)
      return answer.body
    },
    /** Tells it that nobody wants the draft any more. */
    async drop(id: string, signal?: AbortSignal): Promise<void> {
      await service.ask(`drafts/${id}`, { method: 'DELETE', signal })
    },
  }
}
