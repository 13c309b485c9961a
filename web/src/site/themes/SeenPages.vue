<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'
import { keepInside } from '../../platform/parts/insideFrame'
import { t } from './messages'

/** The pages as they would look, as wide as a desktop, made smaller until it fits, or as a phone. */
defineProps<{ address: string | null; pageAddress: string }>()
const emit = defineEmits<{ open: [path: string] }>()

const widths = [
  { px: 1280, words: t('desktop') },
  { px: 390, words: t('phone') },
]
const px = ref(widths[0]!.px)
const stage = ref<HTMLElement>()
const { width, height } = useElementSize(stage, { width: 1, height: 1 })
const scale = computed(() => Math.min(1, width.value / px.value))
</script>

<template>
  <section class="seen flex flex-col gap-3 min-h-0" aria-labelledby="seen-name">
    <header class="flex items-center justify-between">
      <h2 id="seen-name">{{ t('asItWouldLook') }}</h2>
      <SelectButton
        v-model="px"
        :options="widths"
        option-label="words"
        option-value="px"
        :allow-empty="false"
        :aria-label="t('width')"
        size="small"
      />
    </header>
    <div ref="stage" class="stage">
      <iframe
        v-if="address"
        :src="address"
        :title="t('theShowsPages')"
        sandbox="allow-same-origin allow-scripts"
        :style="{
          width: `${px}px`,
          height: `${height / scale}px`,
          transform: `scale(${scale})`,
          marginInlineStart: `${Math.max(0, (width - px) / 2)}px`,
        }"
        @load="
          event =>
            keepInside(event.target as HTMLIFrameElement, { address: pageAddress, open: path => emit('open', path) })
        "
      />
    </div>
  </section>
</template>

<style scoped>
.stage {
  flex: 1;
  min-height: 24rem;
  overflow: hidden;
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: var(--sheet-sunk);
}
iframe {
  display: block;
  border: 0;
  background: var(--paper);
  transform-origin: 0 0;
}
</style>
