import { createServer, type IncomingMessage, type Server } from 'node:http'
import { type Book, characterOf, type Submission, wantsOf } from './book'
import { type Character, characters } from './characters'
import description from './openapi.json' with { type: 'json' }
import { frontPage, showPage } from './page'
import { isWorkingDay } from './workingDays'

const mostBytes = 16_000
const path = /^\/([a-z-]{1,40})(?:\/(submissions|shows)\/([A-Za-z0-9-]{1,64})(\/code)?)?$/

interface Answer {
  status: number
  body?: object
  html?: string
}
const refusal = (status: number, why: string): Answer => ({ status, body: { why } })
const nothing = (url: string): Answer => refusal(404, `There is nothing at ${url.slice(0, 80)}.`)

/** Three directories, by openapi.json for machines, with pages for people. */
export function directoriesServer(book: Book, addressOf: () => string, now: () => number = Date.now): Server {
  async function answerTo(request: IncomingMessage): Promise<Answer> {
    const { method = 'GET', url = '/' } = request
    if (url === '/openapi.json') return { status: 200, body: description }
    if (url === '/directories') return { status: 200, body: characters.map(told) }
    const [, directory, kind, id, code] = path.exec(url) ?? []
    const character = directory && characterOf(directory)
    if (!character) return nothing(url)
    if (!kind) return method === 'GET' ? { status: 200, html: frontPage(character, book) } : refusal(405, 'Only GET.')
    const submission = book.get(character.id, id!)
    if (kind === 'shows')
      return submission?.state === 'listed' ? { status: 200, html: showPage(character, submission) } : nothing(url)
    if (code) return method === 'POST' ? confirmed(submission, await bodyOf(request)) : refusal(405, 'Only POST.')
    if (method === 'PUT') return begun(character, id!, await bodyOf(request))
    if (method !== 'GET') return refusal(405, `${method} is not for this address.`)
    return submission ? { status: 200, body: stateOf(submission) } : nothing(url)
  }

  function begun({ id: directory }: Character, id: string, body: unknown): Answer {
    const { feedAddress } = (body ?? {}) as { feedAddress?: unknown }
    if (typeof feedAddress !== 'string' || !/^https?:\/\//.test(feedAddress) || !URL.canParse(feedAddress))
      return refusal(400, `feedAddress=${JSON.stringify(feedAddress ?? null)}: an address that begins with http.`)
    const made = book.begin(directory, id, feedAddress)
    return 'why' in made ? refusal(409, made.why) : { status: 200, body: stateOf(made.submission) }
  }

  function confirmed(submission: Submission | null, body: unknown): Answer {
    const { code } = (body ?? {}) as { code?: unknown }
    if (!submission) return refusal(404, 'There is no such submission here.')
    if (typeof code !== 'string' || !book.confirm(submission, code)) return refusal(400, 'This is not the code.')
    return { status: 200, body: stateOf(submission) }
  }

  const told = (character: Character) => ({
    id: character.id,
    name: character.name,
    about: character.about,
    wants: wantsOf(character),
    everyHours: character.everyHours,
    reviewDays: character.reviewDays,
    address: `${addressOf()}/${character.id}`,
  })

  const stateOf = ({ id, directory, state, since, why, show, fetchedAt, nextFetchAt }: Submission) => ({
    state,
    since: new Date(since).toISOString(),
    why,
    sentTo: state === 'to confirm' ? (show?.ownerEmail ?? null) : null,
    isClosed: state === 'in review' && !isWorkingDay(now()),
    listingAddress: state === 'listed' ? `${addressOf()}/${directory}/shows/${id}` : null,
    fetchedAt: fetchedAt === null ? null : new Date(fetchedAt).toISOString(),
    nextFetchAt: new Date(nextFetchAt).toISOString(),
    guids: show?.episodes.map(({ guid }) => guid) ?? [],
  })

  return createServer((request, response) => {
    answerTo(request)
      .catch((): Answer => refusal(400, 'The request cannot be read.'))
      .then(({ status, body, html }) => {
        if (html !== undefined) response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(html)
        else response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))
      })
      .catch(() => response.destroy())
  }).on('clientError', (_error, socket) => {
    socket.destroy()
  })
}

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  let text = ''
  for await (const part of request.setEncoding('utf8')) {
    text += part as string
    if (text.length > mostBytes) throw new Error('Too much.')
  }
  return JSON.parse(text)
}
