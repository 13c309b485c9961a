import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http'
import proxyAddr from '@fastify/proxy-addr'
import type { FastifyServerOptions } from 'fastify'

/** Answers a request where it can do so at once; tells whether it has. */
export type Answering = (request: IncomingMessage, response: ServerResponse) => boolean

/**
 * What is asked for most, and is known in memory, is answered before the framework sees it: its routing, its hooks and its
 * objects for each request take longer than the answer itself. Whatever is not answered here goes the usual way, on which
 * the same answer is given by a route.
 */
export function fastPath(addressOf: (request: IncomingMessage) => string) {
  const ways: Answering[] = []
  return {
    add(way: Answering): void {
      ways.push(way)
    },
    serverFactory(usual: RequestListener, options: FastifyServerOptions): Server {
      const server = createServer((request, response) => {
        request.url = addressOf(request)
        for (const way of ways) if (way(request, response)) return
        usual(request, response)
      })
      return Object.assign(server, {
        keepAliveTimeout: options.keepAliveTimeout,
        requestTimeout: options.requestTimeout,
      }).setTimeout(options.connectionTimeout)
    },
  }
}

export type FastPath = ReturnType<typeof fastPath>

/** The address of whoever asks; behind trusted proxies the one that the first of them names. */
export const askerOf =
  (trustProxy: number) =>
  (request: IncomingMessage): string =>
    (trustProxy > 0 ? proxyAddr(request, (_address, hop) => hop < trustProxy) : request.socket.remoteAddress) ?? ''
