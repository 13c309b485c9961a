import { setTimeout as wait } from 'node:timers/promises'
import { createPinia, setActivePinia } from 'pinia'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import type { EpisodeChange } from '@contract/episodes'
import { type EpisodeText, unsetText } from '@core/episode/fields'
import { api } from '../web/src/platform/api'
import { useDesk } from '../web/src/show/episodes/desk'
import { keepUnsent, takeUnsent } from '../web/src/show/episodes/outbox'
import { type DemoHouse, openDemoHouse } from './demoHouse'

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

/** The way to the real server: it can be cut, and knows what was sent over it. */
const line = { isCut: false, sent: [] as Partial<EpisodeText>[] }

let house: DemoHouse
let showId: string
let id: string
let over: typeof fetch

beforeAll(async () => {
  house = await openDemoHouse()
  const real = fetch
  const signedIn = await real(`${house.address}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: house.address },
    body: JSON.stringify({ email: 'demo@lakeletter.example', password: 'lake-letter-demo' }),
  })
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!
  over = async (path, init = {}) => {
    if (line.isCut) throw new TypeError('Failed to fetch')
    if (init.method === 'PATCH') line.sent.push((JSON.parse(init.body as string) as EpisodeChange).text)
    return real(house.address + (path as string), {
      ...init,
      headers: { ...(init.headers as object), cookie, origin: house.address },
    })
  }
  vi.stubGlobal('fetch', over)
  showId = (await api.showAt('bellows-and-reeds')).id
})
afterAll(async () => {
  vi.unstubAllGlobals()
  await house.stop()
})

beforeEach(async () => {
  vi.stubGlobal('fetch', over)
  vi.stubGlobal('localStorage', new Shelf())
  vi.stubGlobal('sessionStorage', new Shelf())
  setActivePinia(createPinia())
  line.isCut = false
  id = (await api.createEpisode(showId, { title: 'One' })).id
  await fromElsewhere({ number: 1, notes: '<p>a</p>' })
  line.sent = []
})

const onServer = async (): Promise<EpisodeText> => (await api.episode(id)).text

/** What another window writes. */
async function fromElsewhere(text: Partial<EpisodeText>): Promise<void> {
  const { version } = await api.episode(id)
  await api.changeEpisode(id, { version, text })
  line.sent = []
}

const desks: ReturnType<typeof useDesk>[] = []
async function opened() {
  const desk = useDesk()
  desks.push(desk)
  await desk.open(id)
  return desk
}
// A window that is left open would send on while other tests run.
afterEach(() => {
  for (const desk of desks.splice(0)) desk.close()
})

describe('writing', () => {
  it('is on the server within 2 s, also while the keys never rest', async () => {
    const desk = await opened()
    for (let ms = 0; ms < 2000; ms += 100) {
      desk.text!.title += '.'
      await wait(100)
    }
    expect(line.sent).not.toEqual([])
    await expect.poll(() => desk.saving).toBe('saved')
    expect((await onServer()).title).toBe(`One${'.'.repeat(20)}`)
  })

  it('sends only what changed, and nothing that was changed back', async () => {
    const desk = await opened()
    desk.text!.number = 2
    desk.text!.title = 'Two'
    desk.text!.title = 'One'
    await expect.poll(() => desk.saving).toBe('saved')
    await wait(1000)
    expect(line.sent).toEqual([{ number: 2 }])
  })

  it('does not go round in circles where the server spells the notes otherwise', async () => {
    const desk = await opened()
    desk.text!.notes = '<p>b</p><p></p>'
    await wait(3000)
    expect(line.sent).toHaveLength(1)
    expect((await onServer()).notes).not.toBe('<p>b</p><p></p>')
    expect(desk.text!.notes).toBe('<p>b</p><p></p>')
    expect(desk.saving).toBe('saved')
  })

  it('says so while the server is away, keeps the words in the browser, and sends them when it is back', async () => {
    const desk = await opened()
    line.isCut = true
    desk.text!.title = 'Written in the dark'
    await expect.poll(() => desk.saving).toBe('waiting')
    expect(JSON.stringify(localStorage)).toContain('Written in the dark')
    line.isCut = false
    await expect.poll(() => desk.saving).toBe('saved')
    expect((await onServer()).title).toBe('Written in the dark')
    expect(JSON.stringify(localStorage)).not.toContain('Written in the dark')
  })

  it('waits for a choice, and no more for the server, where another window changed the same while the line was cut', async () => {
    const desk = await opened()
    line.isCut = true
    desk.text!.title = 'Mine'
    await expect.poll(() => desk.saving).toBe('waiting')
    line.isCut = false
    await fromElsewhere({ title: 'Theirs' })
    await expect.poll(() => desk.conflicts).toEqual(['title'])
    await expect.poll(() => desk.saving).toBe('undecided')
    desk.settle('title', 'mine')
    await expect.poll(() => desk.saving).toBe('saved')
    expect((await onServer()).title).toBe('Mine')
  })

  it('that the server refuses stays, with the rule beside it, until it is mended', async () => {
    const desk = await opened()
    desk.text!.title = 'x'.repeat(1000)
    await expect.poll(() => desk.saving).toBe('refused')
    expect(desk.faults).toMatchObject([{ field: 'title', rule: expect.stringMatching(/^At most \d+ characters\.$/) }])
    expect((await onServer()).title).toBe('One')
    desk.text!.title = 'Mended'
    await expect.poll(() => desk.saving).toBe('saved')
    expect([desk.faults, (await onServer()).title]).toEqual([[], 'Mended'])
  })

  it('is found again by the page that is loaded next', async () => {
    const desk = await opened()
    line.isCut = true
    desk.text!.title = 'Before the lid closed'
    setActivePinia(createPinia())
    line.isCut = false
    const next = await opened()
    expect(next.text!.title).toBe('Before the lid closed')
    await expect.poll(async () => (await onServer()).title).toBe('Before the lid closed')
  })
})

describe('another window', () => {
  it('that changed another field is taken over, and both are on the server', async () => {
    const desk = await opened()
    await fromElsewhere({ number: 9 })
    desk.text!.title = 'Mine'
    await expect.poll(onServer).toMatchObject({ title: 'Mine', number: 9 })
    await expect.poll(() => desk.saving).toBe('saved')
    expect(desk.text).toMatchObject({ title: 'Mine', number: 9 })
    expect(desk.conflicts).toEqual([])
  })

  it.each([
    ['mine', 'Mine'],
    ['theirs', 'Theirs'],
  ] as const)('that changed the same field is a choice: %s', async (keep, title) => {
    const desk = await opened()
    await fromElsewhere({ title: 'Theirs' })
    desk.text!.title = 'Mine'
    await expect.poll(() => desk.conflicts).toEqual(['title'])
    expect([desk.text!.title, desk.theirs!.title]).toEqual(['Mine', 'Theirs'])
    desk.text!.number = 5
    await expect.poll(onServer).toMatchObject({ title: 'Theirs', number: 5 })
    desk.settle('title', keep)
    await expect.poll(async () => [(await onServer()).title, desk.saving]).toEqual([title, 'saved'])
    expect([desk.text!.title, desk.conflicts]).toEqual([title, []])
  })

  it('is looked after without disturbing what is being written', async () => {
    const desk = await opened()
    await fromElsewhere({ notes: '<p>theirs</p>' })
    const before = desk.revision
    await desk.refresh()
    expect(desk.text!.notes).toBe('<p>theirs</p>')
    expect(desk.revision).toBeGreaterThan(before)
  })
})

it('of answers that overtake each other the one asked for last holds', async () => {
  const desk = await opened()
  const episode = await api.episode(id)
  const answers: ((answer: Response) => void)[] = []
  vi.stubGlobal(
    'fetch',
    () =>
      new Promise<Response>(resolve => {
        answers.push(resolve)
      }),
  )
  const asked = [desk.refresh(), desk.refresh()]
  answers[1]!(Response.json({ ...episode, durationMs: 2 }))
  await asked[1]
  answers[0]!(Response.json({ ...episode, durationMs: 1 }))
  await asked[0]
  expect(desk.episode!.durationMs).toBe(2)
})

it('a release waits until everything is saved, and does not happen while it cannot be', async () => {
  const desk = await opened()
  line.isCut = true
  desk.text!.title = 'Not there yet'
  await expect(desk.release({ kind: 'now' }, 1)).rejects.toThrow('not on the server yet')
  expect(desk.text!.title).toBe('Not there yet')
})

describe('what a window left unsent', () => {
  const written: EpisodeText = { ...unsetText, title: 'One', number: 1, notes: '<p>a</p>' }
  const unsent = (title: string, atMs: number) => ({
    serverText: written,
    base: written,
    text: { ...written, title },
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

  it('by an earlier version is taken up with the fields that came since', () => {
    const { hook: _hook, tags: _tags, ...before } = written
    const left = { serverText: before, base: before, text: { ...before, title: 'Of old' }, version: 1, atMs: 1_000 }
    keepUnsent('e', left as unknown as Parameters<typeof keepUnsent>[1])
    expect(takeUnsent('e', 1_000)).toMatchObject({ text: { ...written, title: 'Of old' }, base: written })
  })

  it('is its own at once, and no other episode’s', () => {
    keepUnsent('e', unsent('Mine', 1_000))
    expect(takeUnsent('f', 1_000)).toBeNull()
    expect(takeUnsent('e', 1_000)?.text.title).toBe('Mine')
  })
})
