<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import type { Recipe } from '@core/audio/recipe'
import { wantsOf } from '@core/episode/wants'
import ConflictPanel from './ConflictPanel.vue'
import DeskHead from './DeskHead.vue'
import DeskParts from './DeskParts.vue'
import ExtrasFields from './ExtrasFields.vue'
import HistoryPanel from '../history/HistoryPanel.vue'
import HookField from './HookField.vue'
import LinksField from '../writing/LinksField.vue'
import NotesEditor from '../writing/NotesEditor.vue'
import NumbersField from './NumbersField.vue'
import { partOf, wantWords } from './parts'
import PeopleField from '../writing/PeopleField.vue'
import ReleasePanel from '../release/ReleasePanel.vue'
import { useSound } from '../sound/sound'
import SoundPanel from '../sound/SoundPanel.vue'
import TagsField from '../writing/TagsField.vue'
import TitleField from './TitleField.vue'
import WindowDrop from '../uploads/WindowDrop.vue'
import { useArrivals } from './arrivals'
import { useDesk } from './desk'
import { useDeskPlaces } from './places'
import { useShows } from '../show/shows'
import { useUploads } from '../uploads/uploads'
import { useVocabulary } from '../show/vocabulary'

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
const { part, look, goTo } = useDeskPlaces()
const isHistoryOpen = computed({
  get: () => look.value === 'history',
  set: isOpen => (look.value = isOpen ? 'history' : null),
})
const vocabulary = useVocabulary()
const notesEditor = ref<InstanceType<typeof NotesEditor>>()
/** Where a picture that was just brought is seen, until the episode has it. */
const brought = ref<string | null>(null)
const artworkAddress = computed(() => {
  if (!text.value?.artworkId) return null
  return text.value.artworkId === episode.value?.text.artworkId ? episode.value.artworkAddress : brought.value
})
const fault = (field: string): string | undefined =>
  desk.faults.find(each => each.field === field || each.field.startsWith(`${field}.`))?.rule
const wants = computed(() => (text.value ? wantsOf(text.value, show.value.name) : []))
const wantsHere = computed(() => wants.value.filter(want => partOf(want) === part.value))
const worthMending = computed(
  () => [...wants.value, ...(sound.value?.findings ?? [])].filter(({ weight }) => weight === 'worth mending').length,
)

onMounted(() =>
  Promise.all([desk.open(props.id), sounds.open(props.id)]).catch(() => {
    missing.value = true
  }),
)
onMounted(() => vocabulary.load(show.value.id))
onUnmounted(() => {
  desk.close()
  sounds.close()
})
onBeforeRouteLeave(async () => {
  await desk.send()
  await shows.loadEpisodes().catch(() => undefined)
})

useArrivals(props.id)

// Sound that cannot go out as it is wants the person first.
watch(
  () => sound.value?.source?.id && sound.value.findings.some(({ weight }) => weight === 'must mend'),
  mustMend => {
    if (mustMend && episode.value?.standing === 'draft') part.value = 'sound'
  },
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
    <div class="work">
      <DeskHead
        :episode="episode"
        :zone="show.zone"
        :saving="desk.saving"
        :saved-at="desk.savedAt"
        :done="desk.done"
        :taken="desk.taken"
        @undo="goTo(desk.undo())"
        @redo="goTo(desk.redo())"
        @history="look = 'history'"
      />
      <HistoryPanel
        v-model:visible="isHistoryOpen"
        :episode-id="episode.id"
        :text="text"
        :zone="show.zone"
        @bring="desk.bring"
      />
      <ConflictPanel
        v-if="desk.conflicts.length"
        :fields="desk.conflicts"
        :mine="text"
        :theirs="desk.theirs!"
        :written="episode.written"
        :zone="show.zone"
        @settle="desk.settle"
      />
      <div class="head">
        <TitleField v-model="text.title" :fault="fault('title')" />
        <NumbersField
          v-model:number="text.number"
          v-model:season="text.season"
          v-model:kind="text.kind"
          :faults="desk.faults"
        />
      </div>
      <SoundPanel
        :sound="sound"
        :upload="episode.upload"
        :sending="sending"
        :show-slug="show.slug"
        :whole="part === 'sound'"
        @file="file => uploads.begin(props.id, file)"
        @pause="uploads.pause(props.id)"
        @go-on="uploads.goOn(props.id)"
        @cancel="uploads.cancel(props.id)"
        @keep-as-usual="keepAsUsual"
      >
        <DeskParts v-model="part" :wants="wants" :findings="sound.findings" />
      </SoundPanel>
      <section :id="`parts_tabpanel_${part}`" class="part" role="tabpanel" :aria-labelledby="`parts_tab_${part}`">
        <template v-if="part === 'words'">
          <HookField v-model="text.hook" :notes="text.notes" :fault="fault('hook')" />
          <NotesEditor
            ref="notesEditor"
            v-model="text.notes"
            :revision="desk.revision"
            :fault="fault('notes')"
            undone-by-page
          />
          <LinksField
            v-model="text.links"
            :usual="show.usualLinks"
            :fault="fault('links')"
            @insert="link => notesEditor?.insertLink(link)"
          />
        </template>
        <template v-else-if="part === 'people'">
          <PeopleField v-model="text.people" :known="vocabulary.people" :fault="fault('people')" />
          <TagsField v-model="text.tags" :used="vocabulary.tags" :usual="show.usualTags" :fault="fault('tags')" />
        </template>
        <ExtrasFields
          v-else-if="part === 'extras'"
          v-model:extras="text.extras"
          v-model:artwork-id="text.artworkId"
          :show="show"
          :artwork-address="artworkAddress"
          :faults="desk.faults"
          @artwork="address => (brought = address)"
        />
        <ul v-if="wantsHere.length" class="wants small">
          <li v-for="want in wantsHere" :key="want.code">
            <span class="weight">{{ want.weight }}:</span> {{ wantWords[want.code] }}
          </li>
        </ul>
      </section>
    </div>
    <ReleasePanel
      :episode="episode"
      :sound-version="sound.version"
      :title="text.title"
      :show="show"
      :arriving="!!sending || episode.upload?.state === 'reading'"
      :saved="desk.saving === 'saved'"
      :worth-mending="worthMending"
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
    <div class="work">
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
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  min-height: 0;
}
.work {
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: var(--space-3);
  min-height: 0;
  overflow-y: auto;
  padding: var(--space-3) var(--space-5) 0;
}
.work > * {
  flex: none;
  width: 100%;
  max-width: 69rem;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-2);
}
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-3);
  padding-block-end: var(--space-4);
}
.wants {
  display: grid;
  gap: var(--space-1);
  margin: 0;
  padding: 0;
  list-style: none;
  color: var(--ink-soft);
}
.weight {
  font-weight: 600;
}
</style>
