import { z } from 'zod'

/** It does not answer, or not as it should, and may do so later. The message is for a person. */
export class Trouble extends Error {}

/** It will not do it. The message is for a person. */
export class Refused extends Error {}

const refusal = z.object({ why: z.string() })
const patienceMs = 20_000
const usualMostBytes = 64_000

export interface Asked extends Pick<RequestInit, 'method'> {
  json?: object
  signal?: AbortSignal | undefined
  mostBytes?: number
  waitMs?: number
}

export interface Said {
  status: number
  type: string
  body: Uint8Array
}

/** A service outside that is asked over HTTP, by its name in a sentence. */
export function serviceAt(address: string, name: string) {
  /** Throws Trouble where it does not answer, or answers more than it should. */
  async function ask(
    path: string,
    { signal, mostBytes = usualMostBytes, waitMs = patienceMs, json, method = 'GET' }: Asked = {},
  ): Promise<Said> {
    const until = AbortSignal.any([AbortSignal.timeout(waitMs), ...(signal ? [signal] : [])])
    // It is where it was said to be, or nowhere: whoever sends on elsewhere is not believed.
    const once = (): Promise<Response> =>
      fetch(`${address}/${path}`, {
        method,
        ...(json && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(json) }),
        redirect: 'error',
        signal: until,
      })
    try {
      // RFC 9112 section 9.3.1: a line that was kept open may be closed just then; what changes nothing is asked once more.
      const answer = await once().catch((error: unknown) => {
        if (method !== 'GET') throw error
        return once()
      })
      return {
        status: answer.status,
        type: answer.headers.get('content-type') ?? '',
        body: await bodyOf(answer, mostBytes),
      }
    } catch (error) {
      signal?.throwIfAborted()
      if (error instanceof Trouble) throw error
      throw new Trouble(`${name} does not answer.`)
    }
  }

  /** An answer's body; throws Trouble where it has more bytes than it may. */
  async function bodyOf({ body }: Response, mostBytes: number): Promise<Uint8Array> {
    const parts: Uint8Array[] = []
    let bytes = 0
    for await (const part of body ?? []) {
      bytes += (part as Uint8Array).length
      if (bytes > mostBytes) throw new Trouble(`${name} answers more than it should.`)
      parts.push(part as Uint8Array)
    }
    return Buffer.concat(parts)
  }

  function refuseErrors(answer: Said): void {
    const { status } = answer
    if (status < 400) return
    if (status >= 500 || status === 429) throw new Trouble(`${name} answers with an error of its own (${status}).`)
    const said = refusal.safeParse(jsonOf(answer))
    throw new Refused(`${name} refused (${status})${said.success ? `: ${said.data.why}` : '.'}`)
  }

  function jsonOf({ type, body }: Said): unknown {
    if (/^text\/html\b/i.test(type)) throw new Trouble(`${name} answers with a web page.`)
    try {
      return JSON.parse(new TextDecoder().decode(body))
    } catch {
      throw new Trouble(`${name} answers something that its interface does not know.`)
    }
  }

  return {
    ask,
    refuseErrors,
    /** What an answer says; throws Refused where it is a refusal, Trouble where it says what its interface does not know. */
    read<Schema extends z.ZodType>(answer: Said, schema: Schema): z.output<Schema> {
      refuseErrors(answer)
      const read = schema.safeParse(jsonOf(answer))
      if (!read.success) throw new Trouble(`${name} answers something that its interface does not know.`)
      return read.data
    },
  }
}
