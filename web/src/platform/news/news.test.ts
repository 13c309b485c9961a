import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import type { News } from '@contract/events'
import { onNews, useNews } from './news'

let tell: (news: News) => void
const scope = effectScope()

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('document', Object.assign(new EventTarget(), { visibilityState: 'visible' }))
  vi.stubGlobal(
    'EventSource',
    class extends EventTarget {
      constructor() {
        super()
        tell = news => this.dispatchEvent(new MessageEvent('news', { data: JSON.stringify(news) }))
        queueMicrotask(() => (this as unknown as { onopen(): void }).onopen())
      }
      close(): void {}
    },
  )
  setActivePinia(createPinia())
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('what is asked for by news is asked once at a time, and once more behind: an answer that was overtaken is not the last one', async () => {
  const waits = [5_000, 10, 10]
  let [asked, shown, atOnce, mostAtOnce] = [0, 0, 0, 0]
  scope.run(() => {
    onNews(
      () => true,
      async () => {
        const mine = ++asked
        mostAtOnce = Math.max(mostAtOnce, ++atOnce)
        await new Promise(resolve => setTimeout(resolve, waits[mine - 1]))
        atOnce--
        shown = mine
      },
    )
    useNews().begin()
  })
  for (let n = 0; n < 4; n++) {
    tell({ kind: 'listing', showId: 's', id: String(n) } as News)
    await vi.advanceTimersByTimeAsync(1_000)
  }
  await vi.advanceTimersByTimeAsync(10_000)
  expect({ asked, shown, mostAtOnce }).toEqual({ asked: 2, shown: 2, mostAtOnce: 1 })
})
