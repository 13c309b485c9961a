import type { FastifyInstance } from 'fastify'
import findMyWay, { type HTTPMethod } from 'find-my-way'

const methods = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'] as const

/** What is at which address, learnt from the routes as they are registered; so it is made before them. */
export interface KnownAddresses {
  /** The methods that some route takes at a path; none where nothing is there. */
  methodsAt(path: string): string[]
  /** The pattern of the route that GET finds at a path. */
  patternAt(path: string): string | null
}

/** Listens for the routes of an application. */
export function knownAddresses(app: FastifyInstance): KnownAddresses {
  const router = findMyWay()
  app.addHook('onRoute', ({ method, url }) => {
    for (const each of [method].flat() as HTTPMethod[])
      if (!router.hasRoute(each, url)) router.on(each, url, () => undefined, url)
  })
  return {
    methodsAt: path => methods.filter(method => router.find(method, path) !== null),
    patternAt: path => (router.find('GET', path)?.store as string | undefined) ?? null,
  }
}
