<script setup lang="ts">
import Menu from 'primevue/menu'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Show } from '@contract/shows'
import { useSession } from '../../people/account/session'
import { type Theme, useTheme } from '../../platform/theme/theme'
import { t } from './messages'

/** What belongs to the person and the house, in one menu. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ jump: []; keys: [] }>()
const router = useRouter()
const sessions = useSession()
const look = useTheme()
const menu = ref<InstanceType<typeof Menu>>()
const isOpen = ref(false)

const themes: readonly { theme: Theme; words: string }[] = [
  { theme: 'system', words: t('asTheSystem') },
  { theme: 'light', words: t('light') },
  { theme: 'dark', words: t('dark') },
]
async function leave(): Promise<void> {
  await sessions.leave()
  await router.push({ name: 'sign-in' })
}
const items = computed(() => [
  {
    label: sessions.session?.account?.email,
    items: [
      {
        label: t('mailAndCalendar'),
        command: () => router.push({ name: 'you', params: { show: props.show.slug } }),
      },
      // On a phone the strip of places has no room for it.
      { label: t('goToPlace'), command: () => emit('jump') },
      { label: t('newShow'), command: () => router.push({ name: 'new-show' }) },
      { label: t('keys'), command: () => emit('keys') },
      { label: t('signOut'), command: leave },
    ],
  },
  {
    label: t('appearance'),
    items: themes.map(({ theme, words }) => ({
      label: look.theme === theme ? `${words} ✓` : words,
      command: () => {
        look.theme = theme
      },
    })),
  },
])
</script>

<template>
  <div>
    <button
      type="button"
      class="place"
      aria-haspopup="menu"
      aria-controls="you-menu"
      :aria-expanded="isOpen"
      @click="event => menu?.toggle(event)"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true">
        <circle cx="12" cy="8" r="3.6" />
        <path d="M4.5 20q.8-6 7.5-6t7.5 6" />
      </svg>
      <span>{{ t('you') }}</span>
    </button>
    <Menu
      id="you-menu"
      ref="menu"
      popup
      :model="items"
      :aria-label="t('you')"
      @show="isOpen = true"
      @hide="isOpen = false"
    />
  </div>
</template>
