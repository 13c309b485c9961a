<script setup lang="ts">
import { computed, ref } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import { roleWords } from '@core/access/roles'
import { rhythmWords } from '@core/release/rhythm'
import { statuses } from '@core/release/status'
import { artworkAt } from '@core/show/artwork'
import { hindering, hindranceNeeds, hindranceWords } from '@core/release/readiness'
import CopyField from '../../platform/parts/CopyField.vue'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import WaterlinePanel from '../../release/releases/WaterlinePanel.vue'
import { listenerLink } from '../../show/shows/links'
import { episodeName, isArriving } from '../../production/uploads/names'
import { useSession } from '../../people/account/session'
import { useShows } from '../../show/shows/shows'
import { useUploads } from '../../production/uploads/uploads'
import { locale } from '../../platform/messages'
import NewestNumbers from '../../numbers/figures/NewestNumbers.vue'
import { FormattedMessage, t } from './messages'

const props = defineProps<{ show: string }>()
const shows = useShows()
const sessions = useSession()
const uploads = useUploads()
const facts = computed(() => shows.bySlug(props.show)!)
const released = computed(() => shows.near?.released.total ?? facts.value.releasedCount)
const waiting = computed(() => (shows.near ? [...shows.near.draft.episodes, ...shows.near.changed] : []))
const isEmpty = computed(() => shows.near !== null && statuses.every(status => shows.near![status].total === 0))
/** What lies below the waterline comes after it, so that it does not move. */
const isLineDrawn = ref(false)
const areNumbersDrawn = ref(false)
const hasNumbers = computed(() => released.value > 0)
const category = computed(() => {
  const { category: name, subcategory } = facts.value
  return subcategory ? `${name}, ${subcategory}` : name
})
const listener = computed(() => listenerLink(sessions.session?.demo?.listenerAddress ?? null, facts.value.feedAddress))

function lacks(episode: EpisodeSummary): string {
  if (episode.changedSinceRelease) return t('hasUnsentChanges')
  const arriving = isArriving(episode, uploads.sendings)
  const needed = hindering('schedule', episode.hindrances)
  const [stillFinishing] = hindering('release', episode.hindrances)
  if (needed.length === 0 && stillFinishing) return hindranceWords[stillFinishing]
  const missing = needed.filter(each => !(arriving && each === 'no audio')).map(each => hindranceNeeds[each])
  const needs = new Intl.ListFormat(locale).format([...missing, t('aReleaseTime')])
  return t('needs', { needs, arriving: arriving ? 'yes' : 'no' })
}
</script>

<template>
  <section class="page spaced">
    <div class="head flex gap-5 items-start">
      <img
        class="rounded flex-none bg-sheet-sunk"
        :src="artworkAt(facts.artworkAddress, 480)"
        :alt="t('artworkOf', { name: facts.name })"
        width="168"
        height="168"
      />
      <div>
        <h1 class="text-2xl wrap-anywhere">{{ facts.name }}</h1>
        <p class="quiet">
          {{ t('byAuthor', { author: facts.author }) }} · {{ category }} ·
          {{ facts.explicit ? t('isExplicit') : t('notExplicit') }} · {{ facts.zone }}
        </p>
        <p class="font-serif text-l mx-0 my-3 wrap-anywhere">{{ facts.description }}</p>
        <p class="actions">
          <RouterLink :to="{ name: 'facts', params: { show: facts.slug } }">{{ t('editShowDetails') }}</RouterLink>
          <RouterLink :to="{ name: 'habits', params: { show: facts.slug } }">{{
            t('defaultsForNewEpisodes')
          }}</RouterLink>
          <RouterLink :to="{ name: 'rhythm', params: { show: facts.slug } }">{{
            facts.rhythm ? rhythmWords(facts.rhythm) : t('releaseSchedule')
          }}</RouterLink>
        </p>
      </div>
    </div>

    <LoadingShape v-if="!shows.near" :what="t('theEpisodes')" :lines="8" />
    <WaterlinePanel v-else-if="!isEmpty" :show="facts" @drawn="isLineDrawn = true" />
    <NewestNumbers v-if="hasNumbers && isLineDrawn" :show="facts" @drawn="areNumbersDrawn = true" />
    <template v-if="isEmpty || (isLineDrawn && (areNumbersDrawn || !hasNumbers))">
      <p v-if="facts.role !== 'keeper'" class="note">{{ roleWords[facts.role] }}</p>
      <div v-if="facts.artworkIsProvisional" class="note needs-you">
        <p>
          <strong>{{ t('placeholderArtwork') }}</strong> {{ t('placeholderArtworkTells') }}
        </p>
        <p class="actions">
          <RouterLink :to="{ name: 'facts', params: { show: facts.slug } }">{{ t('chooseTheArtwork') }}</RouterLink>
        </p>
      </div>

      <div class="feed boxed spaced px-5 py-4">
        <p v-if="facts.feedFacts.isPrivate">
          <FormattedMessage of="privateToThose">
            <template #link="{ words }"
              ><RouterLink :to="{ name: 'private-feeds', params: { show: facts.slug } }">{{
                words
              }}</RouterLink></template
            >
          </FormattedMessage>
        </p>
        <CopyField v-else :label="t('feedAddress')" :text="facts.feedAddress" />
        <p v-if="released === 0" class="quiet small">{{ t('feedIsEmpty') }}</p>
        <p v-else class="quiet small">
          {{ t('countInFeed', { count: released }) }}
        </p>
        <p v-if="!facts.feedFacts.isPrivate" class="flowing gap-x-5">
          <a :href="facts.feedAddress" target="_blank">{{ t('viewTheFeed') }}</a>
          <a :href="facts.pageAddress" target="_blank">{{ t('viewThePublicPage') }}</a>
          <a v-if="listener" :href="listener" target="_blank">{{ t('openInStandIn') }}</a>
        </p>
      </div>

      <div v-if="waiting.length" class="next spaced gap-4">
        <div>
          <span class="field-name">{{ t('waitingForYou') }}</span>
          <ul>
            <li v-for="episode in waiting.slice(0, 5)" :key="episode.id">
              <RouterLink :to="{ name: 'desk', params: { show: facts.slug, id: episode.id } }">{{
                episodeName(episode, uploads.sendings)
              }}</RouterLink>
              {{ lacks(episode) }}
            </li>
          </ul>
        </div>
      </div>

      <div v-if="isEmpty" class="first">
        <h2>{{ t('bringTheFirstEpisode') }}</h2>
        <p>
          {{ t('firstEpisodeHint') }}
        </p>
      </div>
      <p class="actions small">
        <RouterLink :to="{ name: 'new-show' }">{{ t('addAnotherShow') }}</RouterLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
.page {
  max-width: 64rem;
  padding: var(--space-5) var(--space-6);
  gap: var(--space-5);
}
@media (max-width: 900px) {
  .page {
    padding: var(--space-5);
  }
  .head {
    flex-direction: column;
  }
}
.next ul {
  margin: 0;
  padding-left: 1.1em;
}
.first {
  padding: var(--space-6);
  text-align: center;
  border: 2px dashed var(--edge-strong);
  border-radius: var(--round);
}
</style>
