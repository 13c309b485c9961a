<script setup lang="ts">
import { computed } from 'vue'
import { timeToTheSecond } from '../../platform/time/times'
import type { Saving } from '../../show/episodes/desk'
import { t } from './messages'

/** Whether what was written is on the server; never says anything of the release. */
const props = defineProps<{ saving: Saving; savedAt: Date | null; zone: string }>()

const words = computed(() => {
  switch (props.saving) {
    case 'saved':
      return props.savedAt ? t('savedAt', { time: timeToTheSecond(props.savedAt, props.zone) }) : t('saved')
    case 'unsaved':
      return t('saving')
    case 'waiting':
      return t('serverUnreached')
    case 'undecided':
      return t('keptUntilChosen')
    default:
      return t('notSavedFieldFaulty')
  }
})
</script>

<template>
  <p
    class="small quiet tabular-nums"
    :class="{ needs: saving !== 'saved' && saving !== 'unsaved' }"
    role="status"
    data-testid="saving"
  >
    {{ words }}
  </p>
</template>

<style scoped>
.needs {
  color: var(--signal);
  font-weight: 600;
}
</style>
