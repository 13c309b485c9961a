import { onScopeDispose, type Ref, ref } from 'vue'

/** The current moment, kept current while it is looked at. */
export function useNow(everyMs = 1000): Ref<Date> {
  const now = ref(new Date())
  const timer = setInterval(() => {
    now.value = new Date()
  }, everyMs)
  onScopeDispose(() => clearInterval(timer))
  return now
}
