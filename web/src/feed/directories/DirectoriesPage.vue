<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { storeToRefs } from 'pinia'
import { computed, reactive, ref, watch } from 'vue'
import { newOwnListing } from '@contract/directories'
import { onNews } from '../../platform/news/news'
import { faultsOf } from '../../platform/parts/checked'
import CopyField from '../../platform/parts/CopyField.vue'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useSession } from '../../people/account/session'
import { useShows } from '../../show/shows/shows'
import DirectoryCard from './DirectoryCard.vue'
import { useDirectories } from './directories'
import { FormattedMessage, t } from './messages'

/** Where the show is handed to, once each, and how it stands there. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const sessions = useSession()
const directories = useDirectories()
const { list, problem } = storeToRefs(directories)
const show = computed(() => shows.bySlug(props.show)!)
watch(
  () => show.value.id,
  id => {
    list.value = null
    problem.value = null
    void directories.load(id)
  },
  { immediate: true },
)
onNews(
  ({ kind, showId }) => showId === show.value.id && (kind === 'listing' || kind === 'feed'),
  () => directories.refresh(show.value.id),
)

const own = reactive({ name: '', listingAddress: '' })
const faults = ref<Record<string, string>>({})
async function add(): Promise<void> {
  const found = await faultsOf(newOwnListing, own)
  faults.value = Object.fromEntries(found.map(({ field, rule }) => [field, rule]))
  if (found.length > 0) return
  if (await directories.add(show.value.id, { ...own })) Object.assign(own, { name: '', listingAddress: '' })
}
</script>

<template>
  <PageLayout :heading="t('directories')" width="wide" :waits-for="!list && !problem && t('theDirectories')">
    <template #purpose>
      {{ t('directoriesHint') }}
    </template>
    <p v-if="show.feedFacts.isPrivate" class="note">
      {{ t('privateInNoDirectory') }}
      <RouterLink :to="{ name: 'private-feeds', params: { show: show.slug } }">{{ t('privateFeeds') }}</RouterLink>
    </p>
    <CopyField v-else-if="list" :label="t('feedAddressWanted')" :text="list.feedAddress" />
    <p v-if="list && sessions.session?.demo?.outboxAddress" class="small">
      <FormattedMessage of="mailArrivesIn"
        ><template #link="{ words }"
          ><a :href="sessions.session.demo.outboxAddress" target="_blank">{{ words }}</a></template
        ></FormattedMessage
      >
    </p>
    <ProblemNote v-if="problem && problem.at === null" :problem="problem" />
    <template v-if="list">
      <p v-if="list.problem" class="note" role="status">
        {{ t('askedAgain', { problem: list.problem }) }}
      </p>
      <div class="cards">
        <DirectoryCard v-for="directory in list.directories" :key="directory.id" :directory="directory" :show="show" />
      </div>
      <section class="own spaced" aria-labelledby="own">
        <h2 class="text-l" id="own">{{ t('otherDirectories') }}</h2>
        <p class="quiet small">
          {{ t('otherDirectoriesHint') }}
        </p>
        <ul v-if="list.own.length">
          <li v-for="each in list.own" class="flex gap-3 items-baseline" :key="each.id">
            <a :href="each.listingAddress" target="_blank">{{ each.name }}</a>
            <button
              type="button"
              class="small-button"
              :aria-label="t('removeNamed', { name: each.name })"
              @click="directories.drop(show.id, each.id)"
            >
              {{ t('remove') }}
            </button>
          </li>
        </ul>
        <form class="new" novalidate @submit.prevent="add">
          <FormField v-slot="{ id }" :label="t('directory')" :fault="faults.name">
            <InputText :id="id" v-model="own.name" :invalid="!!faults.name" />
          </FormField>
          <FormField v-slot="{ id }" :label="t('listingAddress')" :fault="faults.listingAddress">
            <InputText :id="id" v-model="own.listingAddress" type="url" :invalid="!!faults.listingAddress" />
          </FormField>
          <Button type="submit" :label="t('add')" outlined :loading="directories.busy === 'own'" />
        </form>
        <ProblemNote v-if="problem?.at === 'own'" :problem="problem" />
      </section>
    </template>
  </PageLayout>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: var(--space-4);
}
.own {
  margin-top: var(--space-3);
}
.own ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2fr) auto;
  gap: var(--space-3);
  align-items: start;
}
.new > :last-child {
  margin-top: 1.6rem;
}
@media (max-width: 40rem) {
  .new {
    grid-template-columns: minmax(0, 1fr);
  }
  .new > :last-child {
    margin-top: 0;
  }
}
</style>
