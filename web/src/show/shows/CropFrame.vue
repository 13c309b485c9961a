<script setup lang="ts">
import Button from 'primevue/button'
import Slider from 'primevue/slider'
import { computed, ref } from 'vue'
import { Cropper, type CropperResult } from 'vue-advanced-cropper'
import 'vue-advanced-cropper/dist/style.css'
import { artworkRule, type Crop } from '@core/show/artwork'
import { t } from './messages'

/** Shows a square of a picture, which can be moved and made smaller: by hand, or along the picture with the slider's keys. */
const props = defineProps<{ picture: string; widthPx: number; heightPx: number; why: string; busy: boolean }>()
const emit = defineEmits<{ cut: [crop: Crop]; cancel: [] }>()

const largestPx = computed(() => Math.min(props.widthPx, props.heightPx))
const crop = ref<Crop>({ left: 0, top: 0, sidePx: largestPx.value })
const cropper = ref<InstanceType<typeof Cropper>>()
const isWide = computed(() => props.widthPx >= props.heightPx)
/** How far the square can be moved along the long side. */
const slackPx = computed(() => Math.max(props.widthPx, props.heightPx) - crop.value.sidePx)
const offsetPx = computed(() => (isWide.value ? crop.value.left : crop.value.top))

function take({ coordinates: { left, top, width, height } }: CropperResult): void {
  // Rounding must not lead out of the picture.
  const sidePx = Math.min(width, height, largestPx.value)
  crop.value = {
    left: Math.max(0, Math.min(left, props.widthPx - sidePx)),
    top: Math.max(0, Math.min(top, props.heightPx - sidePx)),
    sidePx,
  }
}

function move(toPx: number): void {
  cropper.value?.setCoordinates(isWide.value ? { left: toPx } : { top: toPx })
}
const usual = ({ imageSize: { width, height } }: { imageSize: { width: number; height: number } }) => ({
  width: Math.min(width, height),
  height: Math.min(width, height),
})
</script>

<template>
  <div class="note needs-you min-w-0 max-w-full">
    <p>{{ t('cropIt', { why }) }}</p>
    <Cropper
      ref="cropper"
      class="picture"
      :src="picture"
      :stencil-props="{ aspectRatio: 1 }"
      :default-size="usual"
      :min-width="artworkRule.minPx"
      :min-height="artworkRule.minPx"
      :check-orientation="false"
      image-restriction="stencil"
      @change="take"
    />
    <div v-if="slackPx > 0" class="flowing gap-x-4 gap-y-2 mb-3">
      <span id="move-the-square">{{ t('moveTheSquare') }}</span>
      <Slider
        class="slide"
        :model-value="offsetPx"
        :min="0"
        :max="slackPx"
        aria-labelledby="move-the-square"
        @update:model-value="value => move(Number(value))"
      />
    </div>
    <div class="actions">
      <Button type="button" :label="t('crop')" :loading="busy" @click="emit('cut', crop)" />
      <Button type="button" :label="t('cancel')" text @click="emit('cancel')" />
    </div>
  </div>
</template>

<style scoped>
.picture {
  width: 100%;
  height: 200px;
  overflow: hidden;
  margin-block: var(--space-3);
  background: var(--sheet-sunk);
}
/* The library paints black around the picture. */
.picture :deep(.vue-advanced-cropper__background) {
  background: var(--sheet-sunk);
}
.slide {
  flex: 1 1 9rem;
  max-width: 20rem;
  margin-inline: var(--space-2);
}
</style>
