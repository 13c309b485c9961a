<script setup lang="ts">
import Button from 'primevue/button'
import ConfirmDialog from 'primevue/confirmdialog'
import Popover from 'primevue/popover'
import { useConfirm } from 'primevue/useconfirm'
import { computed, ref } from 'vue'
import type { Episode, Release } from '@contract/episodes'
import type { Show } from '@contract/shows'
import CopyField from '../parts/CopyField.vue'
import ProblemNote from '../parts/ProblemNote.vue'
import ReleaseNeeds from './ReleaseNeeds.vue'
import ReleaseTime from './ReleaseTime.vue'
import type { Step } from '../api'
import { problemOf } from '../parts/problems'
import { listenerLink } from '../show/links'
import { useDesk } from '../desk/desk'
import { useSession } from '../account/session'

/** From draft to released, and what can be done from each standing. */
const props = defineProps<{
  episode: Episode
  soundVersion: number
  title: string
  show: Show
  arriving: boolean
  saved: boolean
  worthMending: number
  isLookedAt: boolean
}>()
const emit = defineEmits<{ remove: []; look: [] }>()
const desk = useDesk()
const sessions = useSession()
const problem = ref<{ title: string; detail: string; todo: string } | null>(null)
const busy = ref(false)
const choosing = ref(false)
const confirm = useConfirm()
const known = ref<InstanceType<typeof Popover>>()

const standing = computed(() => props.episode.standing)
const ready = computed(() => props.episode.hasAudio && props.title.trim() !== '')
/** What may not go out yet can still be scheduled. */
const mayGoNow = computed(() => ready.value && !props.episode.awaitsFinish)
const listener = computed(() => listenerLink(sessions.session?.listenerAddress ?? null, props.show.feedAddress))

async function attempt(act: () => Promise<void>): Promise<boolean> {
  busy.value = true
  problem.value = null
  try {
    await act()
    return true
  } catch (error) {
    problem.value = problemOf(error, 'The episode was left where it is.')
    return false
  } finally {
    busy.value = false
  }
}

const meant = ref<Release['when']>({ kind: 'now' })
/** What goes out at once cannot be called back. */
function set(when: Release['when']): void {
  meant.value = when
  if (when.kind === 'at' && when.isDatedBack) ask('back')
  else void release(when)
}
async function release(when: Release['when']): Promise<void> {
  if (await attempt(() => desk.release(when, props.soundVersion))) choosing.value = false
}
const step = (name: Step): Promise<boolean> => attempt(() => desk.step(name, props.soundVersion))

const questions = {
  release: {
    title: 'Release it now?',
    says: () =>
      `“${props.title}” goes into the feed of ${props.show.name} at once. Apps fetch it within hours and keep it, so this cannot be called back.`,
    act: () => release({ kind: 'now' }),
    label: 'Release now',
  },
  back: {
    title: 'Release it now, dated back?',
    says: () =>
      `“${props.title}” goes into the feed of ${props.show.name} at once, with a date that is past. Apps fetch it within hours and keep it, so this cannot be called back.`,
    act: () => release(meant.value),
    label: 'Release it, dated back',
  },
  retire: {
    title: 'Take it out of the feed?',
    says: () => 'Apps that have it may keep it. You can put it back later, with the same date.',
    act: () => step('retire'),
    label: 'Take it out',
  },
  remove: {
    title: 'Remove this draft?',
    says: () =>
      'It goes from the list, with its words and its audio. Under All episodes, Removed drafts, you find it again.',
    act: async () => {
      await attempt(async () => emit('remove'))
    },
    label: 'Remove it',
  },
} as const

const inWords = (count: number): string =>
  `${['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'][count] ?? count} ${count === 1 ? 'thing' : 'things'}`

/** Asks before what cannot be taken back. */
function ask(about: keyof typeof questions): void {
  const { title, says, act, label } = questions[about]
  confirm.require({
    header: title,
    message: says(),
    acceptLabel: label,
    rejectLabel: 'Leave it',
    rejectProps: { text: true },
    accept: () => void act(),
  })
}
</script>

