<script setup lang="ts">
import Popover from 'primevue/popover'
import { useTemplateRef } from 'vue'
import { vOpened } from './opened'

/** What opens over the page beside the button that was pressed, with a name of its own. */
defineProps<{ label: string }>()
defineOptions({ inheritAttrs: false })
const popover = useTemplateRef('popover')
const hide = (): void => popover.value?.hide()
defineExpose({
  toggle: (event: Event) => popover.value!.toggle(event),
  show: (event: Event, target?: EventTarget | null) => popover.value!.show(event, target),
  hide,
})
</script>

<template>
  <Popover ref="popover" :aria-label="label" v-bind="$attrs">
    <div v-opened="hide"><slot /></div>
  </Popover>
</template>
