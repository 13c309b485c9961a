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
const category = computed(() => {
  const { category: name, subcategory } = facts.value
  return subcategory ? `${name}, ${subcategory}` : name
})
const listener = computed(() => listenerLink(sessions.session?.demo?.listenerAddress ?? null, facts.value.feedAddress))

function lacks(episode: EpisodeSummary): string {
  if (episode.changedSinceRelease) return 'has changes that listeners do not see yet'
  const arriving = isArriving(episode, uploads.sendings)
  const needed = hindering('schedule', episode.hindrances)
  const [stillFinishing] = hindering('release', episode.hindrances)
  if (needed.length === 0 && stillFinishing) return hindranceWords[stillFinishing]
  const missing = needed.filter(each => !(arriving && each === 'no audio')).map(each => hindranceNeeds[each])
  return `needs ${new Intl.ListFormat('en-GB').format([...missing, 'a release time'])}${arriving ? '; its audio is uploading' : ''}`
}
</script>

<template>
  <section class="page spaced">
    <div class="head flex gap-5 items-start">
      <img
        class="rounded flex-none bg-sheet-sunk"
        :src="artworkAt(facts.artworkAddress, 480)"
        :alt="`Artwork of ${facts.name}`"
        width="168"
        height="168"
      />
      <div>
        <h1 class="text-2xl wrap-anywhere">{{ facts.name }}</h1>
        <p class="quiet">
          by {{ facts.author }} · {{ category }} · {{ facts.explicit ? 'explicit' : 'not explicit' }} · {{ facts.zone }}
        </p>
        <p class="font-serif text-l mx-0 my-3 wrap-anywhere">{{ facts.description }}</p>
        <p class="actions">
          <RouterLink :to="{ name: 'facts', params: { show: facts.slug } }">Edit show details</RouterLink>
          <RouterLink :to="{ name: 'habits', params: { show: facts.slug } }">Defaults for new episodes</RouterLink>
          <RouterLink :to="{ name: 'rhythm', params: { show: facts.slug } }">{{
            facts.rhythm ? rhythmWords(facts.rhythm) : 'Release schedule'
          }}</RouterLink>
        </p>
      </div>
    </div>

    <LoadingShape v-if="!shows.near" what="the episodes" :lines="8" />
    <WaterlinePanel v-else-if="!isEmpty" :show="facts" @drawn="isLineDrawn = true" />
    <template v-if="isEmpty || isLineDrawn">
      <p v-if="facts.role !== 'keeper'" class="note">{{ roleWords[facts.role] }}</p>
      <div v-if="facts.artworkIsProvisional" class="note needs-you">
        <p>
          <strong>This is placeholder artwork.</strong> It was drawn here so that the show could begin. Directories ask
          for artwork of your own, square, 1400 to 3000 px (itunes namespace); without it they refuse the show, or list
          it with this picture.
        </p>
        <p class="actions">
          <RouterLink :to="{ name: 'facts', params: { show: facts.slug } }">Choose the artwork</RouterLink>
        </p>
      </div>

      <div class="feed boxed spaced px-5 py-4">
        <p v-if="facts.feedFacts.isPrivate">
          Private:
          <RouterLink :to="{ name: 'private-feeds', params: { show: facts.slug } }"
            >those who have an address of their own</RouterLink
          >
          hear it, and nobody else.
        </p>
        <CopyField v-else label="Feed address" :text="facts.feedAddress" />
        <p v-if="released === 0" class="quiet small">The feed already works, but is empty until your first release.</p>
        <p v-else class="quiet small">
          {{ released }} {{ released === 1 ? 'episode is' : 'episodes are' }} in the feed now.
        </p>
        <p v-if="!facts.feedFacts.isPrivate" class="flowing gap-x-5">
          <a :href="facts.feedAddress" target="_blank">View the feed</a>
          <a :href="facts.pageAddress" target="_blank">View the public page</a>
          <a v-if="listener" :href="listener" target="_blank">Open it in the stand-in listener</a>
        </p>
      </div>

      <div v-if="waiting.length" class="next spaced gap-4">
        <div>
          <span class="field-name">Waiting for you</span>
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
        <h2>Bring the first episode</h2>
        <p>
          Drop its audio anywhere on this window, or press New episode. An episode needs three things: audio, a title
          and a release time.
        </p>
      </div>
      <p class="actions small"><RouterLink :to="{ name: 'new-show' }">Add another show</RouterLink></p>
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
