import { escapeUTF8 } from 'entities'
import type { FastifyPluginAsync } from 'fastify'
import { readSnapshot } from '@core/episode/snapshot'
import { renderText } from '@core/episode/rendered'
import {
  formatsOf,
  type TranscriptFormat,
  transcriptFormats,
  transcriptTypes,
  writeTranscript,
} from '@core/transcript/formats'
import { type Outlet, publicOutlet } from '../../show/episodes/audience'
import { releasedEpisode } from '../../show/episodes/released'
import { AppError } from '../../platform/http/errors'
import { preflight } from '../../platform/storage/publicAccess'
import { sendWritten, type Written, written } from '../../platform/storage/written'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import type { Show } from '../../show/shows/models'
import { renderContextOf } from '../../show/shows/service'
import { writtenAnswers } from '../../show/shows/writtenAnswers'
import { Transcript } from './models'

const namePattern = /^transcript\.([a-z0-9-]{2,35})\.([a-z]{3,4})$/

/** What the feed names as transcripts of released episodes. */
export const transcriptFileRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const { publicUrl } = platform.configuration
    const outlet = publicOutlet(publicUrl)
    const files = writtenAnswers(platform, (show, path, lastModified) =>
      writeTranscriptFile(show, path, lastModified, outlet),
    )

    app.options('/:show/:episode/:file(^transcript\\..+$)', (_request, reply) => preflight(reply))
    app.get<{ Params: { show: string; episode: string; file: string } }>(
      '/:show/:episode/:file(^transcript\\..+$)',
      async (request, reply) => {
        const { show, episode, file } = request.params
        const path = `${episode}/${file}`
        const told = namePattern.test(file) ? (files.atHand(show, path) ?? (await files.current(show, path))) : null
        if (!told) throw new AppError('not-found', 'There is no such file at this address.')
        return sendWritten(request, reply, told.answer, platform.clock.now())
      },
    )
  }

/** A file of a released episode's transcript, by the address part of the episode and its own; null where there is none. */
export async function writeTranscriptFile(
  show: Show,
  path: string,
  lastModified: Date,
  { audience, base, headers }: Outlet,
): Promise<{ path: string; answer: Written } | null> {
  const [slug = '', name = ''] = path.split('/')
  const [, language = '', format] = namePattern.exec(name) ?? []
  const episode = isFormat(format) ? await releasedEpisode(show.id, audience, slug) : null
  if (!episode || !isFormat(format)) return null
  const row = await Transcript.findOne({ where: { episodeId: episode.id, language }, attributes: ['released'] })
  if (!row?.released || !formatsOf(row.released).includes(format)) return null
  const words = writeTranscript(format, row.released)
  const { title } = renderText(readSnapshot(episode.released!), renderContextOf(show, base), [])
  const body = format === 'html' ? page(title, language, words) : words
  const answer = await written(typeOf(format), body, lastModified, {
    ...headers,
    ...nosniff,
    ...(format === 'html' && alone),
  })
  return { path: `${episode.slug!}/${name}`, answer }
}

const isFormat = (format: string | undefined): format is TranscriptFormat =>
  transcriptFormats.includes(format as TranscriptFormat)

/** With their encoding; that of JSON and SubRip is no parameter (RFC 8259, section 11). */
const typeOf = (format: TranscriptFormat): string =>
  `${transcriptTypes[format]}${/^text/.test(transcriptTypes[format]) ? '; charset=utf-8' : ''}`

/** A transcript that is opened by itself loads nothing. */
const alone = { 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'" }

const page = (title: string, language: string, words: string): string =>
  `<!doctype html>\n<html lang="${escapeUTF8(language)}">\n<head><meta charset="utf-8"><title>${escapeUTF8(title)}</title></head>\n<body>\n${words}\n</body>\n</html>\n`
