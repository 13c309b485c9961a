<script setup lang="ts">
import Accordion from 'primevue/accordion'
import AccordionContent from 'primevue/accordioncontent'
import AccordionHeader from 'primevue/accordionheader'
import AccordionPanel from 'primevue/accordionpanel'

/** What can be left alone: one line, and the rest of it when that is pressed. */
const open = defineModel<boolean>('open', { default: false })
</script>

<template>
  <Accordion unstyled :value="open ? 'it' : null" @update:value="value => (open = value === 'it')">
    <AccordionPanel value="it" unstyled>
      <AccordionHeader unstyled class="fold-line">
        <span><slot name="line" /></span>
        <template #toggleicon>
          <svg class="fold-mark" viewBox="0 0 12 12" aria-hidden="true">
            <path d="M4 2.5 8 6l-4 3.5" fill="none" stroke="currentColor" stroke-width="1.4" />
          </svg>
        </template>
      </AccordionHeader>
      <AccordionContent unstyled><slot /></AccordionContent>
    </AccordionPanel>
  </Accordion>
</template>

<style scoped>
.fold-line {
  display: inline-flex;
  flex-direction: row-reverse;
  align-items: center;
  justify-content: flex-end;
  gap: 0.35em;
  min-height: var(--target);
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: start;
  cursor: pointer;
}
.fold-mark {
  flex: none;
  width: 0.7em;
  height: 0.7em;
}
.fold-line[aria-expanded='true'] .fold-mark {
  transform: rotate(90deg);
}
</style>
