<script setup lang="ts">
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import Tabs from 'primevue/tabs'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import type { Finding } from '@core/audio/findings'
import type { Want } from '@core/episode/wants'
import { type DeskPart, deskParts, partNames, placeOf } from './parts'
import { t } from './messages'

/** The parts of the desk in the order of the work; each says in its name how many things there want the person. */
const part = defineModel<DeskPart>({ required: true })
const props = defineProps<{ wants: readonly Want[]; findings: readonly Finding[]; cueWants: number; isOut: boolean }>()
/** There are numbers once it has gone out. */
const names = computed(() => deskParts.filter(name => name !== 'numbers' || props.isOut))

const counts = computed(() => {
  const toFix = [
    ...props.findings.map(({ severity }) => ({ severity, of: 'sound' as const })),
    ...props.wants.map(want => ({ severity: want.severity, of: placeOf(want.field) })),
  ].filter(({ severity }) => severity !== 'note')
  const counted = deskParts.map(name => [name, toFix.filter(({ of }) => of === name).length] as const)
  return { ...Object.fromEntries(counted), transcript: props.cueWants } as Record<DeskPart, number>
})

/** Alt and a digit opens a part from anywhere. */
function onKey(event: KeyboardEvent): void {
  const name =
    event.altKey && !event.ctrlKey && !event.metaKey ? names.value[Number(event.code.slice(5)) - 1] : undefined
  if (!name || !event.code.startsWith('Digit')) return
  event.preventDefault()
  part.value = name
}
useEventListener('keydown', onKey)
</script>

<template>
  <Tabs :value="part" id="parts" class="parts" @update:value="value => (part = value as DeskPart)">
    <TabList :pt="{ tabList: { 'aria-label': t('deskParts') } }">
      <Tab
        v-for="(name, index) in names"
        :key="name"
        :value="name"
        :title="`Alt ${index + 1}`"
        :aria-keyshortcuts="`Alt+${index + 1}`"
      >
        {{ partNames[name] }}
        <span v-if="counts[name]" class="count figures small" :title="t('countToLookAt', { count: counts[name] })"
          >{{ counts[name] }}<span class="out-of-sight"> {{ t('toLookAt') }}</span></span
        >
      </Tab>
    </TabList>
  </Tabs>
</template>

<style scoped>
/* The mark of the open part is its own line, which goes where the part goes. */
.parts :deep(.p-tablist-active-bar) {
  display: none;
}
.parts :deep(.p-tab-active) {
  box-shadow: inset 0 -2px var(--accent);
}
.parts :deep(.p-tablist-tab-list) {
  flex-wrap: wrap;
}
.count {
  display: inline-block;
  min-width: 1.35em;
  margin-inline-start: var(--space-1);
  padding-inline: 0.35em;
  border-radius: 1em;
  background: var(--signal-wash);
  color: var(--signal);
  text-align: center;
}
</style>
