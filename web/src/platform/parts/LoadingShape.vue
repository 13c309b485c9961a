<script setup lang="ts">
import { useTimeout } from '@vueuse/core'
import Skeleton from 'primevue/skeleton'
import { t } from './messages'

/** Lines where something will be once it is here; after five seconds in words, too. */
withDefaults(defineProps<{ what: string; lines?: number }>(), { lines: 4 })
const isLong = useTimeout(5_000)
</script>

<template>
  <div class="spaced gap-3" aria-busy="true">
    <Skeleton v-for="line in lines" :key="line" :width="['62%', '100%', '86%', '74%'][line % 4]" height="1.25rem" />
    <p class="small quiet" role="status">{{ isLong ? t('stillWaitingFor', { what }) : '' }}</p>
  </div>
</template>
