<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { isWebAddress } from '@core/address/web'
import { type Chapter } from '@core/episode/fields'
import PlaceRow from '../../platform/parts/PlaceRow.vue'
import TimestampInput from '../../platform/parts/TimestampInput.vue'
import SmallPicture from '../../show/shows/SmallPicture.vue'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** One chapter: when, its title, and folded away what only some have. */
const props = defineProps<{ chapter: Chapter; place: number; isHeard: boolean; says: readonly string[] }>()
const emit = defineEmits<{ change: [part: Partial<Chapter>]; remove: []; hear: []; next: [] }>()
const open = ref(false)
const pictureProblem = ref('')
const name = computed(() => props.chapter.title || t('chapterNumber', { number: props.place }))
const whenFault = ref('')
const addressFault = ref('')
const has = computed(() => [
  ...(props.chapter.address ? ['link'] : []),
  ...(props.chapter.pictureId ? ['picture'] : []),
  ...(props.chapter.isListed ? [] : ['hidden']),
])

const moreWords = computed(() => (has.value.length > 0 ? has.value.join(', ') : t('more')))
function setAddress(address: string): void {
  const isBad = address !== '' && !isWebAddress(address)
  addressFault.value = isBad ? t('noWebAddress', { address }) : ''
  if (!isBad) emit('change', { address: address || null })
}
</script>

<template>
  <PlaceRow
    class="chapter"
    :class="{ heard: isHeard }"
    kind="chapter"
    :place="place"
    :title="chapter.title"
    :says="says"
    :fault="whenFault"
    :data-chapter="chapter.id"
    @hear="emit('hear')"
    @remove="emit('remove')"
  >
    <TimestampInput
      :ms="chapter.fromMs"
      :label="t('whenBegins', { name })"
      @change="fromMs => emit('change', { fromMs })"
      @fault="words => (whenFault = words)"
    />
    <InputText
      class="title"
      size="small"
      :model-value="chapter.title"
      :aria-label="t('titleOfChapter', { number: place })"
      :placeholder="t('titlePlaceholder')"
      @update:model-value="title => emit('change', { title: title ?? '' })"
      @keydown.enter.prevent="emit('next')"
    />
    <button
      type="button"
      class="small-button"
      :aria-expanded="open"
      :aria-label="t('moreAbout', { more: moreWords, name })"
      @click="open = !open"
    >
      {{ moreWords }}
    </button>
    <template #below>
      <div v-if="open" v-opened="() => (open = false)" class="more flowing">
        <InputText
          class="address"
          size="small"
          type="url"
          :model-value="chapter.address ?? ''"
          :invalid="!!addressFault"
          :aria-label="t('linkOf', { name })"
          :placeholder="t('linkPlaceholder')"
          @change="(event: Event) => setAddress((event.target as HTMLInputElement).value.trim())"
        />
        <SmallPicture
          :model-value="chapter.pictureId"
          of="chapter"
          :name="name"
          @update:model-value="pictureId => emit('change', { pictureId })"
          @problem="words => (pictureProblem = words)"
        />
        <label class="small side-by-side gap-1"
          ><Checkbox
            binary
            :model-value="chapter.isListed"
            @update:model-value="isListed => emit('change', { isListed })"
          />
          {{ t('shownInLists') }}</label
        >
        <span v-if="addressFault || pictureProblem" class="fault" role="alert">{{
          addressFault || pictureProblem
        }}</span>
      </div>
    </template>
  </PlaceRow>
</template>

<style scoped>
.chapter {
  grid-template-columns: 28px 6.2rem minmax(0, 1fr) auto auto;
}
.more {
  grid-column: 2 / -1;
  gap: var(--space-2) var(--space-3);
}
.address {
  flex: 1 1 14rem;
}
@media (max-width: 620px) {
  .chapter {
    grid-template-columns: 28px 6.2rem minmax(0, 1fr) auto;
  }
  .title {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
