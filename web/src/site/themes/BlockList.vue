<script setup lang="ts">
import { ArrowDown, ArrowUp } from '@lucide/vue'
import Checkbox from 'primevue/checkbox'
import { nextTick, ref } from 'vue'
import type { Block, BlockKind } from '@core/site/siteTheme'
import IconButton from '../../platform/parts/IconButton.vue'
import { t } from './messages'

/** What stands on the show's page, in its order: switched on and off, and moved by buttons or the keys on them. */
const props = defineProps<{ blocks: readonly Block[] }>()
const emit = defineEmits<{ change: [blocks: Block[]] }>()

const names: Readonly<Record<BlockKind, string>> = {
  subscribe: t('subscribe'),
  episodes: t('episodes'),
  seasons: t('seasons'),
  tags: t('aboutTags'),
  people: t('people'),
  about: t('aboutTheShow'),
  comments: t('comments'),
}
const list = ref<HTMLElement>()

const set = (at: number, isOn: boolean): void =>
  emit(
    'change',
    props.blocks.map((block, index) => (index === at ? { ...block, isOn } : block)),
  )
async function move(at: number, by: -1 | 1): Promise<void> {
  const blocks = [...props.blocks]
  const [block] = blocks.splice(at, 1)
  blocks.splice(at + by, 0, block!)
  emit('change', blocks)
  await nextTick()
  // The button goes along with its block, and with it the focus; at an end the other one takes it.
  const buttons = [...list.value!.children[at + by]!.querySelectorAll('button')]
  const wanted = buttons[by < 0 ? 0 : 1]!
  ;(wanted.disabled ? buttons.find(({ disabled }) => !disabled) : wanted)?.focus()
}
</script>

<template>
  <ol class="unlisted" ref="list">
    <li v-for="(block, at) in blocks" :key="block.kind" class="side-by-side">
      <Checkbox
        :input-id="`block-${block.kind}`"
        binary
        :model-value="block.isOn"
        @update:model-value="isOn => set(at, isOn)"
      />
      <label class="flex-1" :for="`block-${block.kind}`" :class="{ quiet: !block.isOn }">{{ names[block.kind] }}</label>
      <IconButton
        :name="t('moveUp', { name: names[block.kind] })"
        :icon="ArrowUp"
        :disabled="at === 0"
        @click="move(at, -1)"
      />
      <IconButton
        :name="t('moveDown', { name: names[block.kind] })"
        :icon="ArrowDown"
        :disabled="at === blocks.length - 1"
        @click="move(at, 1)"
      />
    </li>
  </ol>
</template>

<style scoped>
li {
  padding-block: 2px;
}
</style>
