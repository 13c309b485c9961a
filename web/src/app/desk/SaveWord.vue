<script setup lang="ts">
import { computed } from 'vue'
import { timeToTheSecond } from '../../platform/time/times'
import type { Saving } from '../../show/episodes/desk'

/** Whether what was written is on the server; never says anything of the release. */
const props = defineProps<{ saving: Saving; savedAt: Date | null; zone: string }>()

const words = computed(() => {
  switch (props.saving) {
    case 'saved':
      return props.savedAt ? `Saved ${timeToTheSecond(props.savedAt, props.zone)}` : 'Saved'
    case 'unsaved':
      return 'Saving …'
    case 'waiting':
      return 'Can’t reach the server. Your text is kept in this window and will be saved when the connection is back.'
    case 'undecided':
      return 'Kept in this window until you choose one of the two versions below.'
    default:
      return 'Not saved: a field below needs correcting.'
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
