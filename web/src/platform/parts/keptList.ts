import { ref, shallowRef } from 'vue'
import { problemOf, type ShownProblem } from './problems'

/** A list of the open show as each answer about it brings it whole, with what went wrong last, and whether something is under way. */
export function useKeptList<List>() {
  const list = shallowRef<List | null>(null)
  const problem = ref<ShownProblem | null>(null)
  const busy = ref(false)

  /** Asks for something that answers with the list; tells whether it was done. */
  async function act(ask: () => Promise<List>): Promise<boolean> {
    busy.value = true
    problem.value = null
    try {
      list.value = await ask()
      return true
    } catch (error) {
      problem.value = problemOf(error, 'Nothing was changed.')
      return false
    } finally {
      busy.value = false
    }
  }
  return { list, problem, busy, act }
}
