import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { Halt, main } from './setup/halt.mjs'
import { trickyMoments } from './setup/moment.mjs'
import { root } from './setup/place.mjs'

const lastLine = /(\d+) passed, (\d+) failed\s*$/

/** Runs server tests and journeys, or the tests that are named, at each of the moments where tests that lean on today fail; ends with a line for each. */
await main(async () => {
  const paths = process.argv.slice(2)
  const lines = []
  for (const { name, at } of trickyMoments(new Date())) {
    const now = at.toISOString()
    console.log(`\n=== ${name}: ${now}`)
    const said = await run(paths.length > 0 ? paths : ['server/', 'demo/', 'e2e/'], now)
    const [, passed = '0', failed = '1'] = lastLine.exec(said) ?? []
    lines.push({ name, now, passed: Number(passed), failed: Number(failed) })
  }
  console.log()
  for (const { name, now, passed, failed } of lines)
    console.log(`${name.padEnd(20)} ${now}  ${passed} passed, ${failed} failed`)
  if (lines.some(({ failed }) => failed > 0)) throw new Halt('Not at every moment.')
})

function run(paths, now) {
  return new Promise(resolve => {
    const child = spawn(process.execPath, [join(root, 'scripts/test.mjs'), ...paths], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, NOW: now },
    })
    let said = ''
    child.stdout.on('data', piece => {
      said = (said + piece).slice(-2_000)
      process.stdout.write(piece)
    })
    child.once('close', () => resolve(said))
  })
}
