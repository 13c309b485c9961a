<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type Hindrance, hindering, hindranceWords } from '@core/release/readiness'
import { useSession } from '../../people/account/session'
import CopyField from '../../platform/parts/CopyField.vue'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import { listenerLink } from '../../show/shows/links'
import { useNow } from '../../platform/time/now'
import { shortMoment } from '../../platform/time/times'
import ChangeToSend from './ChangeToSend.vue'
import ReleaseNeeds from './ReleaseNeeds.vue'

/** What there is to know of an episode where it stands: what it needs, why it is held, what listeners have of it. */
const props = defineProps<{
  episode: Episode
  show: Show
  /** What keeps it from going out, with the title as it is being written. */
  hindrances: readonly Hindrance[]
  arriving: boolean
  saved: boolean
  worthFixing: number
}>()
const emit = defineEmits<{ date: [] }>()
const sessions = useSession()
const known = ref<InstanceType<typeof SmallOverlay>>()
/** On a phone what is done seldom is folded away, so that the foot of the desk leaves room for the work. */
const isNarrow = useMediaQuery('(max-width: 620px)')
const status = computed(() => props.episode.status)
const mayGoNow = computed(() => hindering('release', props.hindrances).length === 0)
const listener = computed(() => listenerLink(sessions.session?.demo?.listenerAddress ?? null, props.show.feedAddress))
const hinders = computed(() => new Intl.ListFormat('en-GB').format(props.hindrances.map(each => hindranceWords[each])))
const now = useNow()
const isHeld = computed(() => hinders.value !== '' && new Date(props.episode.releaseAt!) <= now.value)
const inWords = (count: number): string =>
  `${['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'][count] ?? count} ${count === 1 ? 'suggestion' : 'suggestions'}`
</script>

<template>
  <template v-if="status === 'draft'">
    <ReleaseNeeds :hindrances="hindrances" :arriving="arriving" />
    <p v-if="mayGoNow" class="small" role="status">
      <strong>Ready.</strong> {{ worthFixing ? `${inWords(worthFixing)}.` : '' }}
    </p>
  </template>
  <p v-else-if="status === 'scheduled' && isHeld" class="needs-it" role="status">
    <strong>Held at its release time:</strong> it {{ hinders }}. It will be released as soon as that is fixed.
  </p>
  <p v-else-if="status === 'scheduled' && hinders" class="needs-it">
    It {{ hinders }}. It will be released on time only if that is fixed by then; otherwise as soon as it is.
  </p>
  <p v-else-if="status === 'scheduled'">It will be released automatically, with any changes you make until then.</p>
  <template v-else-if="status === 'released'">
    <p v-if="episode.changedSinceRelease || !saved" class="needs-it">
      <strong>Listeners still see the previous version.</strong> Your changes are saved but not published.
      <ChangeToSend v-if="saved && episode.changedSinceRelease" :episode="episode" />
    </p>
    <p v-else>
      The feed is up to date with this page{{
        episode.retireAt ? `, until ${shortMoment(episode.retireAt, show.zone)}` : ''
      }}.
    </p>
    <details :open="!isNarrow">
      <summary v-show="isNarrow" class="small-button">More</summary>
      <p class="small flowing-text gap-x-3 gap-y-1">
        <RouterLink v-if="episode.isPrivate" :to="{ name: 'private-feeds', params: { show: show.slug } }"
          >Only in private feeds</RouterLink
        >
        <template v-else>
          <RouterLink :to="{ name: 'site-share', params: { show: show.slug }, query: { episode: episode.id } }"
            >Share</RouterLink
          >
          <a :href="episode.pageAddress!" target="_blank">Its public page</a>
          <a :href="show.feedAddress" target="_blank">The feed</a>
          <a v-if="listener" :href="listener" target="_blank">Stand-in listener</a>
        </template>
        <button type="button" class="small-button" aria-haspopup="dialog" @click="event => known!.toggle(event)">
          Identifiers
        </button>
        <button type="button" class="small-button" @click="emit('date')">Change its date</button>
      </p>
    </details>
    <SmallOverlay ref="known" label="Identifiers" class="known-by">
      <CopyField label="GUID, made once" :text="episode.guid" />
      <CopyField v-if="!episode.isPrivate" label="Address of the audio" :text="episode.enclosureAddress!" />
    </SmallOverlay>
  </template>
  <p v-else>
    {{
      episode.keepsPage
        ? 'Not in the feed. Its page and its audio are still available.'
        : 'Not in the feed. Its page and its audio are no longer available.'
    }}
  </p>
</template>

<style scoped>
.needs-it {
  padding-inline-start: var(--space-3);
  border-inline-start: 4px solid var(--signal);
}
</style>
