<script setup lang="ts">
import { storeToRefs } from 'pinia'
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, onMounted, onScopeDispose, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { ShelfFile } from '@contract/shelf'
import { amount, clock } from '@core/words/amounts'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf } from '../../platform/parts/problems'
import { onNews } from '../../platform/news/news'
import { shortDay } from '../../platform/time/times'
import { formatOf, loudnessWords } from '../files/words'
import { useShelf } from './shelf'
import { useShows } from '../../show/shows/shows'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** All files of a show, used or not: listen, use again, download, delete what nobody uses. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const shelves = useShelf()
const { shelf } = storeToRefs(shelves)
const problem = ref<{ title: string; detail: string; todo: string } | null>(null)
const asking = ref<string | null>(null)
const heard = ref<string | null>(null)
const sound = new Audio()

const asWords: Readonly<Record<ShelfFile['usedBy'][number]['as'], string>> = {
  source: t('sourceOf'),
  mixed: t('partOf'),
  finished: t('finishedFor'),
  delivered: t('goesOutWith'),
  past: t('wentOutWith'),
}

async function attempt(act: () => Promise<void>): Promise<void> {
  problem.value = null
  try {
    await act()
  } catch (error) {
    problem.value = problemOf(error, t('nothingWasChanged'))
  }
}
onMounted(() => attempt(() => shelves.load(show.value.id)))
onNews(
  ({ kind, showId }) => showId === show.value.id && (kind === 'progress' || kind === 'episode'),
  () => shelves.load(show.value.id),
  10_000,
)
sound.addEventListener('ended', () => {
  heard.value = null
})
onScopeDispose(() => sound.pause())

function listen(file: ShelfFile): void {
  if (heard.value === file.id) {
    sound.pause()
    heard.value = null
    return
  }
  sound.src = file.playAddress
  heard.value = file.id
  void sound.play()
}

const remove = (file: ShelfFile): Promise<void> =>
  attempt(async () => {
    await shelves.remove(show.value.id, file.id)
    asking.value = null
  })

const beginWith = (file: ShelfFile): Promise<void> =>
  attempt(async () => {
    const id = await shelves.beginWith(show.value.id, file.id)
    await shows.loadEpisodes()
    await router.push({ name: 'desk', params: { show: props.show, id } })
  })
</script>

