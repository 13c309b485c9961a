import { spawn } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { join, resolve } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { findProgram } from './debian.mjs'

/**
 * Starts Debian's nginx with the configuration that ships, on ports and folders of its own; from the project's folder.
 * @param {string} folder where its logs and temporary files go
 * @param {{ port: number, serverPort: number, mediaDir: string, also?: string }} house `also` are lines for its server block
 */
export async function startNginx(folder, { port, serverPort, mediaDir, also = '' }) {
  mkdirSync(join(folder, 'logs'), { recursive: true })
  const logPath = join(folder, 'lake-letter.log')
  const shipped = readFileSync('deploy/nginx.conf', 'utf8')
    .replaceAll('127.0.0.1:4310', `127.0.0.1:${serverPort}`)
    .replaceAll('listen 80;', `listen 127.0.0.1:${port};\n${also}`)
    .replaceAll('/srv/lake-letter/media', resolve(mediaDir))
    .replaceAll('/var/lib/nginx/lake-letter', join(folder, 'cache'))
    .replaceAll('/var/log/nginx/lake-letter.log', logPath)
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
    .map(name => `${name}_temp_path ${folder}/${name};`)
    .join(' ')
  // Around it stands what Debian's own nginx.conf brings: the events, the types, logs and temporary files.
  writeFileSync(
    join(folder, 'nginx.conf'),
    `user root; pid ${folder}/nginx.pid; error_log ${folder}/error.log; events { worker_connections 256; }
    http { default_type application/octet-stream; access_log off; ${temporary}\n${shipped}\n}`,
  )
  const nginx = spawn(findProgram('nginx'), ['-p', folder, '-c', join(folder, 'nginx.conf'), '-g', 'daemon off;'], {
    stdio: 'inherit',
  })
  await listening(port)
  return {
    logPath,
    /** Has it close its log and begin it anew, as logrotate does. */
    reopenLogs: () => nginx.kill('SIGUSR1'),
    stop: () => nginx.kill('SIGQUIT'),
  }
}

async function listening(port) {
  for (let n = 0; n < 100; n++) {
    const isUp = await new Promise(resolve => {
      const socket = connect(port, '127.0.0.1', () => {
        socket.destroy()
        resolve(true)
      }).once('error', () => resolve(false))
    })
    if (isUp) return
    await wait(50)
  }
  throw new Error('nginx does not listen.')
}
