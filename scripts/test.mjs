import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join, relative } from 'node:path'
import { needBuild } from './setup/build.mjs'
import { startDatabase } from './setup/database.mjs'
import { needPrograms } from './setup/debian.mjs'
import { needRoom } from './setup/disk.mjs'
import { main } from './setup/halt.mjs'
import { Parts } from './setup/house.mjs'
import { commitNumber, momentOf } from './setup/moment.mjs'
import { needPackages } from './setup/packages.mjs'
import { root, runFolder } from './setup/place.mjs'

/**
 * Sets up, then runs types, lint, unit tests, server tests and journeys; the last line counts them all. With paths, or parts
 * of them, as parameters: the tests in those files only. Server tests and journeys begin at the moment that NOW names, where it does.
 */
const folder = join(runFolder, 'test')
/** What the windows of journeys that failed showed, by the journeys themselves. */
const shown = join(folder, 'shown.txt')
let passed = 0
/** What failed, with the first line of why: said once more at the end, where it is found without looking for it. */
const failures = []
const paths = process.argv.slice(2)
const areChosen = paths.length > 0
/** What is at work; nothing of it outlives this script. */
const running = new Set()
process.once('exit', () => {
  for (const child of running) child.kill()
})
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
    running.add(child)
    child.once('close', code => {
      running.delete(child)
      resolve(code === 0)
    })
  })
}

/** What generated tests begin from: the same for a commit wherever it is tested, so that what fails there fails here. */
const seed = () => ({ SEED: String(process.env.SEED ?? commitNumber() ?? Date.now()) })

const firstLine = (message = '') => message.split('\n', 1)[0]

const count = (name, ok) => {
  if (ok) passed++
  else failures.push(name)
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
    { ...seed(), ...environment },
  )
  const known = failures.length
  try {
    const { numPassedTests, testResults } = JSON.parse(readFileSync(report, 'utf8'))
    passed += numPassedTests
    for (const { name, message, assertionResults } of testResults) {
      const file = relative(root, name)
      const failed = assertionResults.filter(({ status }) => status === 'failed')
      // A file that cannot be read, or whose set-up fails, has words of its own.
      if (message && failed.length === 0) failures.push(`${file}: ${firstLine(message)}`)
      for (const { fullName, failureMessages } of failed)
        failures.push(`${file}, “${fullName.trim()}”: ${firstLine(failureMessages[0])}`)
    }
    if (!ok && failures.length === known) failures.push(`${project}: ended with an error`)
  } catch {
    // Where paths are chosen, a part may hold none of them.
    if (!ok || !areChosen) count(project, false)
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
    'chromium-headless-shell',
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
      await Promise.all([
        run('types', 'vue-tsc/bin/vue-tsc.js', [
          '--noEmit',
          '--incremental',
          '--tsBuildInfoFile',
          join(folder, 'types'),
        ]).then(ok => count('types', ok)),
        run('lint', 'oxlint/bin/oxlint', ['--type-aware'])
          .then(async ok => (await run('lint', 'eslint/bin/eslint.js', ['.', '--max-warnings', '0'])) && ok)
          .then(ok => count('lint', ok)),
      ])
    await tests('unit')
    const database = parts.add(await startDatabase(folder, { isThrowAway: true }))
    if (moment) console.log(`\nIt is ${moment.toISOString()}.`)
    await tests('server', { DATABASE_URL: database.url, ...clock() })
    rmSync(shown, { force: true })
    await tests('journeys', { ...clock(), SHOWN_AT_FAILURE: shown })
  } finally {
    await parts.stop()
  }
  if (existsSync(shown)) console.log(`\nShown at a failure:\n${readFileSync(shown, 'utf8')}`)
  if (failures.length > 0) console.log(`\nFailed:\n${failures.map(each => `- ${each}`).join('\n')}`)
  console.log(`\n${passed} passed, ${failures.length} failed`)
  process.exitCode = failures.length === 0 ? 0 : 1
})