<template>
  <PageLayout :heading="t('theShelf')" width="whole" :waits-for="!shelf && !problem && t('theFiles')">
    <template #beside>
      <p v-if="shelf" class="quiet figures">
        {{ t('filesHeld', { count: shelf.total, size: amount(shelf.usedBytes) }) }} ·
        {{ t('roomLeft', { size: amount(shelf.freeBytes) })
        }}<template v-if="shelf.unused"> · {{ t('countNotUsed', { count: shelf.unused }) }}</template>
      </p>
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="shelf && shelf.total === 0" class="first">
      <h2>{{ t('noFilesYet') }}</h2>
      <p>{{ t('noFilesHint') }}</p>
    </div>
    <template v-else-if="shelf">
      <DataTable
        :value="shelf.files"
        :table-props="{ 'aria-label': t('files') }"
        data-key="id"
        class="small files"
        size="small"
      >
        <Column :header="t('file')" class="file">
          <template #body="{ data: file }: { data: ShelfFile }">
            <span class="name font-semibold wrap-anywhere">{{ file.name }}</span><br /><span class="quiet"
              >{{ formatOf(file)
              }}{{ file.origin === 'finish' ? t('finishedHere') : file.address ? t('hostedElsewhereToo') : '' }}</span
            >
            <div v-if="file.isUsual" class="quiet">{{ t('isUsual') }}</div>
            <div v-else-if="file.uses === 0" class="quiet">{{ t('notUsed') }}</div>
            <div v-for="use in file.usedBy" :key="use.id">
              <span class="quiet">{{ asWords[use.as] }}</span>{{ ' ' }}
              <RouterLink :to="{ name: 'desk', params: { show: props.show, id: use.id } }"
                >{{ use.number ? `${use.number} ` : '' }}{{ use.title || t('untitledInSentence') }}</RouterLink
              >
            </div>
            <div v-if="file.uses > file.usedBy.length" class="quiet figures">
              {{ t('usedByMore', { count: file.uses - file.usedBy.length }) }}
            </div>
          </template>
        </Column>
        <Column :header="t('length')" class="figures"
          ><template #body="{ data: file }: { data: ShelfFile }">{{ clock(file.durationMs) }}</template></Column
        >
        <Column :header="t('size')" class="figures"
          ><template #body="{ data: file }: { data: ShelfFile }">{{ amount(file.bytes) }}</template></Column
        >
        <Column :header="t('loudness')" class="figures"
          ><template #body="{ data: file }: { data: ShelfFile }">{{
            file.measurement
              ? loudnessWords(file.measurement.integratedLufs)
              : file.address
                ? t('notMeasured')
                : file.measuring === 'failed'
                  ? t('notMeasurable')
                  : t('beingMeasured')
          }}</template></Column
        >
        <Column :header="t('added')" class="figures"
          ><template #body="{ data: file }: { data: ShelfFile }">{{
            shortDay(file.cameAt, show.zone)
          }}</template></Column
        >
        <Column class="acts">
          <template #header
            ><span class="out-of-sight">{{ t('actions') }}</span></template
          >
          <template #body="{ data: file }: { data: ShelfFile }">
            <button
              type="button"
              class="small-button"
              :aria-label="heard === file.id ? t('stopNamed', { name: file.name }) : t('listenTo', { name: file.name })"
              @click="listen(file)"
            >
              {{ heard === file.id ? t('stop') : t('listen') }}
            </button>
            <button
              type="button"
              class="small-button"
              :aria-label="t('useAgainNamed', { name: file.name })"
              @click="beginWith(file)"
            >
              {{ t('useAgain') }}
            </button>
            <a
              v-if="!file.address"
              class="small-button"
              :href="`/api/v1/files/${file.id}/download`"
              :aria-label="t('downloadNamed', { name: file.name })"
              >{{ t('download') }}</a
            >
            <template v-if="file.usedBy.length === 0 && !file.isUsual">
              <button
                v-if="asking !== file.id"
                type="button"
                class="small-button"
                :aria-label="t('deleteNamed', { name: file.name })"
                @click="asking = file.id"
              >
                {{ t('delete') }}
              </button>
              <span v-else v-opened="() => (asking = null)" class="actions">
                <Button type="button" size="small" :label="t('deletePermanently')" @click="remove(file)" />
                <button type="button" class="small-button" @click="asking = null">{{ t('cancel') }}</button>
              </span>
            </template>
          </template>
        </Column>
      </DataTable>
      <p v-if="shelf.after">
        <button type="button" class="small-button" @click="attempt(() => shelves.loadMore(show.id))">
          {{ t('moreFiles', { count: shelf.total - shelf.files.length }) }}
        </button>
      </p>
    </template>
  </PageLayout>
</template>

<style scoped>
.files :deep(th),
.files :deep(td) {
  vertical-align: top;
  padding: var(--space-2) var(--space-3) var(--space-2) 0;
  background: transparent;
  border-color: var(--edge);
}
.files :deep(tr) {
  background: transparent;
}
.files :deep(.p-datatable-column-title) {
  font-weight: 600;
  color: var(--ink-soft);
}
.files :deep(.file) {
  width: 42%;
}
.files :deep(td.figures) {
  white-space: nowrap;
}
.files :deep(td.acts) {
  padding-right: 0;
  text-align: right;
}
.files :deep(td.acts > *) {
  display: inline-block;
  line-height: 24px;
  margin-left: var(--space-3);
  vertical-align: top;
  white-space: nowrap;
}
/* On a phone a file's facts stand on a line below its name. */
@media (max-width: 620px) {
  .files :deep(thead) {
    position: absolute;
    clip-path: inset(50%);
  }
  .files :deep(tr) {
    display: flex;
    flex-wrap: wrap;
    padding: var(--space-2) 0;
    border-bottom: 1px solid var(--edge);
  }
  .files :deep(td) {
    padding: 0 var(--space-4) 0 0;
    border: 0;
  }
  .files :deep(td.file),
  .files :deep(td.acts) {
    width: 100%;
  }
  .files :deep(td.acts) {
    text-align: left;
  }
  .files :deep(td.acts > *) {
    margin: 0 var(--space-4) 0 0;
  }
}
.first {
  padding: var(--space-6);
  text-align: center;
  border: 2px dashed var(--edge-strong);
  border-radius: var(--round);
}
</style>
