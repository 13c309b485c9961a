<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Dialog from 'primevue/dialog'
import { ref } from 'vue'

/** All keys that do something by themselves, in one list. */
const isOpen = ref(false)
const groups = [
  {
    name: 'Anywhere',
    keys: [
      ['Ctrl K', 'Go to an episode, a place, something to do'],
      ['?', 'This list'],
    ],
  },
  {
    name: 'On the desk',
    keys: [
      ['Alt 1 … Alt 7', 'Open a part, from Sound to Extras'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
      ['Alt C', 'Begin a chapter at the place that is heard'],
    ],
  },
  {
    name: 'In a transcript',
    keys: [
      ['Alt P', 'Play, pause'],
      ['Alt B', 'Back 3 seconds'],
      ['Alt S', 'Slower'],
      ['Alt N', 'Play the next doubtful cue'],
      ['Alt R', 'Mark it as correct and go to the next'],
    ],
  },
] as const

const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || target.matches('input, textarea, select'))
useEventListener('keydown', event => {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target)) return
  event.preventDefault()
  isOpen.value = true
})
defineExpose({ begin: () => (isOpen.value = true) })
</script>

<template>
  <Dialog v-model:visible="isOpen" modal dismissable-mask header="Keys" :style="{ width: 'min(34rem, 94vw)' }">
    <section v-for="{ name, keys } in groups" :key="name">
      <h3 class="mt-3 text-m">{{ name }}</h3>
      <dl>
        <template v-for="[key, what] in keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd class="m-0">{{ what }}</dd>
        </template>
      </dl>
    </section>
  </Dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: var(--space-1) var(--space-3);
  margin: var(--space-1) 0 0;
}
kbd {
  font: 600 var(--text-s) var(--sans);
}
</style>
