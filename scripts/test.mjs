import { spawn } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { needBuild } from './setup/build.mjs'
import { startDatabase } from './setup/database.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { main } from './setup/halt.mjs'
import { Parts } from './setup/house.mjs'
import { momentOf } from './setup/moment.mjs'
import { needPackages } from './setup/packages.mjs'
import { root, runFolder } from './setup/place.mjs'

/**
 * Sets up, then runs types, lint, unit tests, server tests and journeys; the last line counts them all. With paths, or parts
 * of them, as parameters: the tests in those files only. Server tests and journeys begin at the moment that NOW names, where it does.
 */
const folder = join(runFolder, 'test')
const counts = { passed: 0, failed: 0 }
const paths = process.argv.slice(2)
const areChosen = paths.length > 0
let moment
/** By how much the clock of a part that begins now is ahead of the world's. */
const clock = () => (moment ? { CLOCK_OFFSET_MS: String(+moment - Date.now()) } : {})

function run(name, program, parameters, environment = {}) {
  console.log(`\n— ${name}`)
  return new Promise(resolve => {
    const child = spawn(process.execPath, [join(root, 'node_modules', program), ...parameters], {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...environment },
    })
    child.once('close', code => resolve(code === 0))
  })
}

const count = ok => {
  counts[ok ? 'passed' : 'failed']++
}

async function tests(project, environment) {
  const report = join(folder, `${project}.json`)
  rmSync(report, { force: true })
  const ok = await run(
    project,
    'vitest/vitest.mjs',
    [
      'run',
      '--project',
      project,
      ...(areChosen ? ['--passWithNoTests', ...paths] : []),
      '--reporter=default',
      '--reporter=json',
      `--outputFile=${report}`,
    ],
    environment,
  )
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(report, 'utf8'))
    counts.passed += numPassedTests
    counts.failed += numFailedTests || (ok ? 0 : Math.max(1, numFailedTestSuites))
  } catch {
    // Where paths are chosen, a part may hold none of them.
    if (!ok || !areChosen) count(false)
  }
}

await main(async () => {
  moment = momentOf(process.env.NOW)
  await needRoom(folder)
  needPrograms([
    'mariadbd',
    'mariadb-install-db',
    'ffmpeg',
    'ffprobe',
    'espeak-ng',
    'flite',
    'chromium',
    'xmllint',
    'nginx',
  ])
  needPackages()
  await needBuild()
  rmSync(join(folder, 'mariadb'), { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const parts = new Parts()
  parts.stopOnSignals()
  try {
    if (!areChosen)
      for (const ok of await Promise.all([
        run('types', 'vue-tsc/bin/vue-tsc.js', ['--noEmit']),
        run('lint', 'eslint/bin/eslint.js', ['.', '--max-warnings', '0']),
      ]))
        count(ok)
    await tests('unit')
    const database = parts.add(await startDatabase(folder, { isThrowAway: true }))
    if (moment) console.log(`\nIt is ${moment.toISOString()}.`)
    await tests('server', { DATABASE_URL: database.url, ...clock() })
    await tests('journeys', clock())
  } finally {
    await parts.stop()
  }
  console.log(`\n${counts.passed} passed, ${counts.failed} failed`)
  process.exitCode = counts.failed === 0 ? 0 : 1
})
