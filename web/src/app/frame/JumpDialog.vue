<script setup lang="ts">
import { useEventListener, useLocalStorage } from '@vueuse/core'
import Fuse from 'fuse.js'
import AutoComplete from 'primevue/autocomplete'
import Dialog from 'primevue/dialog'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { EpisodeSummary } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { may } from '@core/access/roles'
import { statuses } from '@core/release/status'
import { useShows } from '../../show/shows/shows'
import { places } from './places'
import { t } from './messages'

/** One key leads anywhere: to an episode, a place or something to do, by a few letters of it. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ new: [] }>()
const shows = useShows()
const router = useRouter()
const isOpen = ref(false)
const words = ref<string | Target>('')

interface Target {
  key: string
  words: string
  /** What pressing it does. */
  what: string
  go: () => unknown
}

/** As many as are seen without scrolling. */
const mostShown = 9
/** What was gone to last, the newest first; kept in this browser. */
const recent = useLocalStorage<string[]>('lake-letter:jumps', [])
const mostRecent = 30

const open = (name: string, more: object = {}) => router.push({ name, params: { show: props.show.slug, ...more } })
const placeTargets = computed<Target[]>(() =>
  Object.values(places).flatMap(place =>
    place.tabs.map(({ name, words: part }) => ({
      key: name,
      words: place.tabs.length === 1 || name === 'feed' ? part : `${place.words}: ${part}`,
      what: t('opensIt'),
      go: () => open(name),
    })),
  ),
)
const acts = computed<Target[]>(() => [
  ...(may(props.show.role, 'write')
    ? [{ key: 'new-episode', words: t('newEpisode'), what: t('beginsDraft'), go: () => emit('new') }]
    : []),
  { key: 'you', words: t('mailAndCalendar'), what: t('opensIt'), go: () => open('you') },
  { key: 'new-show', words: t('newShow'), what: t('beginsShow'), go: () => router.push({ name: 'new-show' }) },
])
const targetOf = ({ id, number, title }: EpisodeSummary): Target => ({
  key: id,
  words: `${number ? `${number} ` : ''}${title || t('untitledEpisode')}`,
  what: t('opensEpisode'),
  go: () => open('desk', { id }),
})
const near = computed(() => statuses.flatMap(status => shows.near?.[status].episodes.map(targetOf) ?? []))

const offered = ref<Target[]>([])
let turn = 0
/** What is like the words, what was gone to lately before others as good; the show's other episodes follow from the server. */
async function look(asked: string): Promise<void> {
  const mine = ++turn
  const known = new Map([...near.value, ...placeTargets.value, ...acts.value].map(each => [each.key, each]))
  const rank = (key: string): number => {
    const at = recent.value.indexOf(key)
    return at < 0 ? mostRecent : at
  }
  const byRecency = [...known.values()].toSorted((one, other) => rank(one.key) - rank(other.key))
  if (!asked.trim()) {
    offered.value = byRecency.slice(0, mostShown)
    return
  }
  const found = await shows.findEpisodes(asked.trim()).catch(() => null)
  if (mine !== turn) return
  for (const episode of found?.episodes ?? []) if (!known.has(episode.id)) byRecency.push(targetOf(episode))
  offered.value = new Fuse(byRecency, { keys: ['words'], threshold: 0.4, ignoreLocation: true })
    .search(asked.trim(), { limit: mostShown })
    .map(({ item }) => item)
}

function begin(): void {
  words.value = ''
  isOpen.value = true
}
function take({ key, go }: Target): void {
  recent.value = [key, ...recent.value.filter(other => other !== key)].slice(0, mostRecent)
  isOpen.value = false
  void go()
}
useEventListener(
  'keydown',
  event => {
    if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey) return
    event.preventDefault()
    event.stopPropagation()
    begin()
  },
  { capture: true },
)
defineExpose({ begin })
</script>

<template>
  <Dialog
    v-model:visible="isOpen"
    modal
    dismissable-mask
    position="top"
    :header="t('goTo')"
    :style="{ width: 'min(36rem, 94vw)' }"
    :content-style="{ overflow: 'visible' }"
  >
    <AutoComplete
      v-model="words"
      :pt="{ pcInputText: { root: { autofocus: true } } }"
      fluid
      complete-on-focus
      auto-option-focus
      append-to="self"
      scroll-height="75vh"
      :min-length="0"
      :delay="120"
      :suggestions="offered"
      :option-label="({ words: name, what }: Target) => `${name} ${what}`"
      :placeholder="t('jumpPlaceholder')"
      :aria-label="t('whereTo')"
      :empty-search-message="t('nothingCalledSo')"
      @complete="({ query }) => look(query)"
      @option-select="({ value }) => take(value as Target)"
    >
      <template #option="{ option }">
        <span class="flex gap-4 items-baseline justify-between w-full"
          ><span dir="auto">{{ option.words }}</span> <span class="quiet small">{{ option.what }}</span></span
        >
      </template>
    </AutoComplete>
  </Dialog>
</template>
