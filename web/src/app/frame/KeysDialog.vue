<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Dialog from 'primevue/dialog'
import { ref } from 'vue'
import { t } from './messages'

/** All keys that do something by themselves, in one list. */
const isOpen = ref(false)
const groups = [
  {
    name: t('anywhere'),
    keys: [
      ['Ctrl K', t('keyGoTo')],
      ['?', t('keyList')],
    ],
  },
  {
    name: t('onTheDesk'),
    keys: [
      ['Alt 1 … Alt 7', t('keyParts')],
      ['Ctrl Z, Ctrl Shift Z', t('keyUndoRedo')],
      ['Alt C', t('keyChapter')],
    ],
  },
  {
    name: t('inATranscript'),
    keys: [
      ['Alt P', t('keyPlay')],
      ['Alt B', t('keyBack')],
      ['Alt S', t('keySlower')],
      ['Alt N', t('keyNextDoubt')],
      ['Alt R', t('keyMarkCorrect')],
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
  <Dialog v-model:visible="isOpen" modal dismissable-mask :header="t('keys')" :style="{ width: 'min(34rem, 94vw)' }">
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
