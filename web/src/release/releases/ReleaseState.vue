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
import { locale } from '../../platform/messages'
import { FormattedMessage, t } from './messages'

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
const hinders = computed(() => new Intl.ListFormat(locale).format(props.hindrances.map(each => hindranceWords[each])))
const now = useNow()
const isHeld = computed(() => hinders.value !== '' && new Date(props.episode.releaseAt!) <= now.value)
</script>

<template>
  <template v-if="status === 'draft'">
    <ReleaseNeeds :hindrances="hindrances" :arriving="arriving" />
    <p v-if="mayGoNow" class="small" role="status">
      <strong>{{ t('ready') }}</strong> {{ worthFixing ? t('suggestions', { count: worthFixing }) : '' }}
    </p>
  </template>
  <p v-else-if="status === 'scheduled' && isHeld" class="needs-it" role="status">
    <FormattedMessage of="held" :values="{ hinders }" />
  </p>
  <p v-else-if="status === 'scheduled' && hinders" class="needs-it">
    {{ t('hindersSchedule', { hinders }) }}
  </p>
  <p v-else-if="status === 'scheduled'">{{ t('automaticRelease') }}</p>
  <template v-else-if="status === 'released'">
    <p v-if="episode.changedSinceRelease || !saved" class="needs-it">
      <strong>{{ t('listenersSeePrevious') }}</strong> {{ t('savedNotPublished') }}
      <ChangeToSend v-if="saved && episode.changedSinceRelease" :episode="episode" />
    </p>
    <p v-else>
      {{
        episode.retireAt
          ? t('feedUpToDateUntil', { moment: shortMoment(episode.retireAt, show.zone) })
          : t('feedUpToDate')
      }}
    </p>
    <details :open="!isNarrow">
      <summary v-show="isNarrow" class="small-button">{{ t('more') }}</summary>
      <p class="small flowing-text gap-x-3 gap-y-1">
        <RouterLink v-if="episode.isPrivate" :to="{ name: 'private-feeds', params: { show: show.slug } }">{{
          t('onlyInPrivateFeeds')
        }}</RouterLink>
        <template v-else>
          <RouterLink :to="{ name: 'site-share', params: { show: show.slug }, query: { episode: episode.id } }">{{
            t('share')
          }}</RouterLink>
          <a :href="episode.pageAddress!" target="_blank">{{ t('itsPublicPage') }}</a>
          <a :href="show.feedAddress" target="_blank">{{ t('theFeed') }}</a>
          <a v-if="listener" :href="listener" target="_blank">{{ t('standInListener') }}</a>
        </template>
        <button type="button" class="small-button" aria-haspopup="dialog" @click="event => known!.toggle(event)">
          {{ t('identifiers') }}
        </button>
        <button type="button" class="small-button" @click="emit('date')">{{ t('changeItsDate') }}</button>
      </p>
    </details>
    <SmallOverlay ref="known" :label="t('identifiers')" class="known-by">
      <CopyField :label="t('guidMadeOnce')" :text="episode.guid" />
      <CopyField v-if="!episode.isPrivate" :label="t('addressOfTheAudio')" :text="episode.enclosureAddress!" />
    </SmallOverlay>
  </template>
  <p v-else>
    {{ episode.keepsPage ? t('retiredKept') : t('retiredGone') }}
  </p>
</template>

<style scoped>
.needs-it {
  padding-inline-start: var(--space-3);
  border-inline-start: 4px solid var(--signal);
}
</style>
