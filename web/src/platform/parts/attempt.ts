import { nextTick, ref, type Ref } from 'vue'
import type { z } from 'zod'
import { faultsOf } from './checked'
import { notYet, problemOf, type ShownProblem } from './problems'
import { t } from './messages'

/** Something that the person asks for: whether it goes on, and what stood in its way. `left` says what became of what they did. */
export function useAttempt(left: string) {
  const problem = ref<ShownProblem | null>(null)
  const busy = ref(false)

  /** Tells whether it was done. */
  async function attempt(act: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    problem.value = null
    try {
      await act()
    } catch (error) {
      problem.value = problemOf(error, left)
    } finally {
      busy.value = false
    }
    return problem.value === null
  }
  return { problem, busy, attempt }
}

/** A form that is sent as a whole: checked by the contract first, and led to its first field that is wrong. */
export function useSave(form: Ref<HTMLElement | undefined>) {
  const { problem, busy, attempt } = useAttempt(t('changesStillHere'))
  const saved = ref(false)

  /** What is wrong with a field; `within` it, too, where it has parts. */
  const fault = (field: string, within = false): string | undefined =>
    problem.value?.faults?.find(each => each.field === field || (within && each.field.startsWith(`${field}.`)))?.rule

  /** Sends what the contract allows. `send` answers false where the person has thought better of it. */
  async function save<Change extends Record<string, unknown>>(
    schema: z.ZodType<Change, Change>,
    change: Change,
    send: () => Promise<false | void>,
  ): Promise<boolean> {
    saved.value = false
    const isDone = await attempt(async () => {
      const faults = await faultsOf(schema, change)
      if (faults.length > 0) problem.value = { ...notYet, faults }
      else saved.value = (await send()) !== false
    })
    if (isDone) return saved.value
    await nextTick()
    form.value?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()
    return false
  }
  return { problem, busy, saved, fault, save }
}
