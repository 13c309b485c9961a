<script setup lang="ts">
import Button from 'primevue/button'
import ConfirmDialog from 'primevue/confirmdialog'
import { useConfirm } from 'primevue/useconfirm'
import { computed, ref } from 'vue'
import type { Episode, Release, WallMoment } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { may, roleWords } from '@core/access/roles'
import { steps } from '@core/release/status'
import { hindering, withTitle } from '@core/release/readiness'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import OtherMoment from './OtherMoment.vue'
import ReleaseState from './ReleaseState.vue'
import ReleaseTime from './ReleaseTime.vue'
import type { Step } from '../../platform/api'
import { useAttempt } from '../../platform/parts/attempt'
import { useDesk } from '../../show/episodes/desk'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** From draft to released, and what can be done from each status. */
const props = defineProps<{
  episode: Episode
  soundVersion: number
  title: string
  show: Show
  arriving: boolean
  saved: boolean
  worthFixing: number
  isLookedAt: boolean
}>()
const emit = defineEmits<{ remove: []; look: [] }>()
const desk = useDesk()
const { problem, busy, attempt } = useAttempt(t('episodeUnchanged'))
const choosing = ref<'time' | 'date' | 'end' | null>(null)
const confirm = useConfirm()

const status = computed(() => props.episode.status)
const hindrances = computed(() => withTitle(props.episode.hindrances, props.title))
const isReadyTo = (step: 'release' | 'schedule') => computed(() => hindering(step, hindrances.value).length === 0)
const mayGoNow = isReadyTo('release')
const mayBeScheduled = isReadyTo('schedule')

const meant = ref<Release['when']>({ kind: 'now' })
/** What goes out at once cannot be called back. */
function set(when: Release['when']): void {
  meant.value = when
  if (when.kind === 'at' && when.isDatedBack) ask('back')
  else void release(when)
}
async function release(when: Release['when']): Promise<void> {
  if (await attempt(() => desk.release(when, props.soundVersion))) choosing.value = null
}
async function setOther(when: WallMoment, keepsPage: boolean): Promise<void> {
  const isEnd = choosing.value === 'end'
  if (await attempt(() => (isEnd ? desk.retire(when, keepsPage) : desk.redate(when)))) choosing.value = null
}
const keepsPage = ref(false)
function takeOut(keeps: boolean): void {
  keepsPage.value = keeps
  ask('retire')
}
async function dropEnd(): Promise<void> {
  if (await step('drop-end')) choosing.value = null
}
const step = (name: Step): Promise<boolean> => attempt(() => desk.step(name, props.soundVersion))

const questions = {
  release: {
    title: t('releaseNowQuestion'),
    says: () => t('releaseNowTells', { title: props.title, show: props.show.name }),
    act: () => release({ kind: 'now' }),
    label: t('releaseNow'),
  },
  back: {
    title: t('releasePastQuestion'),
    says: () => t('releasePastTells', { title: props.title, show: props.show.name }),
    act: () => release(meant.value),
    label: t('releaseWithPastDate'),
  },
  retire: {
    title: t('retireQuestion'),
    says: () => t('retireTells', { effect: steps.retire.effect, keeps: keepsPage.value ? 'yes' : 'no' }),
    act: async () => {
      if (await attempt(() => desk.retire(null, keepsPage.value))) choosing.value = null
    },
    label: t('removeIt'),
  },
  remove: {
    title: t('removeDraftQuestion'),
    says: () => t('removeDraftTells'),
    act: async () => {
      await attempt(async () => emit('remove'))
    },
    label: t('removeIt'),
  },
} as const

/** Asks before what cannot be taken back. */
function ask(about: keyof typeof questions): void {
  const { title, says, act, label } = questions[about]
  confirm.require({
    header: title,
    message: says(),
    acceptLabel: label,
    rejectLabel: t('cancel'),
    rejectProps: { text: true },
    accept: () => void act(),
  })
}
</script>

<template>
  <section class="bar apart" :aria-label="t('release')">
    <ReleaseTime
      v-if="choosing === 'time'"
      v-opened="() => (choosing = null)"
      class="choosing"
      :zone="show.zone"
      :episode-id="episode.id"
      :listener-zones="show.listenerZones"
      :first="status === 'scheduled' ? episode.releaseAt : null"
      :busy="busy"
      @set="set"
      @cancel="choosing = null"
    />
    <OtherMoment
      v-else-if="choosing"
      v-opened="() => (choosing = null)"
      class="choosing"
      :about="choosing"
      :episode="episode"
      :show="show"
      :busy="busy"
      @set="setOther"
      @now="takeOut"
      @drop="dropEnd"
      @cancel="choosing = null"
    />
    <template v-else>
      <div class="state flowing">
        <ReleaseState
          :episode="episode"
          :show="show"
          :hindrances="hindrances"
          :arriving="arriving"
          :saved="saved"
          :worth-fixing="worthFixing"
          @date="choosing = 'date'"
        />
        <ProblemNote v-if="problem" :problem="problem" />
      </div>
      <div class="acts flowing">
        <Button :label="t('preview')" text :aria-expanded="isLookedAt" @click="emit('look')" />
        <p v-if="show.role !== 'keeper' && !may(show.role, 'make')" class="small quiet">{{ roleWords[show.role] }}</p>
        <template v-else-if="status === 'draft'">
          <Button :label="t('removeThisDraft')" text size="small" :disabled="busy" @click="ask('remove')" />
          <Button :label="t('chooseATime')" outlined :disabled="!mayBeScheduled || busy" @click="choosing = 'time'" />
          <Button :label="t('releaseNow')" :disabled="!mayGoNow || busy" @click="ask('release')" />
        </template>
        <template v-else-if="status === 'scheduled'">
          <Button :label="t('backToDraft')" text :disabled="busy" @click="step('unschedule')" />
          <Button :label="t('moveTheTime')" outlined :disabled="busy" @click="choosing = 'time'" />
          <Button :label="t('releaseNow')" outlined :disabled="!mayGoNow || busy" @click="ask('release')" />
        </template>
        <template v-else-if="status === 'released'">
          <Button :label="t('removeFromTheFeed')" text :disabled="busy" @click="choosing = 'end'" />
          <Button
            v-if="episode.changedSinceRelease || !saved"
            :label="t('publishChanges')"
            :loading="busy"
            :disabled="!mayGoNow"
            @click="step('send-changes')"
          />
        </template>
        <Button v-else :label="t('restoreToTheFeed')" outlined :disabled="busy" @click="step('restore')" />
      </div>
    </template>
    <ConfirmDialog :style="{ width: 'min(27rem, 92vw)' }" />
  </section>
</template>

<style scoped>
.bar {
  gap: var(--space-2) var(--space-5);
  align-items: center;
  padding: var(--space-2) var(--space-5);
  background: var(--sheet);
  border-top: 1px solid var(--edge);
  box-shadow: var(--shade);
}
.choosing {
  flex: 1;
}
.state {
  flex: 1 1 20rem;
  gap: var(--space-1) var(--space-5);
}
/* On a phone it leaves four fifths of the window to the work: smaller letters, less room between. */
@media (max-width: 620px) {
  .bar {
    gap: 0 var(--space-2);
    padding: var(--space-1) var(--space-4);
  }
  .state {
    flex-basis: 100%;
    font-size: var(--text-s);
  }
  .acts :deep(.p-button) {
    padding-inline: var(--space-2);
    font-size: var(--text-s);
  }
}
</style>