<template>
  <section class="bar" aria-label="Release">
    <ReleaseTime
      v-if="choosing"
      class="choosing"
      :zone="show.zone"
      :episode-id="episode.id"
      :listener-zones="show.listenerZones"
      :first="standing === 'scheduled' ? episode.releaseAt : null"
      :busy="busy"
      @set="set"
      @cancel="choosing = false"
    />
    <template v-else>
      <div class="state">
        <template v-if="standing === 'draft'">
          <ReleaseNeeds
            :has-audio="episode.hasAudio"
            :awaits-finish="episode.awaitsFinish"
            :arriving="arriving"
            :has-title="title.trim() !== ''"
          />
          <p v-if="mayGoNow" class="small" role="status">
            <strong>Ready.</strong> {{ worthMending ? `${inWords(worthMending)} worth mending.` : '' }}
          </p>
        </template>
        <p v-else-if="standing === 'scheduled' && episode.awaitsFinish" class="needs-it">
          The audio is not finished yet. It goes out at its time only if it is finished by then, else as soon as it is.
        </p>
        <p v-else-if="standing === 'scheduled'">It goes out by itself. What you write until then goes along.</p>
        <template v-else-if="standing === 'released'">
          <p v-if="episode.changedSinceRelease || !saved" class="needs-it">
            <strong>Listeners still have the earlier one.</strong> What you changed is saved here only.
          </p>
          <p v-else>The feed carries it just as it stands here.</p>
          <p class="links small">
            <a :href="episode.pageAddress!" target="_blank">Its public page</a>
            <a :href="show.feedAddress" target="_blank">The feed</a>
            <a v-if="listener" :href="listener" target="_blank">In the stand-in listener</a>
            <button type="button" class="link-button" aria-haspopup="dialog" @click="event => known!.toggle(event)">
              What apps know it by
            </button>
          </p>
          <Popover ref="known" class="known-by">
            <CopyField label="GUID, made once" :text="episode.guid" />
            <CopyField label="Address of the audio" :text="episode.enclosureAddress!" />
          </Popover>
        </template>
        <p v-else>Not in the feed. Its page and its audio do not answer.</p>
        <ProblemNote v-if="problem" :problem="problem" />
      </div>
      <div class="acts">
        <Button label="As it goes out" text :aria-expanded="isLookedAt" @click="emit('look')" />
        <template v-if="standing === 'draft'">
          <Button label="Remove this draft" text size="small" :disabled="busy" @click="ask('remove')" />
          <Button label="Choose a time" outlined :disabled="!ready || busy" @click="choosing = true" />
          <Button label="Release now" :disabled="!mayGoNow || busy" @click="ask('release')" />
        </template>
        <template v-else-if="standing === 'scheduled'">
          <Button label="Back to draft" text :disabled="busy" @click="step('unschedule')" />
          <Button label="Move the time" outlined :disabled="busy" @click="choosing = true" />
          <Button label="Release now" outlined :disabled="!mayGoNow || busy" @click="ask('release')" />
        </template>
        <template v-else-if="standing === 'released'">
          <Button label="Take it out of the feed" text :disabled="busy" @click="ask('retire')" />
          <Button
            v-if="episode.changedSinceRelease || !saved"
            label="Send the changes"
            :loading="busy"
            :disabled="episode.awaitsFinish"
            @click="step('send-changes')"
          />
        </template>
        <Button v-else label="Put it back" outlined :disabled="busy" @click="step('restore')" />
      </div>
    </template>
    <ConfirmDialog :style="{ width: 'min(27rem, 92vw)' }" />
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-5);
  align-items: center;
  justify-content: space-between;
  padding: var(--space-2) var(--space-5);
  background: var(--sheet);
  border-top: 1px solid var(--edge);
  box-shadow: var(--shade);
}
.choosing {
  flex: 1;
}
.state {
  display: flex;
  flex: 1 1 20rem;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-5);
  align-items: center;
}
.needs-it {
  padding-inline-start: var(--space-3);
  border-inline-start: 4px solid var(--signal);
}
.links {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-4);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
}
</style>
