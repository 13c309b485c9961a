<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed, ref } from 'vue'
import { amount, clock } from '@core/words/amounts'
import { useShows } from '../../show/shows/shows'
import { type Sending, useUploads } from './uploads'
import { t } from './messages'

/** Several files on their way: the whole, each of them, and what can be done about it. */
defineProps<{ slug: string }>()
const shows = useShows()
const uploads = useUploads()
const open = ref(true)

const all = computed(() => uploads.all)
const unfinished = computed(() => all.value.filter(({ state }) => !['here', 'refused'].includes(state)))
const moving = computed(() =>
  unfinished.value.filter(({ state }) => state === 'queued' || state === 'sending' || state === 'waiting'),
)
const paused = computed(() => unfinished.value.filter(({ state }) => state === 'paused'))
const sentBytes = computed(() => all.value.reduce((sum, each) => sum + each.sentBytes, 0))
const bytes = computed(() => all.value.reduce((sum, each) => sum + each.bytes, 0))
const words = computed(() => {
  const here = all.value.filter(({ state }) => state === 'here').length
  if (unfinished.value.length === 0) return t('filesUploaded', { done: here, total: all.value.length })
  const perSecond = all.value.reduce(
    (sum, { pace, state }) => sum + (state === 'sending' ? (pace?.bytesPerSecond ?? 0) : 0),
    0,
  )
  return [
    t('filesUploaded', { done: here, total: all.value.length }),
    t('sentOf', { sent: amount(sentBytes.value), size: amount(bytes.value) }),
    ...(perSecond > 0 ? [t('timeLeft', { time: clock(((bytes.value - sentBytes.value) / perSecond) * 1000) })] : []),
  ].join(' · ')
})

const states: Readonly<Record<Sending['state'], string>> = {
  queued: t('stateQueued'),
  sending: t('stateSending'),
  paused: t('statePaused'),
  waiting: t('connectionLost'),
  sent: t('beingRead'),
  here: t('isHere'),
  refused: '',
}
const stateOf = ({ state, problem, sentBytes: sent, bytes: whole }: Sending): string =>
  state === 'refused'
    ? (problem?.title ?? t('stateRefused'))
    : state === 'sending'
      ? t('percent', { share: Math.floor((sent / whole) * 100) })
      : states[state]
const titleOf = ({ episodeId }: Sending): string | null => shows.episode(episodeId)?.title || null

const pauseAll = (): void => {
  for (const { id } of moving.value) void uploads.pause(id)
}
const goOnAll = (): void => {
  for (const { id } of paused.value) uploads.goOn(id)
}
const foldAway = (): void => {
  for (const { id } of all.value) uploads.drop(id)
}
</script>

<template>
  <section class="queue spaced mt-4 mx-5 mb-0 px-4 py-3 bg-accent-wash rounded" :aria-label="t('uploads')">
    <div class="line flowing gap-x-3 gap-y-2">
      <p class="figures" role="status">{{ words }}</p>
      <Button v-if="moving.length" type="button" :label="t('pauseAll')" size="small" outlined @click="pauseAll" />
      <Button v-if="paused.length" type="button" :label="t('resumeAll')" size="small" outlined @click="goOnAll" />
      <button v-if="unfinished.length" type="button" class="small-button" :aria-expanded="open" @click="open = !open">
        {{ open ? t('fold') : t('eachOfThem') }}
      </button>
      <Button v-else type="button" :label="t('hide')" size="small" text @click="foldAway" />
    </div>
    <ProgressBar
      v-if="unfinished.length"
      :value="Math.floor((sentBytes / Math.max(1, bytes)) * 100)"
      :show-value="false"
      :aria-label="t('allFiles')"
    />
    <ol v-if="open" class="small unlisted">
      <li
        v-for="each in all"
        class="flex flex-wrap gap-x-3 gap-y-1 py-1 border-t border-edge"
        :key="each.id"
        :class="{ needs: each.state === 'refused' }"
      >
        <RouterLink v-if="!each.beginsIn" :to="{ name: 'desk', params: { show: slug, id: each.episodeId } }">{{
          each.fileName
        }}</RouterLink>
        <span v-else>{{ each.fileName }}</span>
        <span v-if="titleOf(each)" class="quiet title one-line min-w-0">{{ titleOf(each) }}</span>
        <span class="figures state">{{ stateOf(each) }}</span>
        <span class="acts">
          <button
            v-if="each.state === 'paused'"
            type="button"
            class="small-button"
            :aria-label="t('resumeWith', { name: each.fileName })"
            @click="uploads.goOn(each.id)"
          >
            {{ t('resume') }}
          </button>
          <button
            v-else-if="['queued', 'sending', 'waiting'].includes(each.state)"
            type="button"
            class="small-button"
            :aria-label="t('pauseNamed', { name: each.fileName })"
            @click="uploads.pause(each.id)"
          >
            {{ t('pause') }}
          </button>
          <button
            v-if="each.state === 'refused'"
            type="button"
            class="small-button"
            :aria-label="t('tryNamedAgain', { name: each.fileName })"
            @click="uploads.retry(each.id)"
          >
            {{ t('tryAgain') }}
          </button>
          <button
            v-if="!['sent', 'here'].includes(each.state)"
            type="button"
            class="small-button"
            :aria-label="t('cancelNamed', { name: each.fileName })"
            @click="uploads.cancel(each.id)"
          >
            {{ t('cancelUpload') }}
          </button>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.line p {
  margin-right: auto;
  font-weight: 600;
}
.queue :deep(.p-progressbar) {
  height: 6px;
}
ol {
  max-height: 14rem;
  overflow-y: auto;
}
.state {
  margin-left: auto;
}
.needs .state {
  color: var(--signal);
  font-weight: 600;
}
.acts {
  display: flex;
  gap: var(--space-3);
  min-width: 9rem;
  justify-content: flex-end;
}
</style>
