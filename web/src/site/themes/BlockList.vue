<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { nextTick, ref } from 'vue'
import type { Block, BlockKind } from '@core/site/siteTheme'

/** What stands on the show's page, in its order: switched on and off, and moved by buttons or the keys on them. */
const props = defineProps<{ blocks: readonly Block[] }>()
const emit = defineEmits<{ change: [blocks: Block[]] }>()

const names: Readonly<Record<BlockKind, string>> = {
  subscribe: 'Hear every episode',
  episodes: 'Episodes',
  seasons: 'Seasons',
  tags: 'What it is about (tags)',
  people: 'People',
  about: 'About the show',
  comments: 'Comments',
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
      <button
        type="button"
        :disabled="at === 0"
        :aria-label="`${names[block.kind]}: up`"
        title="Up"
        @click="move(at, -1)"
      >
        ↑
      </button>
      <button
        type="button"
        :disabled="at === blocks.length - 1"
        :aria-label="`${names[block.kind]}: down`"
        title="Down"
        @click="move(at, 1)"
      >
        ↓
      </button>
    </li>
  </ol>
</template>

<style scoped>
li {
  padding-block: 2px;
}
button {
  width: 28px;
  height: 28px;
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  cursor: pointer;
}
button:disabled {
  color: var(--edge-strong);
  cursor: default;
}
</style>
