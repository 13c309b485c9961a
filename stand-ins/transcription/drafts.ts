import { withSlips } from './slips'
import { sha256Of } from './sounds'

export type State = { state: 'working'; progress: number } | { state: 'done' } | { state: 'failed'; why: string }

interface Draft {
  state: State
  vtt: string
  stopping: AbortController
}

const mostKept = 200
const fetched = 0.3
const steps = 20
const unknown =
  'this copyist is a stand-in that came with the demo. It has the words of the demo’s own sounds, and cannot listen to others.'

/** The drafts that this copyist works on, in memory. `words` are those of the sounds that it knows; each takes `workMs` by the clock `now`. */
export function draftsOf(words: ReadonlyMap<string, string>, workMs: number, now: () => number) {
  const drafts = new Map<string, Draft>()

  async function work(draft: Draft, audio: string): Promise<void> {
    const { signal } = draft.stopping
    const answer = await fetch(audio, { signal }).catch(() => null)
    if (!answer?.ok || !answer.body)
      throw new Error(
        answer ? `the audio’s address answers with status ${answer.status}.` : 'nobody answers at the audio’s address.',
      )
    const known = words.get(await sha256Of(answer.body as unknown as AsyncIterable<Uint8Array>))
    const begun = now()
    for (let share = 0; share < 1; share = (now() - begun) / workMs) {
      draft.state = { state: 'working', progress: fetched + (1 - fetched) * share }
      await new Promise(resolve => setTimeout(resolve, workMs / steps))
      signal.throwIfAborted()
    }
    if (!known) throw new Error(unknown)
    draft.vtt = withSlips(known)
    draft.state = { state: 'done' }
  }

  return {
    get: (id: string): Draft | undefined => drafts.get(id),

    /** Begins a draft; whether it was new. */
    begin(id: string, audio: string): boolean {
      if (drafts.has(id)) return false
      const draft: Draft = { state: { state: 'working', progress: 0 }, vtt: '', stopping: new AbortController() }
      drafts.set(id, draft)
      const oldest = drafts.keys().next().value
      if (drafts.size > mostKept && oldest !== undefined) this.drop(oldest)
      work(draft, audio).catch((error: Error) => {
        draft.state = { state: 'failed', why: error.message }
      })
      return true
    },

    drop(id: string): void {
      drafts.get(id)?.stopping.abort()
      drafts.delete(id)
    },
  }
}
