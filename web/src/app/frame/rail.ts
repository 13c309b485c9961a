import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'

/** Whether the rail of episodes is folded to a strip; kept in this browser. */
export const useRail = defineStore('rail', () => {
  const isFolded = useLocalStorage('lake-letter:rail', false, {
    serializer: { read: kept => kept === 'folded', write: folded => (folded ? 'folded' : 'open') },
  })
  return { isFolded }
})
