import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { EpisodeText } from '@core/episode/fields'
import { useDesk } from './desk'
import { keepUnsent, takeUnsent } from './outbox'

/** What the browser would keep. */
class Shelf implements Storage {
  [name: string]: unknown
  getItem = (key: string): string | null => (Object.hasOwn(this, key) ? String(this[key]) : null)
  setItem = (key: string, value: string): void => {
    this[key] = value
  }
  removeItem = (key: string): void => {
    delete this[key]
  }
  clear = (): void => undefined
  key = (): null => null
  get length(): number {
    return 0
  }
}

/** A server of one episode behind `fetch`, that keeps versions as ours does and can be away. */
class OneEpisodeServer {
  away = false
  refuse: string | null = null
  saves: Partial<EpisodeText>[] = []
  version = 1
  text: EpisodeText = { title: 'One', number: 1, season: null, kind: 'full', notes: '<p>a</p>' }

  get episode(): Episode {
    return {
      id: 'e',
      showId: 's',
      guid: 'g',
      title: this.text.title,
      number: this.text.number,
      standing: 'draft',
      releaseAt: null,
      durationMs: null,
      hasAudio: false,
      arriving: null,
      changedSinceRelease: false,
      updatedAt: '',
      version: this.version,
      text: { ...this.text },
      releaseZone: null,
      pageAddress: null,
      enclosureAddress: null,
      upload: null,
      awaitsFinish: false,
    }
  }

  fromElsewhere(change: Partial<EpisodeText>): void {
    this.text = { ...this.text, ...change }
    this.version++
  }

  fetch = async (_url: string, { method, body }: RequestInit): Promise<Response> => {
    if (this.away) throw new TypeError('Failed to fetch')
    if (method === 'GET') return Response.json(this.episode)
    const { version, text } = JSON.parse(String(body)) as { version: number; text: Partial<EpisodeText> }
    if (this.refuse)
      return Response.json(
        {
          code: 'bad-input',
          status: 422,
          title: '',
          detail: '',
          todo: '',
          faults: [{ field: 'text.title', value: '', rule: this.refuse }],
        },
        { status: 422 },
      )
    if (version !== this.version)
      return Response.json(
        { code: 'version-conflict', status: 409, title: '', detail: '', todo: '', current: this.episode },
        { status: 409 },
      )
    this.saves.push(text)
    // The server spells the notes in its own way, as cleaning does.
    this.fromElsewhere({ ...text, ...(text.notes !== undefined && { notes: text.notes.replace(/<p><\/p>/g, '') }) })
    return Response.json(this.episode)
  }
}

let server: OneEpisodeServer
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
  server = new OneEpisodeServer()
  vi.stubGlobal('fetch', server.fetch)
  vi.stubGlobal('localStorage', new Shelf())
  vi.stubGlobal('sessionStorage', new Shelf())
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function opened() {
  const desk = useDesk()
  await desk.open('e')
  return desk
}

describe('writing', () => {
  it('is on the server within 2 s, also while the keys never rest', async () => {
    const desk = await opened()
    for (let ms = 0; ms < 2000; ms += 100) {
      desk.text!.title += '.'
      await vi.advanceTimersByTimeAsync(100)
    }
    expect(server.saves.length).toBeGreaterThan(0)
    await vi.advanceTimersByTimeAsync(600)
    expect(server.text.title).toBe(`One${'.'.repeat(20)}`)
    expect(desk.saving).toBe('saved')
  })

  it('sends only what changed, and nothing that was changed back', async () => {
    const desk = await opened()
    desk.text!.number = 2
    desk.text!.title = 'Two'
    desk.text!.title = 'One'
    await vi.advanceTimersByTimeAsync(2000)
    expect(server.saves).toEqual([{ number: 2 }])
  })

  it('does not go round in circles where the server spells the notes otherwise', async () => {
    const desk = await opened()
    desk.text!.notes = '<p>b</p><p></p>'
    await vi.advanceTimersByTimeAsync(10_000)
    expect(server.saves).toHaveLength(1)
    expect(desk.text!.notes).toBe('<p>b</p><p></p>')
    expect(desk.saving).toBe('saved')
  })

  it('says so while the server is away, keeps the words in the browser, and sends them when it is back', async () => {
    const desk = await opened()
    server.away = true
    desk.text!.title = 'Written in the dark'
    await vi.advanceTimersByTimeAsync(1500)
    expect(desk.saving).toBe('waiting')
    expect(JSON.stringify(localStorage)).toContain('Written in the dark')
    server.away = false
    await vi.advanceTimersByTimeAsync(2500)
    expect(server.text.title).toBe('Written in the dark')
    expect(desk.saving).toBe('saved')
    expect(JSON.stringify(localStorage)).not.toContain('Written in the dark')
  })

  it('that the server refuses stays, with the rule beside it, until it is mended', async () => {
    const desk = await opened()
    server.refuse = 'A scheduled episode needs a title.'
    desk.text!.title = ''
    await vi.advanceTimersByTimeAsync(1000)
    expect([desk.saving, desk.faults]).toEqual(['refused', [{ field: 'title', value: '', rule: server.refuse }]])
    server.refuse = null
    desk.text!.title = 'Mended'
    await vi.advanceTimersByTimeAsync(1000)
    expect([desk.saving, desk.faults, server.text.title]).toEqual(['saved', [], 'Mended'])
  })

  it('is found again by the page that is loaded next', async () => {
    const desk = await opened()
    server.away = true
    desk.text!.title = 'Before the lid closed'
    setActivePinia(createPinia())
    server.away = false
    const next = await opened()
    expect(next.text!.title).toBe('Before the lid closed')
    await vi.advanceTimersByTimeAsync(2000)
    expect(server.text.title).toBe('Before the lid closed')
  })
})

