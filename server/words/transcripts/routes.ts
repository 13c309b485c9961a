import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import {
  bringQuery,
  broughtTranscript,
  cueChange,
  fileName,
  transcript,
  transcriptFacts,
  transcriptSummary,
} from '@contract/transcripts'
import { mostTranscriptBytes } from '@core/transcript/formats'
import { accessTo } from '../../people/access/access'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { alignmentService } from './forcedAlignment'
import { transcriptService } from './service'

const byId = z.object({ id: z.uuid() })
const bodyLimit = 20_000_000

export const transcriptRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const transcripts = transcriptService(platform)
    const alignments = alignmentService(platform)
    const ofOne = (may: 'read' | 'write') => accessTo('transcript', may)
    const answer = { response: { 200: transcript } }

    app.get(
      '/episodes/:id/transcripts',
      {
        ...accessTo('episode', 'read'),
        schema: { params: byId, response: { 200: z.object({ transcripts: z.array(transcriptSummary) }) } },
      },
      async request => ({ transcripts: await transcripts.list(request.scope) }),
    )
    app.get('/transcripts/:id', { ...ofOne('read'), schema: { params: byId, ...answer } }, request =>
      transcripts.get(request.scope),
    )
    app.patch(
      '/transcripts/:id/cues',
      { ...ofOne('write'), schema: { params: byId, body: cueChange, ...answer }, bodyLimit },
      request => transcripts.write(request.scope, request.body),
    )
    app.patch(
      '/transcripts/:id',
      { ...ofOne('write'), schema: { params: byId, body: transcriptFacts, ...answer } },
      request => transcripts.changeFacts(request.scope, request.body),
    )
    app.post('/transcripts/:id/before', { ...ofOne('write'), schema: { params: byId, ...answer } }, request =>
      transcripts.bringBack(request.scope),
    )
    app.post('/transcripts/:id/align', { ...ofOne('write'), schema: { params: byId, ...answer } }, request =>
      alignments.begin(request.scope),
    )
    app.delete('/transcripts/:id', { ...ofOne('write'), schema: { params: byId } }, async (request, reply) => {
      await transcripts.remove(request.scope)
      return reply.code(204).send()
    })
    app.post('/transcripts/:id/restoration', { ...ofOne('write'), schema: { params: byId, ...answer } }, request =>
      transcripts.restore(request.scope),
    )
    app.get(
      '/transcripts/:id/file.:format',
      { ...ofOne('read'), schema: { params: fileName } },
      async (request, reply) => {
        const { type, words, name } = await transcripts.file(request.scope, request.params.format)
        return reply
          .type(`${type}; charset=utf-8`)
          .header('content-disposition', `attachment; filename="${name}"`)
          .send(words)
      },
    )

    await app.register(async files => {
      // Whatever a request says that it brings, here it is bytes; what they are is told by themselves.
      files.removeAllContentTypeParsers()
      files.addContentTypeParser('*', { parseAs: 'buffer', bodyLimit: mostTranscriptBytes }, (_request, body, done) =>
        done(null, body),
      )
      ;(files as typeof app).post(
        '/episodes/:id/transcripts',
        {
          ...accessTo('episode', 'write'),
          schema: { params: byId, querystring: bringQuery, response: { 201: broughtTranscript } },
        },
        async (request, reply) => {
          if (!Buffer.isBuffer(request.body)) throw new AppError('unreadable', 'There is no file in the request.')
          return reply.code(201).send(await transcripts.bring(request.scope, request.query, request.body))
        },
      )
    })
  }
