import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { directoryCode, directoryList, newOwnListing } from '@contract/directories'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { directoryService } from './service'

const byId = z.object({ id: z.uuid() })
const byDirectory = byId.extend({ directory: z.string().max(40, 'At most 40 characters.') })
const byListing = byId.extend({ listing: z.uuid() })

export const directoryRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const directories = directoryService(platform)
    const answer = { 200: directoryList }

    app.get(
      '/shows/:id/directories',
      { ...accessTo('show', 'read'), schema: { params: byId, response: answer } },
      request => directories.list(request.scope),
    )
    app.post(
      '/shows/:id/directories/:directory',
      { ...accessTo('show', 'make'), schema: { params: byDirectory, response: answer } },
      request => directories.submit(request.scope, request.params.directory),
    )
    app.post(
      '/shows/:id/directories/:directory/code',
      { ...accessTo('show', 'make'), schema: { params: byDirectory, body: directoryCode, response: answer } },
      request => directories.confirm(request.scope, request.params.directory, request.body.code),
    )
    app.post(
      '/shows/:id/listings',
      { ...accessTo('show', 'make'), schema: { params: byId, body: newOwnListing, response: answer } },
      request => directories.addOwn(request.scope, request.body),
    )
    app.delete(
      '/shows/:id/listings/:listing',
      { ...accessTo('show', 'make'), schema: { params: byListing, response: answer } },
      request => directories.drop(request.scope, request.params.listing),
    )
  }
