<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { newAddress, type Show } from '@contract/shows'
import { faultsOf } from '../../platform/parts/checked'
import FormField from '../../platform/parts/FormField.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useAttempt } from '../../platform/parts/attempt'
import { useShows } from '../../show/shows/shows'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** Another address part for the show; where it was leads there from then on. */
const props = defineProps<{ show: Show }>()
const shows = useShows()
const router = useRouter()
const origin = computed(() => props.show.pageAddress.replace(/\/[^/]*$/, ''))
const slug = ref(props.show.pageAddress.split('/').at(-1)!)
const fault = ref('')
const { problem, busy, attempt } = useAttempt(t('showNotMoved'))
const asking = ref(false)
const isOther = computed(() => `${origin.value}/${slug.value}` !== props.show.pageAddress)

async function ask(): Promise<void> {
  const [found] = await faultsOf(newAddress, { slug: slug.value, version: props.show.version })
  fault.value = found?.rule ?? ''
  asking.value = !found
}
async function move(): Promise<void> {
  await attempt(async () => {
    const now = await shows.move(props.show.id, { slug: slug.value, version: props.show.version })
    await router.replace({ name: 'feed', params: { show: now } })
  })
  asking.value = false
  fault.value = problem.value?.faults?.find(({ field }) => field === 'slug')?.rule ?? ''
  if (fault.value) problem.value = null
}
</script>

<template>
  <form class="form" novalidate @submit.prevent="ask">
    <FormField
      v-slot="{ id }"
      :label="t('webAddressOfShow')"
      :fault="fault"
      :hint="`${origin}/${slug || '…'}/feed.xml`"
    >
      <InputText :id="id" v-model="slug" :invalid="!!fault" @update:model-value="asking = false" />
    </FormField>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="asking" v-opened="() => (asking = false)" class="note needs-you" role="alert">
      <p>
        {{ t('addressMoveHint', { address: show.pageAddress }) }}
      </p>
      <div class="actions mt-2">
        <Button type="button" :label="t('moveItThere')" :loading="busy" @click="move" />
        <Button type="button" :label="t('cancel')" text @click="asking = false" />
      </div>
    </div>
    <Button v-else-if="isOther" type="submit" :label="t('changeTheAddress')" outlined />
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 44rem);
  gap: var(--space-3);
  justify-items: start;
  margin-top: var(--space-4);
}
.form > :deep(.field) {
  width: min(100%, 32rem);
}
</style>
