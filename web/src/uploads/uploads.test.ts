import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useUploads } from './uploads'

interface Options {
  uploadUrl: string | null
  metadata: { episodeId: string }
  onProgress(sent: number): void
  onSuccess(): void
  onError(error: Error): void
  onUploadUrlAvailable(): void
}

const { lines, kept } = vi.hoisted(() => ({
  lines: [] as { options: Options; aborted: boolean; gone: boolean }[],
  kept: new Map<string, unknown>(),
}))

/** Stands for the line to the server, which the tus library keeps. */
vi.mock('tus-js-client', () => ({
  DetailedError: class extends Error {},
  Upload: class {
    url: string | null
    private readonly line: (typeof lines)[number]
    constructor(_file: File, options: Options) {
      this.url = options.uploadUrl
      this.line = { options, aborted: false, gone: false }
    }
    start(): void {
      this.url ??= `/api/v1/uploads/${this.line.options.metadata.episodeId}`
      lines.push(this.line)
      this.line.options.onUploadUrlAvailable()
    }
    async abort(alsoOnServer = false): Promise<void> {
      this.line.aborted = true
      this.line.gone = alsoOnServer
    }
  },
}))
vi.mock('idb-keyval', () => ({
  set: async (key: string, value: unknown) => void kept.set(key, value),
  del: async (key: string) => void kept.delete(key),
  entries: async () => [...kept],
}))

let upload: { state: string; refusal: unknown } | null
beforeEach(() => {
  lines.length = 0
  kept.clear()
  upload = null
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('fetch', async () => Response.json({ upload }))
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

const file = (name: string, bytes = 1000): File => new File([new Uint8Array(bytes)], name)
const underway = (): string[] =>
  lines.filter(({ aborted }) => !aborted).map(({ options }) => options.metadata.episodeId)
const lineOf = (id: string) => lines.findLast(({ options }) => options.metadata.episodeId === id)!

async function begun(...ids: string[]) {
  const uploads = useUploads()
  for (const id of ids) await uploads.begin(id, file(`${id}.mp3`))
  const states = () => Object.fromEntries(uploads.all.map(({ episodeId, state }) => [episodeId, state]))
  return { uploads, states }
}

describe('a line of uploads', () => {
  it('sends two at a time, in the order they came, and moves on as each is sent', async () => {
    const { states } = await begun('a', 'b', 'c', 'd')
    expect(underway()).toEqual(['a', 'b'])
    expect(states()).toEqual({ a: 'sending', b: 'sending', c: 'queued', d: 'queued' })
    lineOf('b').options.onSuccess()
    await expect.poll(underway).toEqual(['a', 'b', 'c'])
    expect(states()).toMatchObject({ d: 'queued' })
    await expect.poll(states, { timeout: 3000 }).toMatchObject({ b: 'here' })
  })

  it('gives the place of one that is paused to the next, and goes on with it where it stopped', async () => {
    const { uploads, states } = await begun('a', 'b', 'c')
    lineOf('a').options.onProgress(400)
    await uploads.pause('a')
    await expect.poll(underway).toEqual(['b', 'c'])
    expect(states()).toMatchObject({ a: 'paused' })
    expect(uploads.sendings.a!.sentBytes).toBe(400)
    uploads.goOn('a')
    expect(states()).toMatchObject({ a: 'queued' })
    lineOf('c').options.onSuccess()
    await expect.poll(states).toMatchObject({ a: 'sending' })
    expect(lineOf('a').options.uploadUrl).toBe('/api/v1/uploads/a')
    expect(uploads.sendings.a!.sentBytes).toBe(400)
  })

  it('leaves out one that is paused while it waits', async () => {
    const { uploads, states } = await begun('a', 'b', 'c', 'd')
    await uploads.pause('c')
    lineOf('a').options.onSuccess()
    await expect.poll(underway).toEqual(['a', 'b', 'd'])
    expect(states()).toMatchObject({ c: 'paused' })
  })

  it('forgets one that is given up, here and on the server, and moves on', async () => {
    const { uploads, states } = await begun('a', 'b', 'c')
    await uploads.cancel('a')
    await expect.poll(underway).toEqual(['b', 'c'])
    expect(lineOf('a').gone).toBe(true)
    expect(states()).toEqual({ b: 'sending', c: 'sending' })
    expect([...kept.keys()]).not.toContain('lake-letter:upload:a')
  })

  it('says why one was refused, moves on, and tries it again when asked', async () => {
    const { uploads, states } = await begun('a', 'b', 'c')
    lineOf('a').options.onError(new Error('gone'))
    await expect.poll(underway).toEqual(['a', 'b', 'c'])
    expect(uploads.sendings.a).toMatchObject({ state: 'refused', problem: { title: 'The upload could not go on' } })
    lineOf('b').options.onSuccess()
    await uploads.retry('a')
    await expect.poll(states).toMatchObject({ a: 'sending' })
  })

  it('tells what the server refused after it was sent', async () => {
    const { uploads } = await begun('a')
    upload = { state: 'refused', refusal: { title: 'This is a text file, not sound', detail: '', todo: '' } }
    lineOf('a').options.onSuccess()
    await expect
      .poll(() => uploads.sendings.a, { timeout: 3000 })
      .toMatchObject({ state: 'refused', problem: { title: 'This is a text file, not sound' } })
  })

  it('goes on over a reload with every file of it, where each stopped', async () => {
    await begun('a', 'b', 'c')
    setActivePinia(createPinia())
    lines.length = 0
    const uploads = useUploads()
    await uploads.resumeAll()
    expect(uploads.all.map(({ fileName, state }) => `${fileName} ${state}`)).toEqual([
      'a.mp3 sending',
      'b.mp3 sending',
      'c.mp3 queued',
    ])
    expect(lineOf('a').options.uploadUrl).toBe('/api/v1/uploads/a')
    expect(kept.get('lake-letter:upload:c')).toMatchObject({ uploadUrl: null })
  })

  it('refuses an empty file before it is sent', async () => {
    const uploads = useUploads()
    await uploads.begin('a', file('empty.mp3', 0))
    expect(uploads.sendings.a).toMatchObject({ state: 'refused', problem: { title: 'The file is empty' } })
    expect(lines).toEqual([])
  })
})
