import { defineStore } from 'pinia'
import { computed, ref, watchEffect } from 'vue'

export type Theme = 'system' | 'light' | 'dark'
const key = 'lake-letter:theme'

/** Light, dark, or as the system has it. */
export const useTheme = defineStore('theme', () => {
  const theme = ref<Theme>((localStorage.getItem(key) as Theme | null) ?? 'system')
  watchEffect(() => {
    localStorage.setItem(key, theme.value)
    if (theme.value === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = theme.value
  })
  const system = window.matchMedia('(prefers-color-scheme: dark)')
  const isSystemDark = ref(system.matches)
  system.addEventListener('change', () => (isSystemDark.value = system.matches))
  /** What is seen, for what is drawn by script. */
  const isDark = computed(() => theme.value === 'dark' || (theme.value === 'system' && isSystemDark.value))
  return { theme, isDark }
})
