import { defineStore } from 'pinia'
import { ref, watchEffect } from 'vue'

const key = 'lake-letter:rail'

/** Whether the rail of episodes is folded to a strip; kept in this browser. */
export const useRail = defineStore('rail', () => {
  const isFolded = ref(localStorage.getItem(key) === 'folded')
  watchEffect(() => localStorage.setItem(key, isFolded.value ? 'folded' : 'open'))
  return { isFolded }
})