describe('another window', () => {
  it('that changed another field is taken over, and both are on the server', async () => {
    const desk = await opened()
    server.fromElsewhere({ number: 9 })
    desk.text!.title = 'Mine'
    await vi.advanceTimersByTimeAsync(3000)
    expect(server.text).toMatchObject({ title: 'Mine', number: 9 })
    expect(desk.text).toMatchObject({ title: 'Mine', number: 9 })
    expect(desk.conflicts).toEqual([])
  })

  it.each([
    ['mine', 'Mine'],
    ['theirs', 'Theirs'],
  ] as const)('that changed the same field is a choice: %s', async (keep, title) => {
    const desk = await opened()
    server.fromElsewhere({ title: 'Theirs' })
    desk.text!.title = 'Mine'
    await vi.advanceTimersByTimeAsync(3000)
    expect(desk.conflicts).toEqual(['title'])
    expect([desk.text!.title, desk.theirs!.title]).toEqual(['Mine', 'Theirs'])
    desk.text!.number = 5
    await vi.advanceTimersByTimeAsync(2000)
    expect(server.text).toMatchObject({ title: 'Theirs', number: 5 })
    desk.settle('title', keep)
    await vi.advanceTimersByTimeAsync(2000)
    expect([server.text.title, desk.text!.title, desk.saving, desk.conflicts]).toEqual([title, title, 'saved', []])
  })

  it('is looked after without disturbing what is being written', async () => {
    const desk = await opened()
    server.fromElsewhere({ notes: '<p>theirs</p>' })
    const before = desk.revision
    await desk.refresh()
    expect(desk.text!.notes).toBe('<p>theirs</p>')
    expect(desk.revision).toBeGreaterThan(before)
  })
})

it('of answers that overtake each other the one asked for last holds', async () => {
  const desk = await opened()
  const answers: ((answer: Response) => void)[] = []
  vi.stubGlobal(
    'fetch',
    () =>
      new Promise<Response>(resolve => {
        answers.push(resolve)
      }),
  )
  const asked = [desk.refresh(), desk.refresh()]
  answers[1]!(Response.json({ ...server.episode, durationMs: 2 }))
  await asked[1]
  answers[0]!(Response.json({ ...server.episode, durationMs: 1 }))
  await asked[0]
  expect(desk.episode!.durationMs).toBe(2)
})

it('a release waits until everything is saved, and does not happen while it cannot be', async () => {
  const desk = await opened()
  server.away = true
  desk.text!.title = 'Not there yet'
  await expect(desk.release({ kind: 'now' }, 1)).rejects.toThrow('not on the server yet')
  expect(desk.text!.title).toBe('Not there yet')
})

describe('what a window left unsent', () => {
  const unsent = (title: string, atMs: number) => ({
    serverText: server.text,
    base: server.text,
    text: { ...server.text, title },
    version: 1,
    atMs,
  })

  it('is taken up by another window only when it is gone for half a minute', () => {
    keepUnsent('e', unsent('From a living window', 1_000))
    vi.stubGlobal('sessionStorage', new Shelf())
    expect(takeUnsent('e', 20_000)).toBeNull()
    expect(takeUnsent('e', 32_000)?.text.title).toBe('From a living window')
    expect(takeUnsent('e', 32_000)).toBeNull()
  })

  it('is its own at once, and no other episode’s', () => {
    keepUnsent('e', unsent('Mine', 1_000))
    expect(takeUnsent('f', 1_000)).toBeNull()
    expect(takeUnsent('e', 1_000)?.text.title).toBe('Mine')
  })
})
