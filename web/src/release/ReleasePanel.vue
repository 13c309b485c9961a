<script setup lang="ts">
import Button from 'primevue/button'
import ConfirmDialog from 'primevue/confirmdialog'
import { useConfirm } from 'primevue/useconfirm'
import { computed, ref } from 'vue'
import type { Episode, Release } from '@contract/episodes'
import type { Show } from '@contract/shows'
import FoldPanel from '../parts/FoldPanel.vue'
import CopyField from '../parts/CopyField.vue'
import ProblemNote from '../parts/ProblemNote.vue'
import ReleaseNeeds from './ReleaseNeeds.vue'
import ReleaseTime from './ReleaseTime.vue'
import type { Step } from '../api'
import { ApiError } from '../api/client'
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
}>()
const emit = defineEmits<{ remove: [] }>()
const desk = useDesk()
const sessions = useSession()
const problem = ref<{ title: string; detail: string; todo: string } | null>(null)
const busy = ref(false)
const choosing = ref(false)
const confirm = useConfirm()

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
    problem.value =
      error instanceof ApiError
        ? error.problem
        : {
            title: 'The server does not answer',
            detail: 'The episode was left where it is.',
            todo: 'Try again in a moment.',
          }
    return false
  } finally {
    busy.value = false
  }
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
  retire: {
    title: 'Take it out of the feed?',
    says: () => 'Apps that have it may keep it. You can put it back later, with the same date.',
    act: () => step('retire'),
    label: 'Take it out',
  },
  remove: {
    title: 'Remove this draft?',
    says: () => 'It goes from the list, with its words and its audio.',
    act: async () => {
      await attempt(async () => emit('remove'))
    },
    label: 'Remove it',
  },
} as const

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
  <section class="panel" aria-label="Release">
    <h2>Release</h2>
    <template v-if="standing === 'draft'">
      <ReleaseNeeds
        :has-audio="episode.hasAudio"
        :awaits-finish="episode.awaitsFinish"
        :arriving="arriving"
        :has-title="title.trim() !== ''"
      />
      <div v-if="!choosing" class="stack">
        <Button label="Release now" :disabled="!mayGoNow || busy" @click="ask('release')" />
        <Button label="Choose a time" outlined :disabled="!ready || busy" @click="choosing = true" />
      </div>
      <ReleaseTime v-else :zone="show.zone" :first="null" :busy="busy" @set="release" @cancel="choosing = false" />
    </template>

    <template v-else-if="standing === 'scheduled'">
      <ReleaseTime
        v-if="choosing"
        :zone="show.zone"
        :first="episode.releaseAt"
        :busy="busy"
        @set="release"
        @cancel="choosing = false"
      />
      <div v-else class="stack">
        <p v-if="episode.awaitsFinish" class="note needs-you">
          The audio is not finished yet. It goes out at its time only if it is finished by then, else as soon as it is.
        </p>
        <p v-else>It goes out by itself, also when this window is closed. What you write until then goes along.</p>
        <Button label="Move the time" outlined :disabled="busy" @click="choosing = true" />
        <Button label="Release now" outlined :disabled="!mayGoNow || busy" @click="ask('release')" />
        <Button label="Back to draft" text :disabled="busy" @click="step('unschedule')" />
      </div>
    </template>

    <template v-else-if="standing === 'released'">
      <div v-if="episode.changedSinceRelease || !saved" class="note needs-you">
        <h3>Listeners still have the earlier one</h3>
        <p>What you changed is saved here only.</p>
        <div class="actions send">
          <Button
            label="Send the changes"
            size="small"
            :loading="busy"
            :disabled="episode.awaitsFinish"
            @click="step('send-changes')"
          />
        </div>
      </div>
      <p v-else>The feed carries it just as it stands here.</p>
      <ul class="links">
        <li><a :href="episode.pageAddress!" target="_blank">Its public page</a></li>
        <li><a :href="show.feedAddress" target="_blank">The feed</a></li>
        <li v-if="listener"><a :href="listener" target="_blank">In the stand-in listener</a></li>
      </ul>
      <FoldPanel class="small known-by">
        <template #line>What apps know it by</template>
        <div class="stack known">
          <CopyField label="GUID, made once" :text="episode.guid" />
          <CopyField label="Address of the audio" :text="episode.enclosureAddress!" />
        </div>
      </FoldPanel>
      <Button label="Take it out of the feed" text :disabled="busy" @click="ask('retire')" />
    </template>

    <div v-else class="stack">
      <p>Not in the feed. Its page and its audio do not answer.</p>
      <Button label="Put it back" outlined :disabled="busy" @click="step('restore')" />
    </div>

    <ProblemNote v-if="problem" :problem="problem" />
    <Button
      v-if="standing === 'draft'"
      label="Remove this draft"
      text
      size="small"
      :disabled="busy"
      @click="ask('remove')"
    />

    <ConfirmDialog :style="{ width: 'min(27rem, 92vw)' }" />
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-4);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  box-shadow: var(--shade);
}
h2 {
  font-size: var(--text-l);
}
.stack {
  display: grid;
  gap: var(--space-2);
}
@media (max-width: 1060px) {
  .stack:not(.known) {
    display: flex;
    flex-wrap: wrap;
  }
  .stack p {
    flex-basis: 100%;
  }
}
.send {
  margin-top: var(--space-2);
}
.links {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: var(--space-1);
}
.known-by :deep(.fold-line) {
  color: var(--accent);
}
</style>
