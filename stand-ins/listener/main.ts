import { createServer } from 'node:http'
import { fetchFeed } from './feed'
import { page } from './page'

/** A listening app in small: it knows a feed's address and nothing else of the house that wrote it. */
const port = Number(process.env.LISTENER_PORT ?? 4311)

const server = createServer(async (request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? '/', 'http://listener')
  if (pathname === '/') {
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page)
    return
  }
  if (pathname !== '/feed') {
    response.writeHead(404).end()
    return
  }
  const answer = await fetchFeed(searchParams.get('address') ?? '').then(
    feed => ({ status: 200, body: feed as object }),
    (error: Error) => ({ status: 502, body: { says: error.message } }),
  )
  response.writeHead(answer.status, { 'content-type': 'application/json' }).end(JSON.stringify(answer.body))
})

server.listen(port, '127.0.0.1', () => process.send?.({ listening: `http://127.0.0.1:${(server.address() as { port: number }).port}` }))
const stop = (): void => { server.close(() => process.exit(0)).closeAllConnections() }
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, stop)
