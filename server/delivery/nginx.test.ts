import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findProgram } from '../../scripts/setup/debian.mjs'
import { freePort } from '../../scripts/setup/ports.mjs'
import { type House, openHouse, sounds } from '../testing/house'

const whole = readFileSync(join(sounds, 'sf-5.mp3'))
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-nginx-'))
let house: House
let nginx: ChildProcess
let base: string
let path: string
let episodeId: string

/** The configuration that ships, with the ports and the folder of this test. */
function configuration(port: number, serverPort: number): string {
  const shipped = readFileSync(join(import.meta.dirname, '../../deploy/nginx.conf'), 'utf8')
  const ours = shipped
    .replace('127.0.0.1:4310', `127.0.0.1:${serverPort}`)
    .replace('listen 80;', `listen 127.0.0.1:${port};`)
    .replace('/srv/lake-letter/media', house.mediaFolder)
  // Around it stands what Debian's own nginx.conf brings: the events, the types, logs and temporary files.
  return `user root; pid ${folder}/nginx.pid; error_log ${folder}/error.log; events { worker_connections 256; }
    http { default_type application/octet-stream; access_log off; ${['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(name => `${name}_temp_path ${folder}/${name};`).join(' ')}\n${ours}\n}`
}

beforeAll(async () => {
  house = await openHouse({ MEDIA_ACCEL: '/stored/', TRUST_PROXY: '1' })
  const [port, serverPort] = [await freePort(), await freePort()]
  await house.app.listen({ port: serverPort, host: '127.0.0.1' })
  mkdirSync(join(folder, 'logs'))
  writeFileSync(join(folder, 'nginx.conf'), configuration(port, serverPort))
  nginx = spawn(findProgram('nginx')!, ['-p', folder, '-c', join(folder, 'nginx.conf'), '-g', 'daemon off;'], {
    stdio: 'inherit',
  })
  await listening(port)
  base = `http://127.0.0.1:${port}`
  const show = await house.makeShow('slow-ferry')
  const { id, version } = await house.makeReady(show.id, 'The last boat')
  const released = (await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).json()
  episodeId = id
  path = new URL(released.enclosureAddress).pathname
})
afterAll(async () => {
  nginx.kill('SIGQUIT')
  await house.close()
  rmSync(folder, { recursive: true, force: true })
})

async function listening(port: number): Promise<void> {
  for (let n = 0; n < 100; n++) {
    const isUp = await new Promise<boolean>(resolve => {
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

describe('behind Debian’s nginx, with the configuration that ships', () => {
  it('a file comes whole, with its type, kept for ever, for players of other sites', async () => {
    const answer = await fetch(base + path)
    expect(Buffer.from(await answer.arrayBuffer()).equals(whole)).toBe(true)
    expect(Object.fromEntries(answer.headers)).toMatchObject({
      'content-type': 'audio/mpeg',
      'content-length': String(whole.length),
      'accept-ranges': 'bytes',
      'cache-control': 'public, max-age=31536000, immutable',
      'access-control-allow-origin': '*',
      'cross-origin-resource-policy': 'cross-origin',
      'x-content-type-options': 'nosniff',
    })
    expect(answer.headers.has('x-accel-redirect')).toBe(false)
  })

  // RFC 9110 sections 14.2, 15.5.17 and 13.1.5.
  it('a range comes with just those bytes, one behind the end with the length, and If-Range is looked at', async () => {
    const part = await fetch(base + path, { headers: { range: 'bytes=1000-1999' } })
    expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 1000-1999/${whole.length}`])
    expect(Buffer.from(await part.arrayBuffer()).equals(whole.subarray(1000, 2000))).toBe(true)
    const behind = await fetch(base + path, { headers: { range: `bytes=${whole.length}-` } })
    expect([behind.status, behind.headers.get('content-range')]).toEqual([416, `bytes */${whole.length}`])
    const etag = part.headers.get('etag')!
    const status = async (ifRange: string) =>
      (await fetch(base + path, { headers: { range: 'bytes=0-9', 'if-range': ifRange } })).status
    expect([await status(etag), await status('"another"')]).toEqual([206, 200])
    expect((await fetch(base + path, { headers: { 'if-none-match': etag } })).status).toBe(304)
  })

  it('HEAD tells the length and sends nothing', async () => {
    const answer = await fetch(base + path, { method: 'HEAD' })
    expect([answer.status, answer.headers.get('content-length'), (await answer.arrayBuffer()).byteLength]).toEqual([
      200,
      String(whole.length),
      0,
    ])
  })

  it('nobody gets at the stored files by their own address, and a retired episode’s file is not sent', async () => {
    const sha256 = (await house.get(episodeId)).sound.source!.sha256
    expect((await fetch(`${base}/stored/${sha256.slice(0, 2)}/${sha256}`)).status).toBe(404)
    const { version } = await house.get(episodeId)
    await house.call('POST', `/episodes/${episodeId}/retire`, { version })
    expect((await fetch(base + path)).status).toBe(404)
    await house.call('POST', `/episodes/${episodeId}/restore`, { version: version + 1 })
    expect((await fetch(base + path)).status).toBe(200)
  })

  it('feeds, pages and the news come through', async () => {
    expect((await fetch(`${base}/slow-ferry/feed.xml`)).headers.get('content-type')).toBe(
      'application/rss+xml; charset=utf-8',
    )
    const stop = new AbortController()
    const news = await fetch(`${base}/api/v1/events`, { headers: { cookie: house.cookie }, signal: stop.signal })
    const reader = news.body!.pipeThrough(new TextDecoderStream()).getReader()
    let heard = ''
    while (!heard.includes('event: all')) heard += (await reader.read()).value ?? ''
    stop.abort()
  })
})
