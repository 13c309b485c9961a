<script setup lang="ts">
import Button from 'primevue/button'
import { nextTick, ref } from 'vue'
import type { Soundbite } from '@core/episode/fields'
import type { Want } from '@core/episode/wants'
import { timestampText } from '@core/words/timestamps'
import { wantWords } from '../../show/episodes/wantWords'
import { usePlaying } from '../sound/playing'
import SoundbiteRow from './SoundbiteRow.vue'
import { t } from './messages'

/** Stretches that stand for the episode: apps play them before, and each can be passed on as a short file. */
const props = defineProps<{
  soundbites: readonly Soundbite[]
  chosenId: string | undefined
  wants: readonly Want[]
  hasSound: boolean
  isFull: boolean
  isElsewhere: boolean
  /** Where those are had as files that can be, by their ids. */
  downloads: Readonly<Record<string, string>>
  title: string
  fault?: string
}>()
const emit = defineEmits<{
  add: [ms: number]
  choose: [id: string]
  hear: [soundbite: Soundbite]
  change: [id: string, part: Partial<Soundbite>]
  move: [id: string, edge: 'fromMs' | 'toMs', ms: number]
  remove: [id: string]
}>()
const playing = usePlaying()
const list = ref<HTMLOListElement>()
const saysOf = ({ id }: Soundbite): string[] => props.wants.filter(want => want.id === id).map(wantWords)

async function focusTitle(id: string | undefined): Promise<void> {
  await nextTick()
  list.value?.querySelector<HTMLInputElement>(`[data-soundbite="${id}"] .title`)?.focus()
}
defineExpose({ focusTitle })
</script>

<template>
  <div class="stacked">
    <div class="apart">
      <p class="small origin quiet">
        <template v-if="!hasSound">{{ t('addAudioFirst') }}</template>
        <template v-else-if="soundbites.length === 0">
          {{ t('noSoundbites') }}
        </template>
        <template v-else-if="isElsewhere">
          {{ t('soundbitesElsewhere') }}
        </template>
        <template v-else>{{ t('soundbitesTell') }}</template>
      </p>
      <Button
        v-if="hasSound && playing.player"
        type="button"
        size="small"
        :disabled="isFull"
        :label="t('markFrom', { time: timestampText(playing.atMs) })"
        @click="emit('add', playing.atMs)"
      />
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <ol v-if="soundbites.length" ref="list" class="list unlisted" :aria-label="t('soundbites')">
      <SoundbiteRow
        v-for="(soundbite, index) in soundbites"
        :key="soundbite.id"
        :soundbite="soundbite"
        :place="index + 1"
        :is-chosen="soundbite.id === chosenId"
        :says="saysOf(soundbite)"
        :download="downloads[soundbite.id] ?? null"
        :usual="title || t('episodeTitle')"
        @choose="emit('choose', soundbite.id)"
        @hear="emit('hear', soundbite)"
        @change="part => emit('change', soundbite.id, part)"
        @move="(edge, ms) => emit('move', soundbite.id, edge, ms)"
        @remove="emit('remove', soundbite.id)"
      />
    </ol>
  </div>
</template>

<style scoped>
.origin {
  flex: 1 1 22rem;
}
</style>
