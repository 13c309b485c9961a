<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'
import type { AgeNumbers } from '@contract/numbers'
import type { Show } from '@contract/shows'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import FirstDays from './FirstDays.vue'
import { t } from './messages'
import { useNumbers } from './numbers'

/** How the newest episode does, on the show's first page. What lies below it comes once it is drawn. */
const props = defineProps<{ show: Show }>()
const newest = shallowRef<AgeNumbers | null>(null)
const emit = defineEmits<{ drawn: [] }>()
const isLoading = shallowRef(true)
onMounted(async () => {
  newest.value = await useNumbers()
    .newest(props.show.id)
    .catch(() => null)
  isLoading.value = false
  emit('drawn')
})
</script>

<template>
  <section class="boxed px-5 py-4 newest" :aria-label="t('newestEpisode')">
    <LoadingShape v-if="isLoading" :what="t('theNumbers')" :lines="2" />
    <FirstDays v-else-if="newest" :numbers="newest">
      <template #lead
        ><RouterLink :to="{ name: 'desk', params: { show: show.slug, id: newest.episode.id } }">{{
          newest.episode.title
        }}</RouterLink
        >{{ ':' }}{{ ' ' }}</template
      >
    </FirstDays>
    <p v-else class="quiet">{{ t('numbersAway') }}</p>
    <p v-if="!isLoading" class="actions small">
      <RouterLink :to="{ name: 'numbers', params: { show: show.slug } }">{{ t('allNumbers') }}</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.newest {
  min-height: 10rem;
}
</style>
