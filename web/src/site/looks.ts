import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ShowLook } from '@contract/looks'
import type { Look } from '@core/site/look'
import { api } from '../api'
import { problemOf, type Told } from '../parts/problems'

const savesAfterMs = 300

/** The look of the open show's pages, as it is being tried. */
export const useLooks = defineStore('looks', () => {
  const looks = shallowRef<ShowLook | null>(null)
  /** What the window has, which the server may not have yet. */
  const tried = ref<Look | null>(null)
  const problem = ref<Told | null>(null)
  const busy = ref(false)
  let showId = ''
  let timer: ReturnType<typeof setTimeout> | undefined
  let line: Promise<unknown> = Promise.resolve()

  function take(fresh: ShowLook): void {
    looks.value = fresh
    // What was changed meanwhile waits to be sent.
    if (timer === undefined) tried.value = fresh.tried
  }

  /** One after the other, so that each begins with the version that the one before has made. */
  function act(ask: () => Promise<ShowLook>): Promise<void> {
    const mine = line.then(async () => {
      busy.value = true
      try {
        take(await ask())
        problem.value = null
      } catch (error) {
        problem.value = problemOf(error, 'What you changed is still here.')
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
      looks.value = tried.value = null
    }
    showId = id
    await act(() => api.look(id))
  }

  const send = (): Promise<void> => {
    clearTimeout(timer)
    timer = undefined
    const look = tried.value!
    const id = showId
    return act(() => api.tryLook(id, { version: looks.value!.version, look }))
  }
  function change(part: Partial<Look>): void {
    tried.value = { ...tried.value!, ...part }
    clearTimeout(timer)
    timer = setTimeout(() => void send(), savesAfterMs)
  }
  async function step(which: 'take-over' | 'put-back' | 'leave'): Promise<void> {
    if (timer !== undefined && which === 'take-over') await send()
    clearTimeout(timer)
    timer = undefined
    await act(() => api.stepLook(showId, which, { version: looks.value!.version }))
  }

  /** Whether what is tried is another look than the one that is out. */
  const differs = computed(
    () => looks.value !== null && JSON.stringify(tried.value) !== JSON.stringify(looks.value.out),
  )

  return { looks, tried, problem, busy, differs, load, change, step }
})
