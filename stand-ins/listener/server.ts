import { createServer, type Server } from 'node:http'
import { fetchFeed } from './feed'
import { page } from './page'

/** The listening app's own server: its page, and feeds read for it. What nobody meant is answered, too. */
/** What is dated ahead of `now` is not shown yet. */
export function listenerServer(now: () => number = Date.now): Server {
  return createServer(async (request, response) => {
    // The address is whatever somebody wrote: `//` is a path here and the beginning of a host elsewhere.
    const [path, query = ''] = (request.url ?? '/').split(/\?(.*)/s)
    if (path === '/') {
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page)
      return
    }
    if (path !== '/feed') {
      response.writeHead(404).end()
      return
    }
    const answer = await fetchFeed(new URLSearchParams(query).get('address') ?? '').then(
      feed => ({
        status: 200,
        body: { ...feed, episodes: feed.episodes.filter(({ date }) => !(+new Date(date) > now())) } as object,
      }),
      (error: Error) => ({ status: 502, body: { says: error.message } }),
    )
    response.writeHead(answer.status, { 'content-type': 'application/json' }).end(JSON.stringify(answer.body))
  }).on('clientError', (_error, socket) => {
    socket.destroy()
  })
}
