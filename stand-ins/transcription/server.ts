import { createServer, type IncomingMessage, type Server } from 'node:http'
import { draftsOf } from './drafts'
import description from './openapi.json' with { type: 'json' }

const pattern = /^\/drafts\/([A-Za-z0-9-]{1,64})(\/transcript\.vtt)?$/
const mostBytes = 16_000
const json = { 'content-type': 'application/json' }

/** The copyist's own server, by openapi.json. `words` are those of the sounds that it knows; each draft takes it `workMs`. */
export function transcriptionServer(
  words: ReadonlyMap<string, string>,
  workMs: number,
  now: () => number = Date.now,
): Server {
  const drafts = draftsOf(words, workMs, now)

  async function answerTo(request: IncomingMessage): Promise<Answer> {
    const { method = 'GET', url = '/' } = request
    if (url === '/openapi.json') return { status: 200, body: description }
    const [, id, vtt] = pattern.exec(url) ?? []
    if (!id) return refusal(404, `There is nothing at ${url.slice(0, 80)}.`)
    if (method === 'PUT' && !vtt) {
      const wanted = wantedOf(await bodyOf(request))
      if (typeof wanted === 'string') return refusal(400, wanted)
      return { status: drafts.begin(id, wanted.audio) ? 201 : 200, body: drafts.get(id)!.state }
    }
    if (method === 'DELETE' && !vtt) {
      drafts.drop(id)
      return { status: 204 }
    }
    if (method !== 'GET') return refusal(405, `${method} is not for this address.`)
    const draft = drafts.get(id)
    if (!draft || (vtt && draft.state.state !== 'done')) return refusal(404, 'There is no such draft here.')
    return vtt ? { status: 200, vtt: draft.vtt } : { status: 200, body: draft.state }
  }

  return createServer((request, response) => {
    answerTo(request)
      .catch((): Answer => refusal(400, 'The request cannot be read.'))
      .then(({ status, body, vtt }) => {
        if (vtt !== undefined) response.writeHead(status, { 'content-type': 'text/vtt; charset=utf-8' }).end(vtt)
        else if (body === undefined) response.writeHead(status).end()
        else response.writeHead(status, json).end(JSON.stringify(body))
      })
      .catch(() => response.destroy())
  }).on('clientError', (_error, socket) => {
    socket.destroy()
  })
}

interface Answer {
  status: number
  body?: object
  vtt?: string
}
const refusal = (status: number, why: string): Answer => ({ status, body: { why } })

async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = ''
  for await (const part of request.setEncoding('utf8')) {
    text += part as string
    if (text.length > mostBytes) throw new Error('Too much.')
  }
  return text
}

/** What is wanted, or what is wrong with it. */
function wantedOf(text: string): { audio: string } | string {
  const wanted = parsed(text) as { audio?: unknown; language?: unknown } | null
  const { audio, language } = wanted ?? {}
  if (typeof audio !== 'string' || !/^https?:\/\//.test(audio) || !URL.canParse(audio))
    return `audio=${JSON.stringify(audio ?? null)}: an address that begins with http.`
  if (typeof language !== 'string' || language === '')
    return `language=${JSON.stringify(language ?? null)}: a language tag, such as en.`
  return { audio }
}
function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
