<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Directory } from '@contract/directories'
import type { Show } from '@contract/shows'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useDirectories } from './directories'
import ListingState from './ListingState.vue'
import { t } from './messages'

/** A directory: what it wants, how the show stands there, and what is to be done next. */
const props = defineProps<{ directory: Directory; show: Show }>()
const directories = useDirectories()
const code = ref('')
const listing = computed(() => props.directory.listing)
const mayHandIn = computed(() => !listing.value || listing.value.state === 'refused')
const lacks = computed(() => props.directory.wants.some(({ isThere }) => !isThere))
const isBusy = computed(() => directories.busy === props.directory.id)
const problem = computed(() => (directories.problem?.at === props.directory.id ? directories.problem : null))

const wrongCode = computed(() => problem.value?.faults?.find(({ field }) => field === 'code')?.rule)

async function confirm(): Promise<void> {
  if (await directories.confirm(props.show.id, props.directory.id, code.value)) code.value = ''
}
</script>

<template>
  <section
    class="boxed spaced gap-3 content-start min-w-0 p-4"
    :aria-labelledby="`directory-${directory.id}`"
    :data-directory="directory.id"
  >
    <header>
      <h2 class="text-l" :id="`directory-${directory.id}`">{{ directory.name }}</h2>
      <p class="quiet small wrap-anywhere">{{ directory.about }}</p>
    </header>
    <ListingState v-if="listing" :directory="directory" :listing="listing" :show="show" />
    <template v-if="mayHandIn">
      <ul class="wants unlisted spaced small gap-1">
        <li v-for="want in directory.wants" :key="want.words">
          <span class="text-ink-soft" :class="{ lacking: !want.isThere }">{{
            want.isThere ? t('conditionMet') : t('conditionMissing')
          }}</span>
          {{ want.words }}
        </li>
      </ul>
      <div class="actions">
        <Button
          type="button"
          :label="listing ? t('submitAgain') : t('submit')"
          :disabled="lacks"
          :loading="isBusy"
          @click="directories.handIn(show.id, directory.id)"
        />
        <span v-if="lacks" class="quiet small">{{ t('wouldBeRejected') }}</span>
      </div>
    </template>
    <form v-if="listing?.state === 'to confirm'" class="actions" novalidate @submit.prevent="confirm">
      <label class="small" :for="`code-${directory.id}`">{{ t('codeFromTheMail') }}</label>
      <InputText
        :id="`code-${directory.id}`"
        v-model="code"
        class="code"
        inputmode="numeric"
        autocomplete="off"
        :invalid="!!wrongCode"
        :aria-describedby="wrongCode ? `fault-${directory.id}` : undefined"
      />
      <Button type="submit" :label="t('confirm')" :disabled="code.trim() === ''" :loading="isBusy" />
      <span v-if="wrongCode" :id="`fault-${directory.id}`" class="fault" role="alert">{{ wrongCode }}</span>
    </form>
    <ProblemNote v-if="problem && !wrongCode" :problem="problem" />
  </section>
</template>

<style scoped>
.wants .lacking {
  color: var(--signal);
  font-weight: 600;
}
.code {
  width: 8rem;
  font-variant-numeric: tabular-nums;
}
</style>
