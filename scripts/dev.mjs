import { spawn } from 'node:child_process'
import { watch } from 'node:fs'
import { join } from 'node:path'
import { startDatabase } from './setup/database.mjs'
import { needBuild } from './setup/build.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { main } from './setup/halt.mjs'
import { claim, Parts } from './setup/house.mjs'
import { needPackages } from './setup/packages.mjs'
import { root, runFolder } from './setup/place.mjs'
import { runProgram, startProgram } from './setup/programs.mjs'

const [studioPort, serverPort] = [4315, 4316]
const address = `http://127.0.0.1:${studioPort}`
const settleMs = 300

/** The studio with hot reload, and the server, built and started again whenever its code changes; with the demo's data. */
await main(async () => {
  const folder = join(runFolder, 'dev')
  await needRoom(folder)
  needPrograms(['mariadbd', 'mariadb-install-db', 'ffmpeg', 'ffprobe', 'espeak-ng'])
  needPackages()
  await needBuild()
  const release = claim(folder, address)
  const parts = new Parts()
  parts.stopOnSignals(release)
  try {
    const { url } = parts.add(await startDatabase(folder, { log: console.log }))
    const environment = {
      DATABASE_URL: url,
      MEDIA_DIR: join(folder, 'media'),
      PORT: String(serverPort),
      PUBLIC_URL: address,
    }
    await runProgram('dist/server/demo.js', { ...environment, FILL_DEMO: 'yes' })
    let server = startProgram('dist/server/main.js', environment)
    parts.add({ stop: () => server.stop(), process: { once: () => undefined } })
    await server.listening
    parts.add(vite('build', '--watch', '--config', 'vite.server.config.ts', '--logLevel', 'warn'))
    parts.add(vite('--config', 'vite.config.ts', '--port', String(studioPort), '--strictPort', '--host', '127.0.0.1'))
    let timer
    watch(join(root, 'dist/server'), () => {
      clearTimeout(timer)
      timer = setTimeout(async () => {
        await server.stop()
        server = startProgram('dist/server/main.js', environment)
        server.listening.then(
          () => console.log('The server has its new code.'),
          () => console.log('The server does not start; it is tried again at the next change.'),
        )
      }, settleMs)
    })
    console.log(
      `\n  The studio, as you change it: ${address}/studio/\n  Sign in with demo@lakeletter.example / lake-letter-demo. Ctrl-C ends it.\n`,
    )
    await parts.keepRunning()
  } finally {
    await parts.stop()
    release()
  }
})

function vite(...parameters) {
  const child = spawn(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), ...parameters], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, SERVER_ADDRESS: `http://127.0.0.1:${serverPort}` },
  })
  const ended = new Promise(resolve => child.once('close', resolve))
  return {
    process: child,
    async stop() {
      child.kill('SIGTERM')
      await ended
    },
  }
}
