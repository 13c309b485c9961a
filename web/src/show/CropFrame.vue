<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { Crop } from '@core/show/artwork'

/** Shows the largest square of a picture and lets it be moved along the picture's long side. */
const props = defineProps<{ picture: string; widthPx: number; heightPx: number; why: string; busy: boolean }>()
const emit = defineEmits<{ cut: [crop: Crop]; cancel: [] }>()

const sidePx = computed(() => Math.min(props.widthPx, props.heightPx))
const slackPx = computed(() => Math.max(props.widthPx, props.heightPx) - sidePx.value)
const offsetPx = ref(Math.floor(slackPx.value / 2))
const isWide = computed(() => props.widthPx > props.heightPx)

const crop = computed<Crop>(() => ({
  left: isWide.value ? offsetPx.value : 0,
  top: isWide.value ? 0 : offsetPx.value,
  sidePx: sidePx.value,
}))
const square = computed(() => ({
  left: `${(crop.value.left / props.widthPx) * 100}%`,
  top: `${(crop.value.top / props.heightPx) * 100}%`,
  width: `${(sidePx.value / props.widthPx) * 100}%`,
  height: `${(sidePx.value / props.heightPx) * 100}%`,
}))
</script>

<template>
  <div class="note needs-you">
    <p>{{ why }} This square can be cut from it:</p>
    <div class="picture">
      <img :src="picture" alt="The picture you chose">
      <div class="square" :style="square" />
    </div>
    <label v-if="slackPx > 0" class="slider">
      <span>Move the square</span>
      <input v-model.number="offsetPx" type="range" min="0" :max="slackPx">
    </label>
    <div class="actions">
      <Button type="button" label="Cut it out" :loading="busy" @click="emit('cut', crop)" />
      <Button type="button" label="Leave it" text @click="emit('cancel')" />
    </div>
  </div>
</template>

<style scoped>
.picture { position: relative; width: fit-content; margin-block: var(--space-3); overflow: hidden; }
.picture img { max-height: 260px; max-width: 100%; }
.square { position: absolute; outline: 2000px solid var(--veil); box-shadow: inset 0 0 0 2px var(--on-signal); }
.slider { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-3); align-items: center; margin-bottom: var(--space-3); }
.slider input { flex: 1 1 9rem; max-width: 20rem; min-height: 24px; accent-color: var(--accent); }
</style>
