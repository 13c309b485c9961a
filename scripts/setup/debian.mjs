import { spawnSync } from 'node:child_process'
import { accessSync, constants } from 'node:fs'
import { delimiter, join } from 'node:path'
import { Halt } from './halt.mjs'

/** The Debian package that brings each program. */
const packageOf = {
  mariadbd: 'mariadb-server',
  'mariadb-install-db': 'mariadb-server',
  ffmpeg: 'ffmpeg',
  ffprobe: 'ffmpeg',
  // Chromium without a window of its own: the same pages, an eighth less work.
  'chromium-headless-shell': 'chromium-headless-shell',
  xmllint: 'libxml2-utils',
  'espeak-ng': 'espeak-ng',
  flite: 'flite',
  nginx: 'nginx-light',
  wrk: 'wrk',
  ab: 'apache2-utils',
}

const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin', '/sbin']

/** The path of a program, also where an ordinary account's PATH leaves out the system folders; null where it is missing. */
export function findProgram(name) {
  for (const folder of folders) {
    try {
      accessSync(join(folder, name), constants.X_OK)
      return join(folder, name)
    } catch {
      /* not there */
    }
  }
  return null
}

/** Installs the Debian packages of those programs that are missing, or names the one command that does. */
export function needPrograms(names) {
  const missing = [...new Set(names.filter(name => !findProgram(name)).map(name => packageOf[name]))]
  if (missing.length === 0) return
  const byHand = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (process.getuid() !== 0)
    throw new Halt(`Some programs are missing and need an administrator to install them: sudo sh -c '${byHand}'`)
  if (!findProgram('apt-get'))
    throw new Halt(
      `These Debian packages are missing, and there is no apt-get to install them with: ${missing.join(', ')}.`,
    )
  console.log(`Installing from Debian: ${missing.join(', ')} …`)
  const quiet = { stdio: ['ignore', 'ignore', 'pipe'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  spawnSync('apt-get', ['update', '-qq'], quiet)
  const { status, stderr } = spawnSync(
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', ...missing],
    quiet,
  )
  if (status !== 0)
    throw new Halt(
      `Debian could not install ${missing.join(', ')}: ${lastLine(stderr)} Mend that, or install by hand: ${byHand}`,
    )
}

const lastLine = output => String(output).trim().split('\n').at(-1) ?? ''
