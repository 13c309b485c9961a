<script setup lang="ts">
import { X } from '@lucide/vue'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import { type Bed, shortestMs, usualDucking } from '@core/mix/document'
import { clock } from '@core/words/amounts'
import IconButton from '../../platform/parts/IconButton.vue'
import { vOpened } from '../../platform/parts/opened'
import FadeFields from './FadeFields.vue'
import NumberField from './NumberField.vue'
import TimeField from './TimeField.vue'
import { t } from './messages'

/** Music under a piece: when it begins, how long it goes on, how far it gives way. */
const props = defineProps<{
  bed: Bed
  place: number
  fileName: string
  fileMs: number
  pieces: readonly { id: string; name: string }[]
}>()
const emit = defineEmits<{ change: [part: Partial<Bed>]; remove: [] }>()
const open = ref(false)
const fault = ref('')
const name = computed(() => `${t('bedNumber', { number: props.place })}, ${props.fileName}`)
const isLooped = computed(() => props.bed.durationMs > props.fileMs - props.bed.startMs)

type When = `${'before' | 'after'} ${Bed['offsetFrom']}`
const whenWords: Readonly<Record<When, string>> = {
  'before beginning': t('beforeBeginning'),
  'after beginning': t('afterBeginning'),
  'before end': t('beforeEnd'),
  'after end': t('afterEnd'),
}
const whens = Object.entries(whenWords).map(([value, name]) => ({ value, name }))
const when = computed((): When => `${props.bed.offsetMs < 0 ? 'before' : 'after'} ${props.bed.offsetFrom}`)
function begin(seconds: number, at: When): void {
  const [side, offsetFrom] = at.split(' ') as ['before' | 'after', Bed['offsetFrom']]
  emit('change', { offsetFrom, offsetMs: (side === 'before' ? -1 : 1) * seconds * 1000 })
}
const seconds = computed(() => Math.abs(props.bed.offsetMs) / 1000)
</script>

<template>
  <li class="bed-row" :aria-label="name">
    <span class="figures place" aria-hidden="true">{{ place }}</span>
    <div class="grid min-w-0">
      <strong class="wrap-anywhere">{{ fileName }}</strong>
      <span class="small quiet figures"
        >{{ clock(fileMs) }}<template v-if="isLooped"> · {{ t('loops') }}</template></span
      >
    </div>
    <IconButton :name="t('removeNamed', { name })" :icon="X" @click="emit('remove')" />
    <div class="values flowing">
      <label v-if="pieces.length > 1" class="grid"
        ><span class="small quiet" aria-hidden="true">{{ t('under') }}</span
        ><Select
          class="under"
          :model-value="bed.under"
          :options="[...pieces]"
          option-label="name"
          option-value="id"
          size="small"
          :aria-label="t('underOf', { name })"
          @update:model-value="under => emit('change', { under })"
      /></label>
      <NumberField
        :model-value="seconds"
        :label="t('begins')"
        :name="t('beginsOf', { name })"
        unit="s"
        :min="0"
        :max="86400"
        @update:model-value="to => begin(to, when)"
      />
      <Select
        class="when"
        :model-value="when"
        :options="whens"
        option-label="name"
        option-value="value"
        size="small"
        :aria-label="t('beginsWhen', { name })"
        @update:model-value="to => begin(seconds, to)"
      />
      <TimeField
        :label="t('lasts')"
        :name="t('lastsOf', { name })"
        :ms="bed.durationMs"
        @change="durationMs => durationMs >= shortestMs && emit('change', { durationMs })"
        @fault="words => (fault = words)"
      />
      <NumberField
        :model-value="bed.gainDb"
        :label="t('level')"
        :name="t('levelOf', { name })"
        unit="dB"
        :min="-60"
        :max="24"
        @update:model-value="gainDb => emit('change', { gainDb })"
      />
      <NumberField
        :model-value="bed.ducking?.depthDb ?? 0"
        :label="t('givesWay')"
        :name="t('givesWayOf', { name })"
        unit="dB"
        :min="0"
        :max="60"
        @update:model-value="
          depthDb => emit('change', { ducking: depthDb > 0 ? { ...(bed.ducking ?? usualDucking), depthDb } : null })
        "
      />
      <button
        type="button"
        class="small-button"
        :aria-expanded="open"
        :aria-label="t('moreAbout', { name })"
        @click="open = !open"
      >
        {{ t('more') }}
      </button>
    </div>
    <div v-if="open" v-opened="() => (open = false)" class="more flowing">
      <TimeField
        :label="t('startsAt')"
        :name="t('startsAtOf', { name })"
        :ms="bed.startMs"
        @change="startMs => emit('change', { startMs: Math.min(startMs, Math.max(0, fileMs - shortestMs)) })"
        @fault="words => (fault = words)"
      />
      <FadeFields :fades="bed" :name="name" @change="part => emit('change', part)" />
    </div>
    <p v-if="fault" class="fault more" role="alert">{{ fault }}</p>
  </li>
</template>
