<script setup lang="ts">
import { Redo2, Undo2 } from '@lucide/vue'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import type { Episode } from '@contract/episodes'
import type { Stroke } from '@core/episode/strokes'
import { fields as known } from '@core/episode/fields'
import SaveWord from './SaveWord.vue'
import type { Saving } from '../../show/episodes/desk'
import StatusLine from './StatusLine.vue'
import IconButton from '../../platform/parts/IconButton.vue'
import { t } from './messages'

/** Where the episode stands, whether its words are kept, and the way back from what was done to them. */
const props = defineProps<{
  episode: Episode
  zone: string
  listenerZones: readonly string[]
  saving: Saving
  savedAt: Date | null
  done: readonly Stroke[]
  taken: readonly Stroke[]
}>()
const emit = defineEmits<{ undo: []; redo: []; history: [] }>()

const lastOf = (strokes: readonly Stroke[]): string =>
  [...new Set(strokes.at(-1)?.fields ?? [])].map(field => known[field].name).join(', ')
const acts = computed(() => [
  {
    name: t('undo'),
    icon: Undo2,
    keys: 'Ctrl Z',
    aria: 'Control+Z',
    what: lastOf(props.done),
    nothing: t('nothingToUndo'),
    act: () => emit('undo'),
  },
  {
    name: t('redo'),
    icon: Redo2,
    keys: 'Ctrl Shift Z',
    aria: 'Control+Shift+Z',
    what: lastOf(props.taken),
    nothing: t('nothingToRedo'),
    act: () => emit('redo'),
  },
])

/** What is not on the desk, or not yet, has an undo of its own: forms that are being filled in, the search of the rail. */
const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof Element &&
  (target.closest('form, [data-draft], [role="dialog"], [role="alertdialog"]') !== null ||
    (target.matches('input, textarea') && target.closest('.desk') === null))

function onKey(event: KeyboardEvent): void {
  if (!(event.ctrlKey || event.metaKey) || event.altKey || isElsewhere(event.target)) return
  const key = event.key.toLowerCase()
  if (key !== 'z' && key !== 'y') return
  event.preventDefault()
  event.stopPropagation()
  if (key === 'y' || event.shiftKey) emit('redo')
  else emit('undo')
}

/** Also where a menu or a tablet's keyboard asks for it. */
function onInput(event: InputEvent): void {
  if (!event.inputType.startsWith('history') || isElsewhere(event.target)) return
  event.preventDefault()
  if (event.inputType === 'historyRedo') emit('redo')
  else emit('undo')
}
useEventListener('keydown', onKey, { capture: true })
useEventListener('beforeinput', onInput, { capture: true })
</script>

<template>
  <header class="apart gap-x-5 gap-y-1 items-center">
    <StatusLine class="status" :episode="episode" :zone="zone" :listener-zones="listenerZones" />
    <div class="flowing gap-x-4 gap-y-1 ms-auto">
      <SaveWord :saving="saving" :saved-at="savedAt" :zone="zone" />
      <IconButton
        v-for="{ name, icon, keys, aria, what, nothing, act } in acts"
        :key="name"
        :name="name"
        :icon="icon"
        :tip="what ? `${name}: ${what} (${keys})` : nothing"
        :disabled="!what"
        :aria-keyshortcuts="aria"
        @click="act"
      />
      <button type="button" class="small-button" aria-haspopup="dialog" @click="emit('history')">
        {{ t('history') }}
      </button>
    </div>
  </header>
</template>

<style scoped>
.status {
  flex: 1 1 24rem;
}
</style>
