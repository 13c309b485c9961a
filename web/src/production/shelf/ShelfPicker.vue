<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { storeToRefs } from 'pinia'
import { onScopeDispose, ref, watch } from 'vue'
import type { ShelfFile } from '@contract/shelf'
import { clock } from '@core/words/amounts'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import AudioInput from '../files/AudioInput.vue'
import { formatOf } from '../files/words'
import { useShelf } from './shelf'
import { t } from './messages'

/** The files that are here already, to be heard and taken for an episode. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{ showId: string; canUpload?: boolean }>()
const emit = defineEmits<{ take: [fileId: string, file: ShelfFile]; upload: [file: File] }>()
const shelves = useShelf()
const { shelf } = storeToRefs(shelves)
const problem = ref<ShownProblem | null>(null)
const input = ref<InstanceType<typeof AudioInput>>()
const heard = ref<string | null>(null)
const sound = new Audio()
sound.addEventListener('ended', () => (heard.value = null))
onScopeDispose(() => sound.pause())

async function attempt(act: () => Promise<void>): Promise<void> {
  problem.value = null
  await act().catch((error: unknown) => {
    problem.value = problemOf(error, t('shelfUnreached'))
  })
}
watch(
  visible,
  isVisible => {
    if (isVisible) void attempt(() => shelves.load(props.showId))
    else silence()
  },
  { immediate: true },
)

function silence(): void {
  sound.pause()
  heard.value = null
}
function listen(file: ShelfFile): void {
  if (heard.value === file.id) return silence()
  sound.src = file.playAddress
  heard.value = file.id
  void sound.play()
}
function uses({ uses: count, usedBy, isUsual }: ShelfFile): string {
  if (count === 0) return isUsual ? t('isUsual') : t('notUsed')
  const others = count - usedBy.length
  const names = usedBy.map(({ title }) => title || t('untitledInSentence'))
  return t('usedBy', { names: [...names, ...(others > 0 ? [t('othersMore', { count: others })] : [])].join(', ') })
}
</script>

<template>
  <Dialog v-model:visible="visible" modal :header="t('fromTheShelf')" :style="{ width: 'min(46rem, 96vw)' }">
    <template v-if="canUpload">
      <AudioInput ref="input" @file="file => emit('upload', file)" />
      <Button :label="t('uploadInstead')" size="small" outlined @click="input?.choose()" />
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-else-if="shelf && shelf.files.length === 0" class="quiet">
      {{ t('shelfIsEmpty') }}
    </p>
    <ul v-else-if="shelf" class="files unlisted">
      <li v-for="file in shelf.files" :key="file.id">
        <div class="words grid wrap-anywhere">
          <strong>{{ file.name }}</strong>
          <span class="small quiet figures"
            >{{ formatOf(file) }} · {{ clock(file.durationMs) }} · {{ uses(file) }}</span
          >
        </div>
        <Button :label="heard === file.id ? t('stop') : t('listen')" size="small" text @click="listen(file)" />
        <Button :label="t('useThisFile')" size="small" outlined @click="emit('take', file.id, file)" />
      </li>
    </ul>
    <Button
      v-if="shelf?.after"
      :label="t('showMore')"
      size="small"
      text
      @click="attempt(() => shelves.loadMore(showId))"
    />
  </Dialog>
</template>

<style scoped>
.files li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: var(--space-2);
  align-items: center;
  padding-block: var(--space-2);
  border-bottom: 1px solid var(--edge);
}
</style>
