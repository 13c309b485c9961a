import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-programs-'))
afterAll(() => rmSync(folder, { recursive: true }))
const isRunning = (pid: number): boolean => {
  try {
    return process.kill(pid, 0)
  } catch {
    return false
  }
}

/** A script that runs the program, until that ends; answers the script and what the program says first. */
async function running(program: string) {
  const entry = join(folder, `${Math.random()}.mjs`)
  writeFileSync(entry, program)
  const programs = new URL('programs.mjs', import.meta.url)
  const script = spawn(
    process.execPath,
    ['--input-type=module', '-e', `import { runProgram } from '${programs}'; await runProgram('${entry}', {})`],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  const [said] = (await once(script.stdout, 'data')) as [Buffer]
  return { script, said: String(said) }
}

it.each(['SIGKILL', 'SIGTERM'] as const)('a program that is run ends with a script that gets %s', async signal => {
  const { script, said } = await running('setInterval(() => {}, 1000); console.log(process.pid)')
  const pid = Number(said)
  expect(isRunning(pid)).toBe(true)
  script.kill(signal)
  await expect.poll(() => isRunning(pid)).toBe(false)
})

it('a database ends with the script that started it, however that ends', async () => {
  const database = new URL('database.mjs', import.meta.url)
  const own = mkdtempSync(join(folder, 'database-'))
  const script = spawn(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { startDatabase } from '${database}'; console.log((await startDatabase('${own}', { isThrowAway: true })).process.pid); setInterval(() => {}, 1000)`,
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  const [said] = (await once(script.stdout, 'data')) as [Buffer]
  const pid = Number(said)
  expect(isRunning(pid)).toBe(true)
  script.kill('SIGKILL')
  await expect.poll(() => isRunning(pid)).toBe(false)
})

it('a program that is run to its end ends by itself, and its threads work', async () => {
  writeFileSync(
    join(folder, 'thread.mjs'),
    `import { parentPort } from 'node:worker_threads'; parentPort.postMessage('done')`,
  )
  const { script, said } = await running(`
    import { Worker } from 'node:worker_threads'
    new Worker(new URL('thread.mjs', import.meta.url)).once('message', console.log)`)
  const [code] = (await once(script, 'close')) as [number]
  expect([said.trim(), code]).toEqual(['done', 0])
})
