import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { start } from '@server/start'
import { readConfiguration } from '@server/configuration'
import { compare } from './load'

const [port, serverPort] = [4393, 4394]

/** Audio by nginx with the configuration that ships, which asks the server for each request, against the same nginx alone. */
export async function benchProxy(sound: string, mediaFolder: string): Promise<void> {
  const house = await start(
    readConfiguration({
      ...process.env,
      PORT: String(serverPort),
      MEDIA_DIR: mediaFolder,
      PUBLIC_URL: 'http://127.0.0.1:4310',
      MEDIA_ACCEL: '/stored/',
      TRUST_PROXY: '1',
    }),
  )
  const folder = mkdtempSync(join(tmpdir(), 'lake-letter-proxy-'))
  const files = join(resolve(mediaFolder), 'files')
  const shipped = readFileSync('deploy/nginx.conf', 'utf8')
    .replace('127.0.0.1:4310', `127.0.0.1:${serverPort}`)
    .replace(
      'listen 80;',
      `listen 127.0.0.1:${port};\n location /alone/ { alias ${files}/; sendfile on; tcp_nopush on; open_file_cache max=1000; }`,
    )
    .replace('/srv/lake-letter/media', resolve(mediaFolder))
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
    .map(name => `${name}_temp_path ${folder}/${name};`)
    .join(' ')
  writeFileSync(
    join(folder, 'nginx.conf'),
    `user root; pid ${folder}/pid; error_log ${folder}/error.log; events {} http { access_log off; ${temporary}\n${shipped}\n}`,
  )
  const nginx = spawn('/usr/sbin/nginx', ['-p', folder, '-c', join(folder, 'nginx.conf'), '-g', 'daemon off;'], {
    stdio: 'inherit',
  })
  await wait(1000)
  const begin = sound.split('/').at(-1)!.split('.')[0]!
  const name = readdirSync(join(files, begin.slice(0, 2))).find(file => file.startsWith(begin))!
  const headers = { range: 'bytes=65536-131071' }
  const base = `http://127.0.0.1:${port}`
  await compare(
    'audio by nginx that asks the server, ranges of 65536 bytes, requests against nginx alone',
    { url: base + sound, headers },
    { url: `${base}/alone/${begin.slice(0, 2)}/${name}`, headers },
  )
  nginx.kill('SIGQUIT')
  await house.stop()
  rmSync(folder, { recursive: true, force: true })
}
