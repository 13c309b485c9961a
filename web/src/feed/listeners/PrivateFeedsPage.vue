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
  ...(list.value?.isPrivate ? [{ id: null, name: 'The whole show' }] : []),
  ...(list.value?.strands ?? []),
])
const nameOf = (strandId: string | null): string =>
  strandId === null
    ? 'The whole show'
    : (list.value?.strands.find(({ id }) => id === strandId)?.name ?? 'A public strand')

async function add(wanted: Wanted): Promise<void> {
  if (await listeners.add(show.value.id, wanted)) form.value?.clear()
}
async function turn(isPrivate: boolean): Promise<void> {
  if (await listeners.setPrivate(show.value, isPrivate)) isTurning.value = false
}
</script>

<template>
  <PageLayout heading="Private feeds" :waits-for="!list && !problem && 'the listeners'">
    <template #purpose>
      For people you know: each has an address of their own with a secret in it, which you can renew or withdraw without
      affecting anybody else. No directory lists it, and its episodes appear nowhere else.
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="list">
      <section aria-labelledby="what">
        <h2 class="mb-2 text-l" id="what">What is private</h2>
        <p v-if="list.isPrivate">
          <strong>The whole show.</strong> Nobody else can reach its feed, its page or its audio.
        </p>
        <p v-else-if="list.strands.length">
          {{ list.strands.length === 1 ? 'One strand' : `${list.strands.length} strands` }}:
          {{ list.strands.map(({ name }) => name).join(', ') }}. The rest of the show is public.
        </p>
        <p v-else>Nothing. The show is public.</p>
        <div v-if="isTurning" v-opened="() => (isTurning = false)" class="note needs-you mt-2" role="alert">
          <p v-if="list.isPrivate">
            The show becomes public again: its feed, its page, its audio, and everything that is not in a private
            strand.
          </p>
          <p v-else>
            Only the people below will be able to reach its feed, its page and its audio. Directories will drop it, and
            existing subscribers will get nothing new.
          </p>
          <div class="actions mt-2">
            <Button
              type="button"
              :label="list.isPrivate ? 'Make it public' : 'Make it private'"
              :loading="busy"
              @click="turn(!list.isPrivate)"
            />
            <Button type="button" label="Cancel" text @click="isTurning = false" />
          </div>
        </div>
        <p v-else class="actions small mt-2">
          <button type="button" class="small-button" @click="isTurning = true">
            {{ list.isPrivate ? 'Make the show public' : 'Make the whole show private' }}
          </button>
          <RouterLink :to="{ name: 'strands', params: { show: show.slug } }">Make a strand private</RouterLink>
        </p>
      </section>
      <section v-if="to.length" aria-labelledby="new">
        <h2 class="mb-2 text-l" id="new">Add a listener</h2>
        <NewListeners ref="form" :to="to" :busy="busy" @add="add" />
      </section>
      <section v-if="list.listeners.length" aria-labelledby="who">
        <h2 class="mb-2 text-l" id="who">Listeners</h2>
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
