<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onUnmounted, watch } from 'vue'
import { amount } from '@core/words/amounts'
import { onNews } from '../../platform/news/news'
import CopyField from '../../platform/parts/CopyField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { useNow } from '../../platform/time/now'
import { untilThen } from '../../platform/time/times'
import FeedFindings from './FeedFindings.vue'
import FeedReaders from './FeedReaders.vue'
import FeedStates from './FeedStates.vue'
import { useFeed } from './feed'

/** The feed of a show, without a line of XML: whether it is right, what became of it, who has it. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const feed = useFeed()
const { overview, problem } = storeToRefs(feed)
const show = computed(() => shows.bySlug(props.show)!)
const isPrivate = computed(() => show.value.feedFacts.isPrivate)
const now = useNow(60_000)
watch(
  () => show.value.id,
  id => void feed.load(id),
  { immediate: true },
)
onNews(
  ({ kind, showId }) => kind === 'feed' && showId === show.value.id,
  () => feed.load(show.value.id),
)
onUnmounted(() => feed.leave())
const newest = computed(() => overview.value?.readers.filter(({ hasNewest }) => hasNewest).length ?? 0)
</script>

<template>
  <PageLayout heading="Feed" :waits-for="!overview && !problem && 'the check of the feed'">
    <template #beside>
      <a v-if="!isPrivate" :href="show.feedAddress" target="_blank">View the raw feed</a>
    </template>
    <p v-if="isPrivate">
      The show is private.
      <RouterLink :to="{ name: 'private-feeds', params: { show: show.slug } }"
        >Those who have an address of their own</RouterLink
      >
      hear it, and nobody else.
    </p>
    <CopyField v-else label="Its address" :text="show.feedAddress" />
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="overview">
      <p class="quiet">
        {{ overview.items }} {{ overview.items === 1 ? 'episode' : 'episodes' }}, {{ amount(overview.bytes) }}; changed
        {{ untilThen(overview.changedAt, now) }}.
      </p>
      <section aria-labelledby="right">
        <h2 class="mb-2 text-l" id="right">Feed check</h2>
        <FeedFindings :findings="overview.findings" :rules="overview.rules" :show="show.slug" is-ours />
        <p v-if="!isPrivate" class="small quiet">
          These rules check what the feed says.
          <RouterLink
            :to="{ name: 'feed-check', params: { show: show.slug }, query: { address: overview.feedAddress } }"
            >Fetch it as an app would</RouterLink
          >
          also fetches it, the audio and the pictures.
        </p>
      </section>
      <section aria-labelledby="became">
        <h2 class="mb-2 text-l" id="became">Change history</h2>
        <FeedStates :states="overview.states" :show="show" />
      </section>
      <section v-if="!isPrivate" aria-labelledby="readers">
        <h2 class="mb-2 text-l" id="readers">Who fetches it</h2>
        <p v-if="overview.readers.length" class="quiet small">
          {{ newest }} of {{ overview.readers.length }} have the current version. Addresses are stored without their
          last part.
        </p>
        <FeedReaders :readers="overview.readers" :show="show" />
      </section>
    </template>
  </PageLayout>
</template>
