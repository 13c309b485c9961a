import { useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { onScopeDispose, ref, watch } from 'vue'
import type { News } from '@contract/events'
import { passes } from '../api/client'

type Ear = (news: News | 'all') => void
const againMs = 4_000

/** News of what has changed, from the server's event stream; the browser takes it up again where it was cut. */
export const useNews = defineStore('news', () => {
  const isUp = ref(false)
  const ears = new Set<Ear>()
  let stream: EventSource | null = null
  let again: ReturnType<typeof setTimeout> | undefined

  const tell = (news: News | 'all'): void => {
    for (const ear of ears) ear(news)
  }

  function begin(): void {
    if (stream) return
    const opened = new EventSource('/api/v1/events')
    opened.onopen = () => {
      isUp.value = true
    }
    opened.addEventListener('news', ({ data }: MessageEvent<string>) => tell(JSON.parse(data) as News))
    opened.addEventListener('all', () => tell('all'))
    opened.onerror = () => {
      isUp.value = false
      // A cut line the browser mends by itself; an answer that is no stream it gives up for good.
      if (opened.readyState !== EventSource.CLOSED) return
      end()
      again = setTimeout(begin, againMs)
    }
    stream = opened
  }

  function end(): void {
    clearTimeout(again)
    stream?.close()
    stream = null
    isUp.value = false
  }

  function listen(ear: Ear): () => void {
    ears.add(ear)
    return () => ears.delete(ear)
  }

  return { isUp, begin, end, listen }
})

const closeMs = 120

/** The same, but once at a time: what is wanted meanwhile is done once more behind, so that no older answer comes after a newer one. */
function onceAtATime(act: () => Promise<unknown>): () => Promise<void> {
  let [isUnderWay, isWanted] = [false, false]
  return async () => {
    isWanted = true
    if (isUnderWay) return
    isUnderWay = true
    try {
      while (isWanted) {
        isWanted = false
        await act()
      }
    } finally {
      isUnderWay = false
    }
  }
}

/**
 * Does something whenever news concerns it, once for news that come close together, and when a window that was hidden is
 * looked at again; never twice at the same time. While the stream is down it is done every `whileDownMs`.
 */
export function onNews(concerns: (news: News) => boolean, act: () => Promise<unknown>, whileDownMs = 3_000): void {
  const news = useNews()
  const actNow = onceAtATime(act)
  let soon: ReturnType<typeof setTimeout> | undefined
  let timer: ReturnType<typeof setInterval> | undefined
  let isMissed = false

  function now(): void {
    isMissed = document.visibilityState !== 'visible'
    // What cannot be had at this moment is asked for again: the news of it was all there is.
    if (!isMissed)
      actNow().catch(error => {
        if (passes(error)) later(againMs)
      })
  }
  function later(ms: number): void {
    clearTimeout(soon)
    soon = setTimeout(now, ms)
  }
  const looked = (): void => {
    if (isMissed) now()
  }

  const deafen = news.listen(each => {
    if (each !== 'all' && !concerns(each)) return
    later(closeMs)
  })
  watch(
    () => news.isUp,
    isUp => {
      clearInterval(timer)
      if (!isUp) timer = setInterval(now, whileDownMs)
    },
    { immediate: true },
  )
  useEventListener(document, 'visibilitychange', looked)
  onScopeDispose(() => {
    deafen()
    clearTimeout(soon)
    clearInterval(timer)
  })
}
