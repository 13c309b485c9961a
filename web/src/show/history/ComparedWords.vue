<script setup lang="ts">
import { computed } from 'vue'
import { compareWords } from '@core/history/compare'
import { t } from './messages'

/** Two texts as one: what is only in the earlier one is struck out, what is only in the later one underlined. */
const props = defineProps<{ earlier: string; later: string }>()
const pieces = computed(() => compareWords(props.earlier, props.later))
const isSame = computed(() => pieces.value.every(piece => piece.in === 'both'))
const tags = { both: 'span', earlier: 'del', later: 'ins' } as const
</script>

<template>
  <p v-if="isSame" class="quiet">{{ t('onlyFormattingDiffers') }}</p>
  <p v-else class="words" dir="auto">
    <component :is="tags[piece.in]" v-for="(piece, at) in pieces" :key="at" class="piece">{{ piece.words }}</component>
  </p>
</template>

<style scoped>
.words {
  padding: var(--space-2) var(--space-3);
  background: var(--paper);
  border-radius: var(--round);
  font-family: var(--serif);
  overflow-wrap: anywhere;
  white-space: pre-line;
}
</style>
