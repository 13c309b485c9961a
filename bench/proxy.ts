import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { start } from '@server/app/start'
import { readConfiguration } from '@server/platform/configuration'
import { startNginx } from '../scripts/setup/nginx.mjs'
import { compare } from './load'

const [port, serverPort] = [4393, 4394]

/** Audio by nginx with the configuration that ships, which asks the server whether and which, against the same nginx alone. */
export async function benchProxy(sound: string, mediaFolder: string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'lake-letter-proxy-'))
  const house = await start(
    readConfiguration({
      ...process.env,
      PORT: String(serverPort),
      MEDIA_DIR: mediaFolder,
      PUBLIC_URL: 'http://127.0.0.1:4310',
      MEDIA_ACCEL: '/stored/',
      MEDIA_ACCEL_LOG: join(folder, 'lake-letter.log'),
      TRUST_PROXY: '1',
    }),
  )
  const files = join(resolve(mediaFolder), 'files')
  const alone = `location /alone/ { alias ${files}/; sendfile on; tcp_nopush on; open_file_cache max=1000; }`
  const nginx = await startNginx(folder, { port, serverPort, mediaDir: mediaFolder, also: alone })
  const begin = sound.split('/').at(-1)!.split('.')[0]!
  const name = readdirSync(join(files, begin.slice(0, 2))).find(file => file.startsWith(begin))!
  const headers = { range: 'bytes=65536-131071' }
  const base = `http://127.0.0.1:${port}`
  await compare(
    'audio by nginx that asks the server, ranges of 65536 bytes, requests against nginx alone',
    { url: base + sound, headers },
    { url: `${base}/alone/${begin.slice(0, 2)}/${name}`, headers },
  )
  nginx.stop()
  await house.stop()
  rmSync(folder, { recursive: true, force: true })
}
