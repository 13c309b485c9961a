import type { Plugin, UserConfig } from 'vite'

/** While the studio is worked on: every address of it answers with its page, and what is not the studio's is asked of the server. */
export const studioAddresses = (): Plugin => ({
  name: 'studio-addresses',
  configureServer(server) {
    server.middlewares.use((request, _response, next) => {
      if (/^\/studio(\/|$)/.test(request.url ?? '')) request.url = '/studio.html'
      next()
    })
  },
})

const own = ['@', 'studio', 'web/', 'core/', 'contract/', 'theme/', 'node_modules/', 'favicon']

export const devServer: UserConfig['server'] = {
  proxy: process.env.SERVER_ADDRESS
    ? { [`^/(?!${own.join('|')}).*`]: { target: process.env.SERVER_ADDRESS, ws: false } }
    : {},
}
