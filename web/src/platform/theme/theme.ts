import { useLocalStorage, usePreferredDark } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watchEffect } from 'vue'

export type Theme = 'system' | 'light' | 'dark'

/** Light, dark, or as the system has it. */
export const useTheme = defineStore('theme', () => {
  const theme = useLocalStorage<Theme>('lake-letter:theme', 'system')
  watchEffect(() => {
    if (theme.value === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = theme.value
  })
  const isSystemDark = usePreferredDark()
  /** What is seen, for what is drawn by script. */
  const isDark = computed(() => theme.value === 'dark' || (theme.value === 'system' && isSystemDark.value))
  return { theme, isDark }
})
