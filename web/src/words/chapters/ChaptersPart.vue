<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, nextTick, ref } from 'vue'
import { chaptersOf } from '@core/chapters/chapters'
import { type Mark, marksIn } from '@core/chapters/marks'
import type { Chapter, EpisodeText } from '@core/episode/fields'
import type { Want } from '@core/episode/wants'
import { timestampText } from '@core/words/timestamps'
import { wantWords } from '../../show/episodes/wantWords'
import { usePlaying } from '../../production/sound/playing'
import { vOpened } from '../../platform/parts/opened'
import ChapterRow from './ChapterRow.vue'
import { chapterActs } from './chapters'
import { t } from './messages'

/** The chapters of the episode, by the clock of its source. */
const text = defineModel<EpisodeText>({ required: true })
const props = defineProps<{
  brought: readonly Mark[]
  wants: readonly Want[]
  /** Where the sound that goes out begins in the source. */
  beginsMs: number
  fault?: string
}>()
const emit = defineEmits<{ notesChanged: [] }>()
const playing = usePlaying()
const pasting = ref(false)
const pasted = ref('')
const list = ref<HTMLOListElement>()

const told = computed(() => chaptersOf(text.value, props.brought))
const acts = chapterActs(
  () => text.value,
  () => props.brought,
  chapters => (text.value.chapters = chapters),
)
const heardId = computed(() => told.value.chapters.findLast(({ fromMs }) => fromMs <= playing.atMs + 50)?.id)
const marks = computed(() => marksIn(pasted.value))
const takeWords = computed(() => {
  const { length } = marks.value
  return length === 0 ? t('addThem') : length === 1 ? t('addOneChapter') : t('addChapters', { count: length })
})
const saysOf = ({ id }: Chapter): string[] => props.wants.filter(want => want.id === id).map(wantWords)
const isInNotes = computed(() => text.value.notes.includes('{chapters}'))

async function mark(): Promise<void> {
  await focusTitle(acts.add(playing.atMs))
}
async function focusTitle(id: string | undefined): Promise<void> {
  await nextTick()
  list.value?.querySelector<HTMLInputElement>(`[data-chapter="${id}"] .title`)?.focus()
}
function takePasted(): void {
  acts.take(marks.value)
  pasted.value = ''
  pasting.value = false
}
function hear({ fromMs }: Chapter): void {
  playing.player?.seek(fromMs)
  if (playing.player && !playing.player.isPlaying) playing.player.toggle()
}
function listInNotes(): void {
  text.value.notes += '<p>{chapters}</p>'
  emit('notesChanged')
}
function follow(): void {
  text.value.chapters = null
}

/** Alt and C marks the place that is heard, from anywhere. */
function onKey(event: KeyboardEvent): void {
  if (!event.altKey || event.ctrlKey || event.metaKey || event.code !== 'KeyC' || !playing.player) return
  event.preventDefault()
  void mark()
}
useEventListener('keydown', onKey)
defineExpose({ focusTitle })
</script>

<template>
  <div class="stacked">
    <div class="apart">
      <p class="small origin quiet">
        <template v-if="told.origin === 'notes'">
          {{ t('fromNotes') }}
          <button type="button" class="small-button" @click="acts.keepAsOwn">
            {{ t('editSeparatelyFromTheNotes') }}
          </button>
        </template>
        <template v-else-if="told.origin === 'file'">
          {{ t('fromFile') }}
          <button type="button" class="small-button" @click="acts.keepAsOwn">
            {{ t('editSeparatelyFromTheNotes') }}
          </button>
        </template>
        <template v-else-if="told.origin === 'own'">
          {{ t('ownChapters', { count: told.chapters.length }) }}
          <button type="button" class="small-button" @click="follow">{{ t('useNotesAgain') }}</button>
        </template>
        <template v-else>
          {{ t('noChapters') }}
        </template>
        <template v-if="beginsMs > 0 && told.chapters.length">
          {{ t('beginningTrimmed', { time: timestampText(beginsMs) }) }}
        </template>
      </p>
      <div class="actions">
        <Button
          v-if="playing.player"
          type="button"
          size="small"
          :label="t('markAt', { time: timestampText(playing.atMs) })"
          title="Alt C"
          aria-keyshortcuts="Alt+C"
          @click="mark"
        />
        <Button
          type="button"
          size="small"
          outlined
          :label="t('pasteTimes')"
          :aria-expanded="pasting"
          @click="pasting = !pasting"
        />
        <Button
          v-if="told.chapters.length && told.origin !== 'notes' && !isInNotes"
          type="button"
          size="small"
          text
          :label="t('listInNotes')"
          @click="listInNotes"
        />
      </div>
    </div>
    <form v-if="pasting" v-opened="() => (pasting = false)" class="spaced" @submit.prevent="takePasted">
      <Textarea
        v-model="pasted"
        rows="4"
        fluid
        :aria-label="t('timesAndTitles')"
        :placeholder="t('timesPlaceholder')"
      />
      <div class="actions">
        <Button type="submit" size="small" :label="takeWords" :disabled="marks.length === 0" />
        <span v-if="pasted.trim() && marks.length === 0" class="fault" role="alert">{{ t('noTimeInIt') }}</span>
      </div>
    </form>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <ol v-if="told.chapters.length" ref="list" class="list unlisted" :aria-label="t('chapters')">
      <ChapterRow
        v-for="(chapter, index) in told.chapters"
        :key="chapter.id"
        :chapter="chapter"
        :place="index + 1"
        :is-heard="chapter.id === heardId"
        :says="saysOf(chapter)"
        @change="part => acts.change(chapter.id, part)"
        @remove="acts.remove(chapter.id)"
        @hear="hear(chapter)"
        @next="focusTitle(told.chapters[index + 1]?.id)"
      />
    </ol>
  </div>
</template>

<style scoped>
.origin {
  flex: 1 1 22rem;
}
</style>
