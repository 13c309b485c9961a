import { shallowRef } from 'vue'
import { useAttempt } from './attempt'
import { t } from './messages'

/** A list of the open show as each answer about it brings it whole, with what went wrong last, and whether something is under way. */
export function useKeptList<List>() {
  const list = shallowRef<List | null>(null)
  const { problem, busy, attempt } = useAttempt(t('nothingWasChanged'))

  /** Asks for something that answers with the list; tells whether it was done. */
  const act = (ask: () => Promise<List>): Promise<boolean> =>
    attempt(async () => {
      list.value = await ask()
    })
  return { list, problem, busy, act }
}
