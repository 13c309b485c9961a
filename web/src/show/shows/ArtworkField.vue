<script setup lang="ts">
import Button from 'primevue/button'
import { onUnmounted, ref } from 'vue'
import type { Picture } from '@contract/shows'
import type { Crop } from '@core/show/artwork'
import CropFrame from './CropFrame.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf } from '../../platform/parts/problems'
import { ApiError } from '../../platform/api/client'
import { vOpened } from '../../platform/parts/opened'
import { useShows } from './shows'
import { t } from './messages'

/** Chooses the artwork: as it is, or the square that is cut from it. `without` says what is so where none is chosen. */
const props = defineProps<{ address: string | null; fault?: string; without: string }>()
const emit = defineEmits<{ chosen: [picture: Picture] }>()
const shows = useShows()
const picked = ref<{ file: File; preview: string } | null>(null)
const offered = ref<{ crop: Crop; widthPx: number; heightPx: number } | null>(null)
const problem = ref<{ title: string; detail: string; todo: string } | null>(null)
const input = ref<HTMLInputElement>()
const busy = ref(false)

function forget(): void {
  if (picked.value) URL.revokeObjectURL(picked.value.preview)
  picked.value = null
  offered.value = null
  problem.value = null
}
onUnmounted(forget)

function pick(): void {
  const file = input.value?.files?.[0]
  if (!file) return
  forget()
  picked.value = { file, preview: URL.createObjectURL(file) }
  input.value!.value = ''
  void send()
}

async function send(crop?: Crop): Promise<void> {
  busy.value = true
  try {
    const picture = await shows.addArtwork(picked.value!.file, crop)
    forget()
    emit('chosen', picture)
  } catch (error) {
    problem.value = problemOf(error, t('pictureNotSent'))
    offered.value =
      error instanceof ApiError && error.problem.crop ? (error.problem as unknown as typeof offered.value) : null
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="field grid-cols-1">
    <span class="field-name" id="artwork-name">{{ t('artwork') }}</span>
    <div class="flowing gap-x-4 gap-y-3">
      <img v-if="props.address && !offered" :src="props.address" :alt="t('theArtworkNow')" width="240" height="240" />
      <div v-else-if="!offered" class="blank" aria-hidden="true" />
      <div class="choose spaced">
        <Button
          type="button"
          :label="props.address ? t('chooseAnotherPicture') : t('chooseAPicture')"
          outlined
          :loading="busy"
          aria-describedby="artwork-hint"
          @click="input?.click()"
        />
        <span id="artwork-hint" class="hint">{{ t('artworkHint', { without }) }}</span>
        <span v-if="props.fault" class="fault">{{ props.fault }}</span>
      </div>
    </div>
    <input
      ref="input"
      class="out-of-sight"
      type="file"
      accept="image/jpeg,image/png,image/webp"
      aria-labelledby="artwork-name"
      tabindex="-1"
      @change="pick"
    />
    <ProblemNote v-if="problem && !offered" :problem="problem" />
    <CropFrame
      v-if="offered && picked"
      v-opened="forget"
      :picture="picked.preview"
      :width-px="offered.widthPx"
      :height-px="offered.heightPx"
      :why="problem!.detail"
      :busy="busy"
      @cut="send"
      @cancel="forget"
    />
  </div>
</template>

<style scoped>
img,
.blank {
  width: 15rem;
  max-width: 100%;
  aspect-ratio: 1;
  border-radius: var(--round);
  flex: none;
}
.blank {
  border: 2px dashed var(--edge-strong);
}
.choose {
  flex: 1 1 12rem;
  justify-items: start;
}
</style>
