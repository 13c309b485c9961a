<script setup lang="ts">
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import Tabs from 'primevue/tabs'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Preview } from '@contract/preview'
import { hindering, hindranceNeeds } from '@core/release/readiness'
import { keepInside } from '../../platform/parts/insideFrame'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { vOpened } from '../../platform/parts/opened'
import AppList from './AppList.vue'
import AppOpened from './AppOpened.vue'
import FeedItem from './FeedItem.vue'
import FileTags from './FileTags.vue'
import { usePreview } from './preview'
import { locale } from '../../platform/messages'
import { t } from './messages'

/** How the episode would go out now: in an app's list, opened, as its page, in the feed, in the file. It follows what is saved. */
const props = defineProps<{ episodeId: string; version: number; soundVersion: number; zone: string }>()
const emit = defineEmits<{ close: [] }>()
const preview = usePreview()
const { seen, problem, pageAddress } = storeToRefs(preview)

const views = {
  list: t('viewInList'),
  opened: t('viewOpened'),
  page: t('viewPage'),
  feed: t('feed'),
  file: t('viewFile'),
} as const
const view = ref<keyof typeof views>('list')

watch(
  () => [props.episodeId, props.version, props.soundVersion],
  () => void preview.look(props.episodeId),
  { immediate: true },
)

const sources: Readonly<Record<Preview['inherited'][number], string>> = {
  'title pattern': t('titlePattern'),
  artwork: 'artwork',
  author: 'author',
  explicit: 'explicit',
  link: t('linkToOwnPage'),
}
const list = new Intl.ListFormat(locale)
const inherited = computed(() => list.format((seen.value?.inherited ?? []).map(what => sources[what])))
const missing = computed(() => {
  if (!seen.value) return ''
  const needs = hindering('release', seen.value.hindrances).map(each => hindranceNeeds[each])
  return list.format(seen.value.at ? needs : [...needs, t('aMoment')])
})
</script>

<template>
  <aside class="preview" v-opened="() => emit('close')" aria-labelledby="preview-name">
    <header class="flex justify-between items-baseline">
      <h2 class="text-l" id="preview-name">{{ t('preview') }}</h2>
      <button type="button" class="small-button" @click="emit('close')">{{ t('close') }}</button>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="seen">
      <Tabs id="views" :value="view" class="views" @update:value="value => (view = value as keyof typeof views)">
        <TabList :pt="{ tabList: { 'aria-label': t('whereItIsSeen') } }">
          <Tab v-for="(name, key) in views" :key="key" :value="key">{{ name }}</Tab>
        </TabList>
      </Tabs>
      <p v-if="missing" class="small needs">{{ t('stillMissing', { missing }) }}</p>
      <div
        :id="`views_tabpanel_${view}`"
        class="flex-1 min-h-0 my-3"
        role="tabpanel"
        :aria-labelledby="`views_tab_${view}`"
      >
        <AppList v-if="view === 'list'" :seen="seen" :zone="zone" />
        <AppOpened v-else-if="view === 'opened'" :seen="seen" :zone="zone" />
        <iframe
          v-else-if="view === 'page'"
          :src="pageAddress!"
          :title="t('thePublicPage')"
          sandbox="allow-same-origin allow-scripts"
          loading="lazy"
          @load="event => keepInside(event.target as HTMLIFrameElement, null)"
        />
        <FeedItem v-else-if="view === 'feed'" :lines="seen.item" />
        <FileTags v-else :tags="seen.tags" />
      </div>
      <p v-if="inherited" class="small quiet">{{ t('inheritedFromShow', { inherited }) }}</p>
    </template>
    <p v-else-if="!problem" class="quiet" role="status">{{ t('loading') }}</p>
  </aside>
</template>

<style scoped>
.preview {
  display: flex;
  flex: 0 0 31rem;
  flex-direction: column;
  min-height: 0;
  overflow-y: auto;
  padding: var(--space-3) var(--space-4);
  background: var(--paper);
  border-inline-start: 1px solid var(--edge);
}
/* Where there is no room beside the writing it lies over it, and the release stays at hand below. */
@media (max-width: 1100px) {
  .preview {
    position: absolute;
    inset: 0;
    z-index: 3;
    border: 0;
  }
}
.views :deep(.p-tablist-active-bar) {
  display: none;
}
.views :deep(.p-tablist-tab-list) {
  flex-wrap: wrap;
}
.views :deep(.p-tab) {
  padding: var(--space-2) var(--space-3);
}
.views :deep(.p-tab-active) {
  box-shadow: inset 0 -2px var(--accent);
}
.needs {
  margin-block: var(--space-2);
  padding-inline-start: var(--space-3);
  border-inline-start: 4px solid var(--signal);
}
iframe {
  width: 100%;
  height: 100%;
  min-height: 24rem;
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: var(--paper);
}
</style>
