import { onScopeDispose, type Ref, ref } from 'vue'

let aheadMs = 0
/** Whoever shows the current moment. */
const clocks = new Set<() => void>()

/** Says by how much the server's time is ahead of the world's: in the demo it can be moved. */
export function setAhead(ms: number): void {
  aheadMs = ms
  for (const look of clocks) look()
}

/** The current moment, as the server has it. */
export const currentMoment = (): Date => new Date(Date.now() + aheadMs)

/** The same, kept current while it is looked at. */
export function useNow(everyMs = 1000): Ref<Date> {
  const now = ref(currentMoment())
  const look = (): void => {
    now.value = currentMoment()
  }
  const timer = setInterval(look, everyMs)
  clocks.add(look)
  onScopeDispose(() => {
    clearInterval(timer)
    clocks.delete(look)
  })
  return now
}
