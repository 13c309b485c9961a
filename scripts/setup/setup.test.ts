import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { findProgram } from './debian.mjs'
import { claim } from './house.mjs'
import { freePort, needPort } from './ports.mjs'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-setup-'))
afterAll(() => rmSync(folder, { recursive: true }))

describe('a port that is taken', () => {
  it('stops the start with one sentence that names another', async () => {
    const port = await freePort()
    const server = createServer().listen(port, '127.0.0.1')
    await expect(needPort(port, 'PORT', 'npm run demo')).rejects.toThrow(
      `Port ${port} is taken by another program; stop that, or choose another port: PORT=${port + 10} npm run demo`,
    )
    await new Promise(resolve => server.close(resolve))
    await needPort(port, 'PORT', 'npm run demo')
  })
})

it('a free port is none that an outgoing connection may be given before somebody listens on it', async () => {
  const [firstOutgoing] = readFileSync('/proc/sys/net/ipv4/ip_local_port_range', 'utf8').split(/\s/).map(Number)
  const ports = await Promise.all(Array.from({ length: 20 }, freePort))
  expect(new Set(ports).size).toBe(20)
  expect(Math.max(...ports)).toBeLessThan(firstOutgoing!)
})

describe('a folder that is in use', () => {
  const path = join(folder, 'running.json')

  it('is refused while the process that holds it lives', async () => {
    const script = join(folder, 'holder.mjs')
    writeFileSync(script, 'setInterval(() => {}, 1000)')
    const holder = spawn(process.execPath, ['holder.mjs'], { cwd: folder, stdio: 'ignore' })
    writeFileSync(path, JSON.stringify({ pid: holder.pid, script: 'holder.mjs', address: 'http://127.0.0.1:4310' }))
    await expect.poll(() => readFileSync(`/proc/${holder.pid}/cmdline`, 'utf8')).toContain('holder.mjs')
    expect(() => claim(folder, 'http://127.0.0.1:4320')).toThrow(
      'runs from this folder already, at http://127.0.0.1:4310',
    )
    holder.kill('SIGKILL')
    await new Promise(resolve => holder.once('close', resolve))
    claim(folder, 'http://127.0.0.1:4320')()
  })

  it('is free when its holder is dead or its number belongs to another program by now', () => {
    writeFileSync(path, JSON.stringify({ pid: 1, script: 'demo.mjs', address: 'x' }))
    const release = claim(folder, 'http://127.0.0.1:4310')
    expect(JSON.parse(readFileSync(path, 'utf8'))).toMatchObject({ pid: process.pid, address: 'http://127.0.0.1:4310' })
    release()
    expect(() => readFileSync(path)).toThrow('ENOENT')
  })
})

it('a program that is missing is told from one that is there', () => {
  expect(findProgram('sh')).toMatch(/\/sh$/)
  expect(findProgram('no-such-program')).toBeNull()
})
