import { z } from 'zod'
import { mostTranscriptBytes } from '@core/transcript/formats'

/** It does not answer, or not as it should, and may do so later. The message is for a person. */
export class Trouble extends Error {}

/** It will not do it. The message is for a person. */
export class Refused extends Error {}

const stateOfDraft = z.discriminatedUnion('state', [
  z.object({ state: z.literal('working'), progress: z.number().min(0).max(1) }),
  z.object({ state: z.literal('done') }),
  z.object({ state: z.literal('failed'), why: z.string() }),
])
export type StateOfDraft = z.infer<typeof stateOfDraft>
const refusal = z.object({ why: z.string() })

export interface WantedDraft {
  /** Where the sound can be fetched. */
  audio: string
  /** BCP 47. */
  language: string
}

const patienceMs = 20_000
const transcriptPatienceMs = 120_000
const mostStateBytes = 64_000

/** A service that writes down what is said in a sound, by the interface in stand-ins/copyist/openapi.json. Each throws Trouble or Refused. */
export function copyistAt(address: string) {
  async function ask(
    path: string,
    { signal, mostBytes = mostStateBytes, waitMs = patienceMs, ...init }: Asked,
  ): Promise<{ status: number; type: string; body: Uint8Array }> {
    const signals = [AbortSignal.timeout(waitMs), ...(signal ? [signal] : [])]
    try {
      // It is where it was said to be, or nowhere: whoever sends on elsewhere is not believed.
      const answer = await fetch(`${address}/${path}`, { ...init, redirect: 'error', signal: AbortSignal.any(signals) })
      return {
        status: answer.status,
        type: answer.headers.get('content-type') ?? '',
        body: await bodyOf(answer, mostBytes),
      }
    } catch (error) {
      signal?.throwIfAborted()
      if (error instanceof Trouble) throw error
      throw new Trouble('The copyist does not answer.')
    }
  }

  async function askState(path: string, asked: Asked): Promise<StateOfDraft | null> {
    const answer = await ask(path, asked)
    if (answer.status === 404) return null
    refuseErrors(answer)
    const read = stateOfDraft.safeParse(jsonOf(answer))
    if (!read.success) throw new Trouble('The copyist answers something that its interface does not know.')
    return read.data
  }

  return {
    /** Asks for a draft by a name of our own: asked twice it is one draft. */
    async begin(id: string, wanted: WantedDraft, signal?: AbortSignal): Promise<StateOfDraft> {
      const state = await askState(`drafts/${id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(wanted),
        signal,
      })
      if (!state) throw new Refused('The copyist is not at the address that was set for it.')
      return state
    },
    /** How far it is; null where the copyist does not know it. */
    look: (id: string, signal?: AbortSignal): Promise<StateOfDraft | null> => askState(`drafts/${id}`, { signal }),
    async transcript(id: string, signal?: AbortSignal): Promise<Uint8Array> {
      const answer = await ask(`drafts/${id}/transcript.vtt`, {
        signal,
        mostBytes: mostTranscriptBytes,
        waitMs: transcriptPatienceMs,
      })
      refuseErrors(answer)
      return answer.body
    },
    /** Tells it that nobody wants the draft any more. */
    async drop(id: string, signal?: AbortSignal): Promise<void> {
      await ask(`drafts/${id}`, { method: 'DELETE', signal })
    },
  }
}

interface Asked extends Pick<RequestInit, 'method' | 'headers' | 'body'> {
  signal?: AbortSignal | undefined
  mostBytes?: number
  waitMs?: number
}

/** An answer's body; throws Trouble where it has more bytes than it may. */
async function bodyOf({ body }: Response, mostBytes: number): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  let bytes = 0
  for await (const part of body ?? []) {
    bytes += (part as Uint8Array).length
    if (bytes > mostBytes) throw new Trouble('The copyist answers more than it should.')
    parts.push(part as Uint8Array)
  }
  return Buffer.concat(parts)
}

function refuseErrors(answer: { status: number; type: string; body: Uint8Array }): void {
  const { status } = answer
  if (status < 400) return
  if (status >= 500 || status === 429) throw new Trouble(`The copyist answers with an error of its own (${status}).`)
  const said = refusal.safeParse(jsonOf(answer))
  throw new Refused(`The copyist refused (${status})${said.success ? `: ${said.data.why}` : '.'}`)
}

function jsonOf({ type, body }: { type: string; body: Uint8Array }): unknown {
  if (/^text\/html\b/i.test(type)) throw new Trouble('The copyist answers with a web page.')
  try {
    return JSON.parse(new TextDecoder().decode(body))
  } catch {
    throw new Trouble('The copyist answers something that its interface does not know.')
  }
}
