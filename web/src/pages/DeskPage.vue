<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import type { Recipe } from '@core/audio/recipe'
import ConflictPanel from '../components/ConflictPanel.vue'
import NotesEditor from '../components/NotesEditor.vue'
import NumbersField from '../components/NumbersField.vue'
import ReleasePanel from '../components/ReleasePanel.vue'
import SaveWord from '../components/SaveWord.vue'
import SoundPanel from '../components/SoundPanel.vue'
import StandingLine from '../components/StandingLine.vue'
import TitleField from '../components/TitleField.vue'
import WindowDrop from '../components/WindowDrop.vue'
import { api } from '../api'
import { onNews } from '../news/news'
import { useDesk } from '../stores/desk'
import { useShows } from '../stores/shows'
import { useUploads } from '../stores/uploads'

const props = defineProps<{ show: string; id: string }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const desk = useDesk()
const shows = useShows()
const uploads = useUploads()
const router = useRouter()
const { episode, text } = storeToRefs(desk)
const show = computed(() => shows.bySlug(props.show)!)
const sending = computed(() => uploads.sendings[props.id] ?? null)
const missing = ref(false)

onMounted(() => desk.open(props.id).catch(() => { missing.value = true }))
onUnmounted(desk.close)
onBeforeRouteLeave(async () => {
  await desk.send()
  await shows.loadEpisodes(show.value.id).catch(() => undefined)
})

onNews(({ id }) => id === props.id || id === episode.value?.sound.source?.id, desk.refresh, 2_000)
// What has arrived shows at once.
watch(() => sending.value?.state, state => { if (state === 'sent' || state === 'here') void desk.refresh().catch(() => undefined) })
watch(() => [episode.value?.sound.source?.id, episode.value?.upload?.state], () => {
  if ((sending.value?.state === 'sent' || sending.value?.state === 'here') && (episode.value?.upload === null || episode.value?.upload?.state === 'refused')) uploads.drop(props.id)
})
watch(() => [episode.value?.standing, episode.value?.version], () => void shows.loadEpisodes(show.value.id).catch(() => undefined))

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
  await api.removeEpisode(props.id)
  await router.push({ name: 'show', params: { show: props.show } })
}
</script>

<template>
  <div v-if="episode && text" class="desk">
    <header class="top">
      <StandingLine :episode="episode" :zone="show.zone" />
      <SaveWord :saving="desk.saving" :saved-at="desk.savedAt" />
    </header>
    <div class="writing">
      <ConflictPanel v-if="desk.conflicts.length" :fields="desk.conflicts" :mine="text" :theirs="desk.theirs!" @settle="desk.settle" />
      <TitleField v-model="text.title" :fault="desk.faults.find(fault => fault.field === 'title')?.rule" />
      <NumbersField v-model:number="text.number" v-model:season="text.season" v-model:kind="text.kind" :faults="desk.faults" />
      <SoundPanel
        :sound="episode.sound" :upload="episode.upload" :sending="sending" :show-slug="show.slug"
        @file="file => uploads.begin(props.id, file)" @pause="uploads.pause(props.id)" @go-on="uploads.goOn(props.id)" @cancel="uploads.cancel(props.id)" @keep-as-usual="keepAsUsual"
      />
      <NotesEditor v-model="text.notes" :revision="desk.revision" :fault="desk.faults.find(fault => fault.field === 'notes')?.rule" />
    </div>
    <ReleasePanel class="release" :episode="episode" :title="text.title" :show="show" :arriving="!!sending || episode.upload?.state === 'reading'" :saved="desk.saving === 'saved'" @remove="remove" />
    <WindowDrop :words="episode.sound.source ? 'Drop it: this file takes the place of the audio' : 'Drop it: this becomes the audio of the episode'" @files="bring" />
  </div>
  <div v-else-if="missing" class="desk">
    <div class="writing">
      <h1>There is no such episode</h1>
      <p>It may have been removed. <RouterLink :to="{ name: 'show', params: { show: props.show } }">To the show</RouterLink></p>
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
.top { grid-area: top; display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); justify-content: space-between; align-items: center; }
.writing { grid-area: writing; display: grid; grid-template-columns: minmax(0, 1fr); gap: var(--space-4); align-content: start; min-width: 0; }
.release { grid-area: release; align-self: start; position: sticky; top: var(--space-4); }
@media (max-width: 1060px) {
  .desk { grid-template: 'top' auto 'release' auto 'writing' 1fr / minmax(0, 1fr); }
  .release { position: static; }
}
</style>
