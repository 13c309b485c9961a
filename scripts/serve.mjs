import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { startDatabase } from './setup/database.mjs'
import { needBuild } from './setup/build.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { Halt } from './setup/halt.mjs'
import { claim, Parts } from './setup/house.mjs'
import { momentOf } from './setup/moment.mjs'
import { needPackages } from './setup/packages.mjs'
import { runFolder } from './setup/place.mjs'
import { needPort } from './setup/ports.mjs'
import { runProgram, startProgram } from './setup/programs.mjs'

const portFrom = (variable, usual) => {
  const port = Number(process.env[variable] || usual)
  if (Number.isInteger(port) && port > 0 && port < 65536) return port
  throw new Halt(`${variable}=${process.env[variable]} is no port; take a number from 1 to 65535.`)
}

/** Sets up, starts and keeps running: the database (where DATABASE_URL names none), the server, and for the demo its data and the stand-ins. */
export async function serve({ name, demo = false, fresh = false }) {
  const command = `npm run ${name}`
  const moment = momentOf(process.env.NOW)
  const folder = join(runFolder, name)
  const port = portFrom('PORT', 4310)
  const listenerPort = portFrom('LISTENER_PORT', 4311)
  const transcriptionPort = portFrom('TRANSCRIPTION_PORT', 4312)
  const outboxPort = portFrom('OUTBOX_PORT', 4313)
  const smtpPort = portFrom('OUTBOX_SMTP_PORT', 4314)
  const directoriesPort = portFrom('DIRECTORIES_PORT', 4317)
  const hubPort = portFrom('HUB_PORT', 4318)
  const address = `http://127.0.0.1:${port}`
  await needRoom(folder)
  needPrograms([
    ...(process.env.DATABASE_URL ? [] : ['mariadbd', 'mariadb-install-db']),
    'ffmpeg',
    'ffprobe',
    'espeak-ng',
  ])
  needPackages()
  await needBuild()
  const release = claim(folder, address)
  const parts = new Parts()
  parts.stopOnSignals(release)
  try {
    await needPort(port, 'PORT', command)
    if (demo) await needPort(listenerPort, 'LISTENER_PORT', command)
    if (demo) await needPort(transcriptionPort, 'TRANSCRIPTION_PORT', command)
    if (demo) await needPort(outboxPort, 'OUTBOX_PORT', command)
    if (demo) await needPort(smtpPort, 'OUTBOX_SMTP_PORT', command)
    if (demo) await needPort(directoriesPort, 'DIRECTORIES_PORT', command)
    if (demo) await needPort(hubPort, 'HUB_PORT', command)
    if (fresh)
      for (const part of ['mariadb', 'media', 'directories.json'])
        await rm(join(folder, part), { recursive: true, force: true })
    const environment = { PORT: String(port), MEDIA_DIR: join(folder, 'media'), DATABASE_URL: process.env.DATABASE_URL }
    environment.DATABASE_URL ||= parts.add(await startDatabase(folder, { log: console.log })).url
    if (demo) {
      environment.LISTENER_URL = `http://127.0.0.1:${listenerPort}`
      environment.TRANSCRIPTION_URL = `http://127.0.0.1:${transcriptionPort}`
      environment.DIRECTORIES_URL = `http://127.0.0.1:${directoriesPort}`
      environment.HUB_URL = `http://127.0.0.1:${hubPort}`
      environment.OUTBOX_URL = `http://127.0.0.1:${outboxPort}`
      environment.SMTP_URL = `smtp://127.0.0.1:${smtpPort}`
      environment.MOVABLE_CLOCK = 'yes'
      const offset = moment ? { CLOCK_OFFSET_MS: String(+moment - Date.now()) } : {}
      await runProgram('dist/server/demo.js', { ...environment, ...offset, FILL_DEMO: 'yes' })
      const time = { CLOCK_URL: `${address}/api/v1/clock` }
      await parts.addStandIn(() =>
        startProgram('dist/server/listener.js', { ...time, LISTENER_PORT: String(listenerPort) }),
      ).listening
      await parts.addStandIn(() =>
        startProgram('dist/server/transcription.js', { ...time, TRANSCRIPTION_PORT: String(transcriptionPort) }),
      ).listening
      const outbox = { ...time, OUTBOX_PORT: String(outboxPort), OUTBOX_SMTP_PORT: String(smtpPort) }
      await parts.addStandIn(() => startProgram('dist/server/outbox.js', outbox)).listening
      await parts.addStandIn(() => startProgram('dist/server/hub.js', { ...time, HUB_PORT: String(hubPort) })).listening
      const directories = {
        ...time,
        DIRECTORIES_PORT: String(directoriesPort),
        DIRECTORIES_FILE: join(folder, 'directories.json'),
        SMTP_URL: environment.SMTP_URL,
      }
      await parts.addStandIn(() => startProgram('dist/server/directories.js', directories)).listening
    }
    await parts.add(startProgram('dist/server/main.js', environment)).listening
    console.log(greeting({ address, demo, listenerPort, transcriptionPort, outboxPort, directoriesPort }))
    await parts.keepRunning()
  } finally {
    await parts.stop()
    release()
  }
}

const greeting = ({ address, demo, listenerPort, transcriptionPort, outboxPort, directoriesPort }) =>
  [
    '',
    `  Lake Letter is open at ${address}`,
    ...(demo
      ? [
          '  Sign in with         demo@lakeletter.example / lake-letter-demo',
          `  The stand-in listener http://127.0.0.1:${listenerPort}`,
          `  The stand-in copyist  http://127.0.0.1:${transcriptionPort}/openapi.json`,
          `  The stand-in outbox   http://127.0.0.1:${outboxPort}`,
          `  Stand-in directories  http://127.0.0.1:${directoriesPort}/harbour-list`,
        ]
      : ['  The first visit makes the first account.']),
    '  Ctrl-C ends it.',
    '',
  ].join('\n')
