<script setup lang="ts">
import type { AudioFile } from '@contract/episodes'

defineProps<{ finding: AudioFile['findings'][number] }>()
</script>

<template>
  <div class="note" :class="{ 'needs-you': finding.weight !== 'good to know' }">
    <h3>{{ finding.says }}</h3>
    <p><span class="quiet">{{ finding.weight }}:</span> {{ finding.ifItStays }}</p>
  </div>
</template>
