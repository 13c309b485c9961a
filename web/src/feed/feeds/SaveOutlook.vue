<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { ref, shallowRef } from 'vue'
import type { FeedComparisonView } from '@contract/feed'
import type { Show, ShowChange } from '@contract/shows'
import { isSameFeed } from '@core/feed/compare'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import FeedComparisonWords from './FeedComparisonWords.vue'
import { useFeed } from './feed'
import { t } from './messages'

/** Before a change of a show that has released episodes is saved: what it changes for listeners. */
const props = defineProps<{ show: Show }>()
const feed = useFeed()
const told = shallowRef<FeedComparisonView | null>(null)
const isOpen = ref(false)
let answer: (wanted: boolean) => void = () => undefined

/** Whether a change is to be saved, of which listeners would notice something. */
async function ask(change: ShowChange): Promise<boolean> {
  if (props.show.releasedCount === 0) return true
  told.value = await feed.outlook(props.show.id, change)
  if (isSameFeed(told.value.comparison)) return true
  isOpen.value = true
  return new Promise(resolve => (answer = resolve))
}
function close(wanted: boolean): void {
  isOpen.value = false
  answer(wanted)
}
defineExpose({ ask })
</script>

<template>
  <Dialog
    :visible="isOpen"
    modal
    :header="t('changesForListeners')"
    :style="{ width: 'min(40rem, 94vw)' }"
    @update:visible="close(false)"
  >
    <template v-if="told">
      <p v-for="words in told.words" :key="words">{{ words }}</p>
      <FoldPanel class="more">
        <template #line>{{ t('compareWordByWord') }}</template>
        <FeedComparisonWords :comparison="told.comparison" />
      </FoldPanel>
    </template>
    <template #footer>
      <Button type="button" :label="t('cancel')" text @click="close(false)" />
      <Button type="button" :label="t('save')" autofocus @click="close(true)" />
    </template>
  </Dialog>
</template>

<style scoped>
.more {
  margin-top: var(--space-3);
}
</style>
