<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import Slider from 'primevue/slider'
import { computed } from 'vue'
import { levellingOf } from '@core/audio/leveller'
import { type EncodingName, encodingNames, fadeShapes, oneChannels, type Recipe } from '@core/audio/recipe'
import { clock } from '@core/words/amounts'
import { t } from './messages'

/** The recipe of an episode, or the usual one of a show: every value has a sensible beginning. */
const recipe = defineModel<Recipe>({ required: true })
const props = defineProps<{ durationMs: number | null; canGoAsItCame: boolean }>()

const encodingWords: Readonly<Record<EncodingName, string>> = {
  'speech and music': t('mp3Stereo'),
  speech: t('mp3Mono'),
  m4a: t('m4aStereo'),
  'as it came': t('keepAudio'),
}
const encodings = computed(() =>
  encodingNames
    .filter(name => name !== 'as it came' || props.canGoAsItCame)
    .map(value => ({ value, name: encodingWords[value] })),
)
const untouched = computed(() => recipe.value.encoding === 'as it came')
const sides = oneChannels.map(value => ({
  value,
  name: value === 'both sides' ? t('bothSidesMixed') : t('onlySide', { side: value }),
}))
const shapes = fadeShapes.map(value => ({ value, name: value === 'linear' ? t('linear') : t('logarithmic') }))

const set = (change: Partial<Recipe>): void => {
  recipe.value = { ...recipe.value, ...change }
}
const levellingWords = computed(() => {
  const { levelling } = recipe.value
  if (levelling === 0) return ''
  const { thresholdDb, ratio } = levellingOf(levelling)
  return t('levelledAbove', { threshold: Math.abs(Math.round(thresholdDb)), ratio: ratio.toFixed(1) })
})
/** Where it is cut once more if it does not go out as it came after all. */
let ends: Pick<Recipe, 'fromMs' | 'toMs'> = { fromMs: null, toMs: null }
function encode(encoding: EncodingName): void {
  const { fromMs, toMs } = recipe.value
  if (encoding === 'as it came') ends = { fromMs, toMs }
  set({ encoding, ...(encoding === 'as it came' ? { fromMs: null, toMs: null } : untouched.value ? ends : {}) })
}
const isCut = computed(() => recipe.value.fromMs !== null || recipe.value.toMs !== null)
</script>

<template>
  <div class="recipe">
    <div class="field">
      <label id="encoding-name" for="encoding">{{ t('publishedAs') }}</label>
      <Select
        :model-value="recipe.encoding"
        label-id="encoding"
        aria-labelledby="encoding-name"
        :options="encodings"
        option-label="name"
        option-value="value"
        size="small"
        @update:model-value="encode"
      />
    </div>
    <template v-if="!untouched">
      <div v-if="recipe.encoding === 'speech'" class="field">
        <label id="one-channel-name" for="one-channel">{{ t('monoChannel') }}</label>
        <Select
          :model-value="recipe.oneChannel"
          label-id="one-channel"
          aria-labelledby="one-channel-name"
          :options="sides"
          option-label="name"
          option-value="value"
          size="small"
          @update:model-value="oneChannel => set({ oneChannel })"
        />
      </div>
      <div class="field">
        <span class="field-name">{{ t('loudness') }}</span>
        <div class="row flowing">
          <span class="check side-by-side"
            ><Checkbox
              :model-value="recipe.toTarget"
              binary
              input-id="to-target"
              size="small"
              @update:model-value="(toTarget: boolean) => set({ toTarget })"
            /><label for="to-target">{{ t('normaliseTo') }}</label></span
          >
          <InputNumber
            :model-value="recipe.targetLufs"
            :min="-30"
            :max="-8"
            :max-fraction-digits="1"
            suffix=" LUFS"
            size="small"
            :disabled="!recipe.toTarget"
            :input-style="{ width: '6rem' }"
            :aria-label="t('targetLoudnessInLufs')"
            @update:model-value="value => set({ targetLufs: value ?? -16 })"
          />
        </div>
      </div>
      <div class="field">
        <span id="levelling" class="field-name"
          >{{ t('evenOutSpeech') }} <span class="quiet">{{ levellingWords }}</span></span
        >
        <div class="row flowing">
          <span class="small">{{ t('off') }}</span>
          <Slider
            class="slide"
            :model-value="recipe.levelling"
            :min="0"
            :max="1"
            :step="0.05"
            aria-labelledby="levelling"
            @update:model-value="value => set({ levelling: Math.round(Number(value) * 100) / 100 })"
          />
          <span class="small">{{ t('strong') }}</span>
        </div>
      </div>
      <div class="field">
        <label for="ceiling">{{ t('peaksAtMost') }}</label>
        <div class="row flowing">
          <InputNumber
            :model-value="recipe.ceilingDbtp"
            input-id="ceiling"
            :min="-9"
            :max="0"
            :max-fraction-digits="1"
            suffix=" dBTP"
            size="small"
            :input-style="{ width: '6rem' }"
            @update:model-value="value => set({ ceilingDbtp: value ?? -1 })"
          />
        </div>
      </div>
      <div v-if="durationMs !== null" class="field">
        <span class="field-name">{{ t('trim') }}</span>
        <div class="row flowing">
          <span v-if="isCut" class="figures small">{{
            t('trimmedTo', {
              from: clock(recipe.fromMs ?? 0),
              to: clock(recipe.toMs ?? durationMs),
              length: clock((recipe.toMs ?? durationMs) - (recipe.fromMs ?? 0)),
            })
          }}</span>
          <button v-if="isCut" type="button" class="small-button" @click="set({ fromMs: null, toMs: null })">
            {{ t('undoTheTrim') }}
          </button>
          <template v-else
            ><span class="quiet small">{{ t('nothingIsTrimmed') }}</span
            ><slot name="trim"
          /></template>
        </div>
      </div>
      <div class="field">
        <span class="field-name">{{ t('fades') }}</span>
        <div class="row flowing">
          <span>{{ t('fadeIn') }}</span>
          <InputNumber
            :model-value="recipe.fadeInMs / 1000"
            :min="0"
            :max="60"
            :max-fraction-digits="1"
            suffix=" s"
            size="small"
            :input-style="{ width: '4rem' }"
            :aria-label="t('fadeInSeconds')"
            @update:model-value="value => set({ fadeInMs: Math.round((value ?? 0) * 1000) })"
          />
          <span>{{ t('fadeOut') }}</span>
          <InputNumber
            :model-value="recipe.fadeOutMs / 1000"
            :min="0"
            :max="60"
            :max-fraction-digits="1"
            suffix=" s"
            size="small"
            :input-style="{ width: '4rem' }"
            :aria-label="t('fadeOutSeconds')"
            @update:model-value="value => set({ fadeOutMs: Math.round((value ?? 0) * 1000) })"
          />
          <Select
            v-if="recipe.fadeInMs || recipe.fadeOutMs"
            :model-value="recipe.fadeShape"
            :options="shapes"
            option-label="name"
            option-value="value"
            size="small"
            :aria-label="t('shapeOfTheFades')"
            @update:model-value="fadeShape => set({ fadeShape })"
          />
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.recipe {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-2) var(--space-5);
}
.row {
  min-height: 32px;
}
.check {
  gap: var(--space-1);
  min-height: 24px;
}
.slide {
  flex: 1;
  max-width: 14rem;
  margin-inline: var(--space-2);
}
@media (max-width: 760px) {
  .recipe {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
