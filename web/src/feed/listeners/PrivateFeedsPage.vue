<script setup lang="ts">
import Button from 'primevue/button'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { NewListeners as Wanted } from '@contract/listeners'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { vOpened } from '../../platform/parts/opened'
import ListenerTable from './ListenerTable.vue'
import { useListeners } from './listeners'
import NewListeners from './NewListeners.vue'
import { t } from './messages'

/** Feeds for people one knows, each with an address of their own. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const listeners = useListeners()
const { list, problem, busy } = storeToRefs(listeners)
const show = computed(() => shows.bySlug(props.show)!)
const form = ref<InstanceType<typeof NewListeners>>()
/** Whether somebody is about to make the show private, or public. */
const isTurning = ref(false)
watch(
  () => show.value.id,
  id => void listeners.load(id),
  { immediate: true },
)

const to = computed(() => [
  ...(list.value?.isPrivate ? [{ id: null, name: t('theWholeShow') }] : []),
  ...(list.value?.strands ?? []),
])
const nameOf = (strandId: string | null): string =>
  strandId === null
    ? t('theWholeShow')
    : (list.value?.strands.find(({ id }) => id === strandId)?.name ?? t('publicStrand'))

async function add(wanted: Wanted): Promise<void> {
  if (await listeners.add(show.value.id, wanted)) form.value?.clear()
}
async function turn(isPrivate: boolean): Promise<void> {
  if (await listeners.setPrivate(show.value, isPrivate)) isTurning.value = false
}
</script>

<template>
  <PageLayout :heading="t('privateFeeds')" :waits-for="!list && !problem && t('theListeners')">
    <template #purpose>
      {{ t('privateFeedsHint') }}
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="list">
      <section aria-labelledby="what">
        <h2 class="mb-2 text-l" id="what">{{ t('whatIsPrivate') }}</h2>
        <p v-if="list.isPrivate">
          <strong>{{ t('wholeShowIsPrivate') }}</strong> {{ t('nobodyElseReaches') }}
        </p>
        <p v-else-if="list.strands.length">
          {{
            t('strandsArePrivate', {
              count: list.strands.length,
              names: list.strands.map(({ name }) => name).join(', '),
            })
          }}
        </p>
        <p v-else>{{ t('nothingIsPrivate') }}</p>
        <div v-if="isTurning" v-opened="() => (isTurning = false)" class="note needs-you mt-2" role="alert">
          <p v-if="list.isPrivate">
            {{ t('publicAgainHint') }}
          </p>
          <p v-else>
            {{ t('privateHint') }}
          </p>
          <div class="actions mt-2">
            <Button
              type="button"
              :label="list.isPrivate ? t('makeItPublic') : t('makeItPrivate')"
              :loading="busy"
              @click="turn(!list.isPrivate)"
            />
            <Button type="button" :label="t('cancel')" text @click="isTurning = false" />
          </div>
        </div>
        <p v-else class="actions small mt-2">
          <button type="button" class="small-button" @click="isTurning = true">
            {{ list.isPrivate ? t('makeTheShowPublic') : t('makeTheWholeShowPrivate') }}
          </button>
          <RouterLink :to="{ name: 'strands', params: { show: show.slug } }">{{ t('makeAStrandPrivate') }}</RouterLink>
        </p>
      </section>
      <section v-if="to.length" aria-labelledby="new">
        <h2 class="mb-2 text-l" id="new">{{ t('addAListener') }}</h2>
        <NewListeners ref="form" :to="to" :busy="busy" @add="add" />
      </section>
      <section v-if="list.listeners.length" aria-labelledby="who">
        <h2 class="mb-2 text-l" id="who">{{ t('listeners') }}</h2>
        <ListenerTable
          :listeners="list.listeners"
          :name-of="nameOf"
          :zone="show.zone"
          :busy="busy"
          @renew="listeners.renew"
          @withdraw="listeners.withdraw"
          @restore="listeners.restore"
        />
      </section>
    </template>
  </PageLayout>
</template>
