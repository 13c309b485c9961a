<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import type { Recipe } from '@core/audio/recipe'
import ConflictPanel from './ConflictPanel.vue'
import NotesEditor from './NotesEditor.vue'
import NumbersField from './NumbersField.vue'
import ReleasePanel from '../release/ReleasePanel.vue'
import SaveWord from './SaveWord.vue'
import { useSound } from '../sound/sound'
import SoundPanel from '../sound/SoundPanel.vue'
import StandingLine from './StandingLine.vue'
import TitleField from './TitleField.vue'
import WindowDrop from '../uploads/WindowDrop.vue'
import { onNews } from '../news/news'
import { useDesk } from './desk'
import { useShows } from '../show/shows'
import { useUploads } from '../uploads/uploads'

const props = defineProps<{ show: string; id: string }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const desk = useDesk()
const sounds = useSound()
const shows = useShows()
const uploads = useUploads()
const router = useRouter()
const { episode, text } = storeToRefs(desk)
const { sound } = storeToRefs(sounds)
const show = computed(() => shows.bySlug(props.show)!)
const sending = computed(() => uploads.sendings[props.id] ?? null)
const missing = ref(false)

onMounted(() =>
  Promise.all([desk.open(props.id), sounds.open(props.id)]).catch(() => {
    missing.value = true
  }),
)
onUnmounted(() => {
  desk.close()
  sounds.close()
})
onBeforeRouteLeave(async () => {
  await desk.send()
  await shows.loadEpisodes().catch(() => undefined)
})

const refresh = (): Promise<unknown> => Promise.all([desk.refresh(), sounds.refresh()])
onNews(({ id, kind }) => id === props.id && kind !== 'sound', refresh, 2_000)
onNews(({ id, kind }) => kind === 'sound' && (id === props.id || id === sound.value?.source?.id), sounds.refresh, 2_000)
// What has arrived shows at once.
watch(
  () => sending.value?.state,
  state => {
    if (state === 'sent' || state === 'here') void refresh().catch(() => undefined)
  },
)
watch(
  () => [sound.value?.source?.id, episode.value?.upload?.state],
  () => {
    if (
      (sending.value?.state === 'sent' || sending.value?.state === 'here') &&
      (episode.value?.upload === null || episode.value?.upload?.state === 'refused')
    )
      uploads.drop(props.id)
  },
)
watch(
  () => [episode.value?.standing, episode.value?.version, sound.value?.version],
  () => void shows.loadEpisodes().catch(() => undefined),
)

/** One file becomes this episode's audio; several become episodes of their own. */
function bring(files: File[]): void {
  if (files.length === 1) void uploads.begin(props.id, files[0]!)
  else emit('files', files)
}

async function keepAsUsual(recipe: Recipe): Promise<void> {
  await shows.change(show.value.id, { version: show.value.version, recipe: { ...recipe, fromMs: null, toMs: null } })
}

async function remove(): Promise<void> {
  await uploads.cancel(props.id)
  await desk.remove(props.id)
  await router.push({ name: 'show', params: { show: props.show } })
}
</script>

<template>
  <div v-if="episode && text && sound" class="desk">
    <header class="top">
      <StandingLine :episode="episode" :zone="show.zone" />
      <SaveWord :saving="desk.saving" :saved-at="desk.savedAt" />
    </header>
    <div class="writing">
      <ConflictPanel
        v-if="desk.conflicts.length"
        :fields="desk.conflicts"
        :mine="text"
        :theirs="desk.theirs!"
        @settle="desk.settle"
      />
      <TitleField v-model="text.title" :fault="desk.faults.find(fault => fault.field === 'title')?.rule" />
      <NumbersField
        v-model:number="text.number"
        v-model:season="text.season"
        v-model:kind="text.kind"
        :faults="desk.faults"
      />
      <SoundPanel
        :sound="sound"
        :upload="episode.upload"
        :sending="sending"
        :show-slug="show.slug"
        @file="file => uploads.begin(props.id, file)"
        @pause="uploads.pause(props.id)"
        @go-on="uploads.goOn(props.id)"
        @cancel="uploads.cancel(props.id)"
        @keep-as-usual="keepAsUsual"
      />
      <NotesEditor
        v-model="text.notes"
        :revision="desk.revision"
        :fault="desk.faults.find(fault => fault.field === 'notes')?.rule"
      />
    </div>
    <ReleasePanel
      class="release"
      :episode="episode"
      :sound-version="sound.version"
      :title="text.title"
      :show="show"
      :arriving="!!sending || episode.upload?.state === 'reading'"
      :saved="desk.saving === 'saved'"
      @remove="remove"
    />
    <WindowDrop
      :words="
        sound.source
          ? 'Drop it: this file takes the place of the audio'
          : 'Drop it: this becomes the audio of the episode'
      "
      @files="bring"
    />
  </div>
  <div v-else-if="missing" class="desk">
    <div class="writing">
      <h1>There is no such episode</h1>
      <p>
        It may have been removed.
        <RouterLink :to="{ name: 'show', params: { show: props.show } }">To the show</RouterLink>
      </p>
    </div>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template: 'top top' auto 'writing release' 1fr / minmax(0, 1fr) 18.5rem;
  gap: var(--space-4) var(--space-5);
  max-width: 72rem;
  padding: var(--space-4) var(--space-5) var(--space-6);
}
.top {
  grid-area: top;
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-5);
  justify-content: space-between;
  align-items: center;
}
.writing {
  grid-area: writing;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-4);
  align-content: start;
  min-width: 0;
}
.release {
  grid-area: release;
  align-self: start;
  position: sticky;
  top: var(--space-4);
}
@media (max-width: 1060px) {
  .desk {
    grid-template: 'top' auto 'release' auto 'writing' 1fr / minmax(0, 1fr);
  }
  .release {
    position: static;
  }
}
</style>
