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
import { FormattedMessage, t } from './messages'

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
  () => feed.refresh(show.value.id),
)
onUnmounted(() => feed.leave())
const newest = computed(() => overview.value?.readers.filter(({ hasNewest }) => hasNewest).length ?? 0)
</script>

<template>
  <PageLayout :heading="t('feed')" :waits-for="!overview && !problem && t('theFeedCheck')">
    <template #beside>
      <a v-if="!isPrivate" :href="show.feedAddress" target="_blank">{{ t('viewTheRawFeed') }}</a>
    </template>
    <p v-if="isPrivate">
      <FormattedMessage of="privateToThose">
        <template #link="{ words }"
          ><RouterLink :to="{ name: 'private-feeds', params: { show: show.slug } }">{{ words }}</RouterLink></template
        >
      </FormattedMessage>
    </p>
    <CopyField v-else :label="t('itsAddress')" :text="show.feedAddress" />
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="overview">
      <p class="quiet">
        {{
          t('feedSize', {
            count: overview.items,
            size: amount(overview.bytes),
            ago: untilThen(overview.changedAt, now),
          })
        }}
      </p>
      <section aria-labelledby="right">
        <h2 class="mb-2 text-l" id="right">{{ t('feedCheck') }}</h2>
        <FeedFindings :findings="overview.findings" :rules="overview.rules" :show="show.slug" is-ours />
        <p v-if="!isPrivate" class="small quiet">
          <FormattedMessage of="feedCheckHint">
            <template #link="{ words }"
              ><RouterLink
                :to="{ name: 'feed-check', params: { show: show.slug }, query: { address: overview!.feedAddress } }"
                >{{ words }}</RouterLink
              ></template
            >
          </FormattedMessage>
        </p>
      </section>
      <section aria-labelledby="became">
        <h2 class="mb-2 text-l" id="became">{{ t('changeHistory') }}</h2>
        <FeedStates :states="overview.states" :show="show" />
      </section>
      <section v-if="!isPrivate" aria-labelledby="readers">
        <h2 class="mb-2 text-l" id="readers">{{ t('whoFetchesIt') }}</h2>
        <p v-if="overview.readers.length" class="quiet small">
          {{ t('readersUpToDate', { newest, count: overview.readers.length }) }}
        </p>
        <FeedReaders :readers="overview.readers" :show="show" />
      </section>
    </template>
  </PageLayout>
</template>
