import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ShowTheme } from '@contract/siteThemes'
import type { SiteTheme } from '@core/site/siteTheme'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

const savesAfterMs = 300

/** The look of the open show's pages, as it is being tried. */
export const useSiteTheme = defineStore('site-theme', () => {
  const themes = shallowRef<ShowTheme | null>(null)
  /** What the window has, which the server may not have yet. */
  const tried = ref<SiteTheme | null>(null)
  const problem = ref<ShownProblem | null>(null)
  const busy = ref(false)
  let showId = ''
  let timer: ReturnType<typeof setTimeout> | undefined
  let line: Promise<unknown> = Promise.resolve()

  function take(fresh: ShowTheme): void {
    themes.value = fresh
    // What was changed meanwhile waits to be sent.
    if (timer === undefined) tried.value = fresh.tried
  }

  /** One after the other, so that each begins with the version that the one before has made. */
  function act(ask: () => Promise<ShowTheme>): Promise<void> {
    const mine = line.then(async () => {
      busy.value = true
      try {
        take(await ask())
        problem.value = null
      } catch (error) {
        problem.value = problemOf(error, t('changesStillHere'))
      } finally {
        busy.value = false
      }
    })
    line = mine
    return mine
  }

  async function load(id: string): Promise<void> {
    if (showId !== id) {
      if (timer !== undefined) await send()
      themes.value = tried.value = null
    }
    showId = id
    await act(() => api.theme(id))
  }

  const send = (): Promise<void> => {
    clearTimeout(timer)
    timer = undefined
    const theme = tried.value!
    const id = showId
    return act(() => api.tryTheme(id, { version: themes.value!.version, theme }))
  }
  function change(part: Partial<SiteTheme>): void {
    tried.value = { ...tried.value!, ...part }
    clearTimeout(timer)
    timer = setTimeout(() => void send(), savesAfterMs)
  }
  async function step(which: 'take-over' | 'put-back' | 'leave'): Promise<void> {
    if (timer !== undefined && which === 'take-over') await send()
    clearTimeout(timer)
    timer = undefined
    await act(() => api.stepTheme(showId, which, { version: themes.value!.version }))
  }

  /** Whether what is tried is another look than the one that is out. */
  const differs = computed(
    () => themes.value !== null && JSON.stringify(tried.value) !== JSON.stringify(themes.value.out),
  )

  return { themes, tried, problem, busy, differs, load, change, step }
})
