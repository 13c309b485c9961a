<script setup lang="ts">
import { computed } from 'vue'
import { signed } from '@core/words/amounts'
import type { Sound } from '@contract/sound'
import { t } from './messages'

/** This episode's loudness beside the last ones: a dot each, the target as a line. */
const props = defineProps<{ company: Sound['company']; own: number; targetLufs: number }>()
const spanLu = 8

const place = (lufs: number): number => Math.min(96, Math.max(4, 50 - ((lufs - props.targetLufs) / spanLu) * 50))
const others = computed(() =>
  props.company.map(each => ({
    ...each,
    top: place(each.lufs),
    says: t('loudnessOf', { episode: `${each.number ?? ''} ${each.title}`, lufs: signed(each.lufs) }).trim(),
  })),
)
const words = computed(() => {
  const [first] = props.company
  return first
    ? t('recentLoudness', {
        count: props.company.length,
        lufs: props.company.map(each => signed(each.lufs)).join(', '),
      })
    : t('noneToCompare')
})
</script>

<template>
  <figure class="m-0">
    <div
      class="strip"
      role="img"
      :aria-label="t('thisOneCompared', { others: words, lufs: signed(own), target: signed(targetLufs) })"
    >
      <span class="target" />
      <span v-for="each in others" :key="each.id" class="column" :title="each.says"
        ><i :style="{ top: `${each.top}%` }"
      /></span>
      <span class="column own" :title="t('thisEpisodeLoudness', { lufs: signed(own) })"
        ><i :style="{ top: `${place(own)}%` }"
      /></span>
    </div>
    <figcaption class="small quiet" aria-hidden="true">
      {{ company.length ? t('recentLoudnessTitle') : t('loudness') }}
    </figcaption>
  </figure>
</template>

<style scoped>
/* Its name stands beside it, or below where there is no room. */
figure {
  display: flex;
  flex: 1 1 80px;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-2);
  align-items: center;
  min-width: min-content;
}
.strip {
  position: relative;
  display: flex;
  gap: 3px;
  height: 40px;
  padding-inline: 4px;
  border-radius: var(--round);
  background: var(--sheet-sunk);
}
.target {
  position: absolute;
  inset-inline: 0;
  top: 50%;
  border-top: 1px dashed var(--edge-strong);
}
.column {
  position: relative;
  width: 9px;
}
.column i {
  position: absolute;
  left: 1px;
  width: 7px;
  height: 7px;
  margin-top: -3.5px;
  border-radius: 50%;
  background: var(--edge-strong);
}
.own i {
  left: -1px;
  width: 11px;
  height: 11px;
  margin-top: -5.5px;
  background: var(--accent);
  border: 2px solid var(--sheet);
}
</style>
