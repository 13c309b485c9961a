import { readFile } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import fastifyCompress from '@fastify/compress'
import fastifyStatic from '@fastify/static'
import type { FastifyPluginAsync } from 'fastify'
import type { SiteAssets } from '@site/pages'
import type { Platform } from '../../platform/platform'

/** The studio: one page whose addresses the browser tells apart, and the built files it loads. */
export const studioRoutes =
  ({ configuration: { webDir } }: Platform): FastifyPluginAsync =>
  async app => {
    await app.register(fastifyCompress, { encodings: ['br', 'gzip'] })
    await app.register(fastifyStatic, {
      root: resolve(webDir, 'assets'),
      prefix: '/assets/',
      immutable: true,
      maxAge: '365d',
      decorateReply: false,
      preCompressed: true,
    })
    app.get('/favicon.svg', async (_request, reply) =>
      reply.type('image/svg+xml').send(await readFile(join(webDir, 'favicon.svg'))),
    )

    const page = await readFile(join(webDir, 'studio.html'))
    for (const url of ['/studio', '/studio/*']) {
      app.get(url, async (_request, reply) =>
        reply.type('text/html; charset=utf-8').header('cache-control', 'no-cache').send(page),
      )
    }
    app.get('/', async (_request, reply) => reply.redirect('/studio/'))
  }

/** The addresses of what the public pages load, out of the build's manifest. */
export async function readSiteAssets(webDir: string): Promise<SiteAssets> {
  const manifest = JSON.parse(await readFile(join(webDir, '.vite/manifest.json'), 'utf8')) as Record<
    string,
    { file: string; css?: string[] }
  >
  const entry = manifest['site/browser/site.ts']!
  const font = (file: string): string => `/${manifest[`node_modules/${file}.woff2`]!.file}`
  return {
    script: `/${entry.file}`,
    styles: (entry.css ?? []).map(file => `/${file}`),
    fonts: {
      literata: font('@fontsource/literata/files/literata-latin-400-normal'),
      'public-sans': font('@fontsource-variable/public-sans/files/public-sans-latin-wght-normal'),
    },
  }
}
