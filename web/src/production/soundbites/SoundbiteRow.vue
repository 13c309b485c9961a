<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Soundbite } from '@core/episode/fields'
import { clock } from '@core/words/amounts'
import PlaceRow from '../../platform/parts/PlaceRow.vue'
import TimestampInput from '../../platform/parts/TimestampInput.vue'
import { t } from './messages'

/** One soundbite: from when to when, its title, and its file. */
const props = defineProps<{
  soundbite: Soundbite
  place: number
  isChosen: boolean
  says: readonly string[]
  /** Where it is had as a file of its own; null where it cannot be had. */
  download: string | null
  /** What it is called where it has no title. */
  usual: string
}>()
const emit = defineEmits<{
  change: [part: Partial<Soundbite>]
  move: [edge: 'fromMs' | 'toMs', ms: number]
  remove: []
  hear: []
  choose: []
}>()
const faults = ref({ fromMs: '', toMs: '' })
const fault = computed(() => faults.value.fromMs || faults.value.toMs)
const name = computed(() => props.soundbite.title || t('soundbiteNumber', { number: props.place }))
</script>

<template>
  <PlaceRow
    class="soundbite"
    :class="{ chosen: isChosen }"
    kind="soundbite"
    :place="place"
    :title="soundbite.title"
    :says="says"
    :fault="fault"
    :data-soundbite="soundbite.id"
    @focusin="emit('choose')"
    @hear="emit('hear')"
    @remove="emit('remove')"
  >
    <TimestampInput
      :ms="soundbite.fromMs"
      :label="t('whenBegins', { name })"
      @change="ms => emit('move', 'fromMs', ms)"
      @fault="words => (faults.fromMs = words)"
    />
    <span class="quiet small">{{ t('to') }}</span>
    <TimestampInput
      :ms="soundbite.toMs"
      :label="t('whenEnds', { name })"
      @change="ms => emit('move', 'toMs', ms)"
      @fault="words => (faults.toMs = words)"
    />
    <span class="figures small quiet long text-end">{{ clock(soundbite.toMs - soundbite.fromMs) }}</span>
    <InputText
      class="title"
      size="small"
      :model-value="soundbite.title"
      :aria-label="t('titleOfSoundbite', { number: place })"
      maxlength="128"
      :placeholder="usual"
      @update:model-value="title => emit('change', { title: title ?? '' })"
    />
    <a v-if="download" class="small-button" :href="download" :aria-label="t('downloadAsMp3', { name })" download>{{
      t('download')
    }}</a>
    <span v-else />
  </PlaceRow>
</template>

<style scoped>
.soundbite {
  grid-template-columns: 28px 6.2rem auto 6.2rem 3.4rem minmax(0, 1fr) auto auto;
}
@media (max-width: 620px) {
  .soundbite {
    grid-template-columns: 28px minmax(0, 1fr) auto minmax(0, 1fr);
  }
  .long {
    grid-column: 2;
    text-align: start;
  }
  .title {
    grid-column: 1 / -1;
  }
}
</style>
