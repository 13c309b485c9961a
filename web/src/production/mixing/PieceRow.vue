<script setup lang="ts">
import { ArrowDown, ArrowUp, X } from '@lucide/vue'
import { computed, ref } from 'vue'
import { type Piece, shortestMs } from '@core/mix/document'
import { withEnds } from '@core/mix/edits'
import type { PlacedPiece } from '@core/mix/layout'
import { clock } from '@core/words/amounts'
import IconButton from '../../platform/parts/IconButton.vue'
import { vOpened } from '../../platform/parts/opened'
import FadeFields from './FadeFields.vue'
import NumberField from './NumberField.vue'
import TimeField from './TimeField.vue'
import { t } from './messages'

/** A piece: what of its file is heard, how loud, and how it meets the one before. */
const props = defineProps<{ placed: PlacedPiece; place: number; last: number; fileName: string; fileMs: number }>()
const emit = defineEmits<{ change: [part: Partial<Piece>]; move: [by: number]; remove: [] }>()
const open = ref(false)
const fault = ref('')
const piece = computed(() => props.placed.piece)
const name = computed(() => `${t('pieceNumber', { number: props.place })}, ${props.fileName}`)
const fromMs = computed(() => piece.value.kept[0]!.fromMs)
const toMs = computed(() => piece.value.kept.at(-1)!.toMs)

function setEnds(ends: { fromMs?: number; toMs?: number }): void {
  const put = { fromMs: fromMs.value, toMs: toMs.value, ...ends }
  const within = { fromMs: Math.max(0, put.fromMs), toMs: Math.min(props.fileMs, put.toMs) }
  if (within.toMs - within.fromMs >= shortestMs) emit('change', { kept: withEnds(piece.value.kept, within) })
}
</script>

<template>
  <li class="piece-row" :aria-label="name">
    <span class="figures place" aria-hidden="true">{{ place }}</span>
    <div class="grid min-w-0">
      <strong class="wrap-anywhere">{{ fileName }}</strong>
      <span class="small quiet figures"
        >{{ clock(placed.durationMs)
        }}<template v-if="piece.kept.length > 1">
          · {{ t('cutsInside', { count: piece.kept.length - 1 }) }}</template
        ></span
      >
    </div>
    <div class="values flowing">
      <TimeField
        :label="t('from')"
        :name="t('fromOf', { name })"
        :ms="fromMs"
        @change="ms => setEnds({ fromMs: ms })"
        @fault="words => (fault = words)"
      />
      <TimeField
        :label="t('to')"
        :name="t('toOf', { name })"
        :ms="toMs"
        @change="ms => setEnds({ toMs: ms })"
        @fault="words => (fault = words)"
      />
      <NumberField
        :model-value="piece.gainDb"
        :label="t('level')"
        :name="t('levelOf', { name })"
        unit="dB"
        :min="-60"
        :max="24"
        @update:model-value="gainDb => emit('change', { gainDb })"
      />
      <NumberField
        v-if="place > 1"
        :model-value="piece.overlapMs / 1000"
        :label="t('overlap')"
        :name="t('overlapOf', { name })"
        :title="t('overlapHint')"
        unit="s"
        :min="-600"
        :max="600"
        @update:model-value="seconds => emit('change', { overlapMs: seconds * 1000 })"
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
    <span class="flex">
      <IconButton :name="t('moveUp', { name })" :icon="ArrowUp" :disabled="place === 1" @click="emit('move', -1)" />
      <IconButton
        :name="t('moveDown', { name })"
        :icon="ArrowDown"
        :disabled="place === last"
        @click="emit('move', 1)"
      />
      <IconButton :name="t('removeNamed', { name })" :icon="X" @click="emit('remove')" />
    </span>
    <div v-if="open" v-opened="() => (open = false)" class="more flowing">
      <FadeFields :fades="piece" :name="name" @change="part => emit('change', part)" />
    </div>
    <p v-if="fault" class="fault more" role="alert">{{ fault }}</p>
  </li>
</template>
