<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import SelectButton from 'primevue/selectbutton'
import { computed, ref, useTemplateRef } from 'vue'
import type { SharedEpisode } from '@contract/sharing'
import type { Show } from '@contract/shows'
import { embedCode, type EmbedTheme, embedHeight, embedQuery } from '@core/site/embed'
import CopyField from '../../platform/parts/CopyField.vue'
import { t } from './messages'

/** A player for another page: what is in it, its colours and its size, seen as it will be, and the code for it. */
const props = defineProps<{ show: Show; episode: SharedEpisode }>()

const contents = [
  { what: 'episode', words: t('thisEpisode') },
  { what: 'show', words: t('theNewestOnes') },
] as const
const schemes = [
  { scheme: null, words: t('asTheDevice') },
  { scheme: 'light', words: t('light') },
  { scheme: 'dark', words: t('dark') },
] as const
const what = ref<'episode' | 'show'>('episode')
const scheme = ref<EmbedTheme['scheme']>(null)
const accent = ref<string | null>(null)
const width = ref<number | null>(null)

/** How high the player says that it is. */
const told = ref<number | null>(null)
const frame = useTemplateRef('frame')
function hear({ source, data }: MessageEvent<{ playerHeight?: number } | null>): void {
  if (source === frame.value?.contentWindow && data?.playerHeight) told.value = data.playerHeight
}
useEventListener('message', hear)

const size = computed(() => ({ width: width.value ?? '100%', height: embedHeight(what.value, width.value) }))
const address = computed(
  () =>
    `${what.value === 'episode' ? props.episode.pageAddress : props.show.pageAddress}/embed${embedQuery({ scheme: scheme.value, accent: accent.value })}`,
)
const code = computed(() =>
  embedCode(address.value, what.value === 'episode' ? props.episode.title : props.show.name, size.value),
)
</script>

<template>
  <div class="spaced gap-3">
    <div class="choices flowing gap-x-4 gap-y-2">
      <SelectButton
        v-model="what"
        :options="[...contents]"
        option-label="words"
        option-value="what"
        :allow-empty="false"
        :aria-label="t('whatIsInIt')"
        size="small"
      />
      <SelectButton
        v-model="scheme"
        :options="[...schemes]"
        option-label="words"
        option-value="scheme"
        :allow-empty="false"
        :aria-label="t('lightOrDark')"
        size="small"
      />
      <label class="wish flex gap-2 items-center">
        <input type="checkbox" :checked="accent !== null" @change="accent = accent === null ? '#12495f' : null" />
        {{ t('customColour') }}
      </label>
      <input v-if="accent !== null" v-model="accent" type="color" :aria-label="t('colour')" />
      <label class="wish flex gap-2 items-center">
        {{ t('width') }}
        <select v-model="width">
          <option :value="null">{{ t('widthFull') }}</option>
          <option v-for="px in [320, 480, 600, 800]" :key="px" :value="px">{{ t('widthPx', { width: px }) }}</option>
        </select>
      </label>
    </div>
    <iframe
      class="max-w-full border-0"
      ref="frame"
      :src="address"
      :title="t('playerPreview')"
      :style="{ width: width ? `${width}px` : '100%' }"
      :height="width === null && told !== null && what === 'episode' ? told : size.height"
    />
    <CopyField :label="t('codeForThePage')" :text="code" />
    <p class="small quiet">{{ t('oembedHint') }}</p>
  </div>
</template>

<style scoped>
.wish {
  min-height: var(--target);
}
.choices :deep(.p-selectbutton) {
  flex-wrap: wrap;
}
select,
input[type='color'] {
  min-height: max(32px, var(--target));
  border: 1px solid var(--edge-strong);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
</style>
