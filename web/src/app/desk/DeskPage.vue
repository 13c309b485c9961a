<script setup lang="ts">
import { storeToRefs } from 'pinia'
import Button from 'primevue/button'
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import type { Recipe } from '@core/audio/recipe'
import { isOfNewerHouse } from '@core/mix/document'
import { inNaturalOrder } from '@core/upload/order'
import { numberWants } from '@core/episode/numbering'
import { renderText } from '@core/episode/rendered'
import { linkWants, mixWants, wantsOf } from '@core/episode/wants'
import ChapterLane from '../../words/chapters/ChapterLane.vue'
import { useDeskChapters } from '../../words/chapters/deskChapters'
import ConflictPanel from './ConflictPanel.vue'
import DeskHead from './DeskHead.vue'
import DeskParts from './DeskParts.vue'
import HistoryPanel from '../../show/history/HistoryPanel.vue'
import OpenPart from './OpenPart.vue'
import NumbersField from './NumbersField.vue'
import PreviewPanel from '../../feed/preview/PreviewPanel.vue'
import ReleasePanel from '../../release/releases/ReleasePanel.vue'
import MixPart from '../../production/mixing/MixPart.vue'
import { useSound } from '../../production/sound/sound'
import SoundPanel from '../../production/sound/SoundPanel.vue'
import TitleField from './TitleField.vue'
import WantNotes from '../../show/episodes/WantNotes.vue'
import WindowDrop from '../../production/uploads/WindowDrop.vue'
import { useArrivals } from './arrivals'
import { useDesk } from '../../show/episodes/desk'
import { partsByTime } from './parts'
import { type Look, useDeskPlaces } from './places'
import { focusField } from '../../platform/parts/fields'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { isMissing } from '../../platform/api/client'
import { transcriptEnding } from '@core/transcript/cue'
import { useShows } from '../../show/shows/shows'
import { useUploads } from '../../production/uploads/uploads'
import CueLane from '../../words/transcripts/CueLane.vue'
import { useDeskCues } from '../../words/transcripts/deskCues'
import { useDrafting } from '../../words/transcripts/drafting'
import { useDeskSoundbites } from '../../production/soundbites/deskSoundbites'
import SoundbiteLane from '../../production/soundbites/SoundbiteLane.vue'
import { useTranscript } from '../../words/transcripts/transcript'
import { useVocabulary } from '../../show/shows/vocabulary'
import { t } from './messages'

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
const problem = ref<ShownProblem | null>(null)
const isLoaded = ref(false)
const { part, look, goTo } = useDeskPlaces()
const isOpen = (name: Look) =>
  computed({ get: () => look.value === name, set: open => (look.value = open ? name : null) })
const isHistoryOpen = isOpen('history')
const isPreviewOpen = isOpen('preview')
const chapters = useDeskChapters(text)
const { source } = chapters
const soundbites = useDeskSoundbites(text, episode, sound, chapters.snap)
const transcript = useTranscript()
const drafting = useDrafting()
const cues = useDeskCues()
/** Whether pieces are being put together, and files that are brought are some of them. */
const isSheetOpen = computed(() => {
  const { mix } = text.value ?? {}
  return part.value === 'sound' && !!mix && !isOfNewerHouse(mix)
})
const dropWords = computed(() => {
  if (isSheetOpen.value) return t('dropBecomesPiece')
  return sound.value?.source ? t('dropReplacesAudio') : t('dropBecomesAudio')
})
const isHere = computed(() => !!episode.value && !!text.value && !!sound.value)
const openPart = ref<InstanceType<typeof OpenPart>>()
/** Title and notes as feed, page and file tell them. */
const told = computed(() => {
  const { name, titlePattern, pageAddress } = show.value
  return renderText(text.value!, { name, titlePattern, address: pageAddress }, chapters.delivered.value)
})
const isOut = computed(() => episode.value?.status === 'released' || episode.value?.status === 'retired')
const vocabulary = useVocabulary()
const fault = (field: string): string | undefined =>
  desk.faults.find(each => each.field === field || each.field.startsWith(`${field}.`))?.rule
const wants = computed(() => {
  if (!text.value || !episode.value) return []
  const { number, season, kind } = episode.value.text
  const isLookedAt = text.value.number === number && text.value.season === season && text.value.kind === kind
  return [
    ...wantsOf(text.value, show.value.name),
    ...linkWants(text.value.notes, episode.value.badLinks),
    ...mixWants(text.value.mix, sound.value?.taken ?? null),
    ...(isLookedAt ? numberWants(episode.value.numbering) : []),
    ...chapters.wants.value,
    ...soundbites.wants.value,
  ]
})
const worthFixing = computed(
  () => [...wants.value, ...(sound.value?.findings ?? [])].filter(({ severity }) => severity === 'warning').length,
)

async function load(): Promise<void> {
  problem.value = null
  try {
    await Promise.all([desk.open(props.id), sounds.open(props.id), transcript.load(props.id), drafting.load(props.id)])
    isLoaded.value = true
  } catch (error) {
    if (isMissing(error)) missing.value = true
    else problem.value = problemOf(error, t('episodeUnchanged'))
  }
}
onMounted(load)
// An answer that a later question has overtaken brings nothing to focus yet.
watch(
  () => isLoaded.value && isHere.value,
  () => focusField(String(router.currentRoute.value.query.at ?? '')),
  { flush: 'post', once: true },
)
onMounted(() => vocabulary.load(show.value.id))
onUnmounted(() => {
  desk.close()
  sounds.close()
  transcript.close()
})
onBeforeRouteLeave(async () => {
  await Promise.all([desk.send(), transcript.send()])
  await shows.loadEpisodes().catch(() => undefined)
})

useArrivals(props.id)

// Sound that cannot go out as it is wants the person first.
watch(
  () => sound.value?.source?.id && sound.value.findings.some(({ severity }) => severity === 'error'),
  mustFix => {
    if (mustFix && episode.value?.status === 'draft') part.value = 'sound'
  },
)

/** On the open sheet files become pieces. Else one becomes this episode's audio, or its transcript; several become episodes of their own. */
async function bring(files: File[]): Promise<void> {
  if (files.length === 1 && transcriptEnding(files[0]!.name)) {
    part.value = 'transcript'
    await nextTick()
    await openPart.value?.bringTranscript(files[0]!)
  } else if (isSheetOpen.value) {
    const { length } = text.value!.mix!.pieces
    for (const [n, file] of inNaturalOrder(files).entries())
      await uploads.beginPart(props.id, file, { role: 'piece', position: length + n })
  } else if (files.length === 1) void uploads.begin(props.id, files[0]!)
  else emit('files', files)
}

async function keepAsUsual(recipe: Recipe): Promise<void> {
  await shows.change(show.value.id, { version: show.value.version, recipe: { ...recipe, fromMs: null, toMs: null } })
}

async function remove(): Promise<void> {
  await uploads.cancelFor(props.id)
  await desk.remove(props.id)
  // Whoever has gone elsewhere meanwhile stays there.
  if (router.currentRoute.value.params.id === props.id)
    await router.push({ name: 'show', params: { show: props.show } })
}
</script>

<template>
  <div v-if="episode && text && sound" class="desk">
    <div class="middle">
      <div class="work">
        <h1 class="out-of-sight">{{ text.title || t('untitled') }}</h1>
        <DeskHead
          :episode="episode"
          :zone="show.zone"
          :listener-zones="show.listenerZones"
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
        <div class="stacked">
          <TitleField v-model="text.title" data-field="title" :told="told.title" :fault="fault('title')" />
          <NumbersField
            data-field="numbers kind"
            v-model:number="text.number"
            v-model:season="text.season"
            v-model:kind="text.kind"
            :faults="desk.faults"
            :next="episode.numbering.next"
          />
          <WantNotes :wants="wants" field="number" />
        </div>
        <SoundPanel
          data-field="audio"
          :sound="sound"
          :upload="episode.upload"
          :sending="sending"
          :show-slug="show.slug"
          :show-id="show.id"
          :whole="part === 'sound'"
          :is-put-together="text.mix !== null"
          :low="partsByTime.includes(part) || (isPreviewOpen && part !== 'sound')"
          @file="file => uploads.begin(props.id, file)"
          @pause="uploads.pause(props.id)"
          @go-on="uploads.goOn(props.id)"
          @cancel="uploads.cancel(props.id)"
          @keep-as-usual="keepAsUsual"
        >
          <template #lane="{ percent, view }">
            <ChapterLane
              v-if="part === 'chapters'"
              :chapters="chapters.chapters.value"
              :duration-ms="source!.durationMs"
              :percent="percent"
              :view="view"
              :snap="ms => chapters.snap(ms, view)"
              @add="ms => openPart?.focusChapter(chapters.acts.add(ms))"
              @move="(id, fromMs) => chapters.acts.change(id, { fromMs })"
              @hear="chapters.hear"
            />
            <SoundbiteLane
              v-else-if="part === 'soundbites'"
              :soundbites="soundbites.soundbites.value"
              :view="view"
              :percent="percent"
              :chosen-id="soundbites.chosenId.value"
              @add="ms => soundbites.add(chapters.snap(ms, view))"
              @drawn="openPart?.focusSoundbite(soundbites.chosenId.value)"
              @hear="soundbites.hear"
              @drag="(id, edge, ms) => soundbites.drag(id, edge, ms, view)"
              @put="soundbites.acts.move"
            />
            <CueLane
              v-else-if="part === 'transcript'"
              :cues="transcript.cues"
              :view="view"
              :percent="percent"
              :heard-id="cues.heardId.value"
              :chosen-id="transcript.chosenId"
              @choose="cue => openPart?.goToCue(cue.id)"
              @drag="(id, edge, ms) => cues.drag(id, edge, ms, view)"
              @put="cues.put"
            />
          </template>
          <DeskParts
            v-model="part"
            :wants="wants"
            :findings="sound.findings"
            :cue-wants="transcript.wants"
            :is-out="isOut"
          />
          <MixPart
            v-if="part === 'sound' && text.mix"
            v-model="text"
            data-field="mix"
            :show="show"
            :episode-id="episode.id"
            :fault="desk.faults.find(({ field }) => field.startsWith('mix'))?.rule"
          />
        </SoundPanel>
        <OpenPart
          ref="openPart"
          v-model:text="text"
          :part="part"
          :episode-id="episode.id"
          :is-out="isOut"
          :show="show"
          :revision="desk.revision"
          :artwork-address="episode.artworkAddress"
          :saved-artwork-id="episode.text.artworkId"
          :faults="desk.faults"
          :wants="wants"
          :told-notes="told.notesHtml"
          :brought="chapters.brought.value"
          :begins-ms="chapters.beginsMs.value"
          :soundbiting="soundbites"
        />
      </div>
      <PreviewPanel
        v-if="isPreviewOpen"
        :episode-id="episode.id"
        :version="episode.version"
        :sound-version="sound.version"
        :zone="show.zone"
        @close="isPreviewOpen = false"
      />
    </div>
    <ReleasePanel
      data-field="moment"
      :episode="episode"
      :sound-version="sound.version"
      :title="text.title"
      :show="show"
      :arriving="!!sending || episode.upload?.state === 'reading'"
      :saved="desk.saving === 'saved'"
      :worth-fixing="worthFixing"
      :is-looked-at="isPreviewOpen"
      @remove="remove"
      @look="isPreviewOpen = !isPreviewOpen"
    />
    <WindowDrop :words="dropWords" @files="bring" />
  </div>
  <div v-else-if="missing" class="desk">
    <div class="work">
      <h1>{{ t('episodeMissing') }}</h1>
      <p>
        {{ t('mayHaveBeenRemoved') }}
        <RouterLink :to="{ name: 'show', params: { show: props.show } }">{{ t('toTheShow') }}</RouterLink>
      </p>
    </div>
  </div>
  <div v-else-if="problem" class="desk">
    <div class="work">
      <h1 class="out-of-sight">{{ t('episode') }}</h1>
      <ProblemNote :problem="problem"><Button :label="t('tryAgain')" size="small" @click="load" /></ProblemNote>
    </div>
  </div>
  <div v-else class="desk">
    <div class="work"><LoadingShape :what="t('theEpisode')" :lines="12" /></div>
  </div>
</template>

<style scoped>
.desk {
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  min-height: 0;
}
.middle {
  position: relative;
  display: flex;
  flex: 1;
  min-height: 0;
}
.work {
  display: flex;
  flex: 1;
  flex-direction: column;
  min-width: 0;
  gap: var(--space-3);
  min-height: 0;
  overflow-y: auto;
  padding: var(--space-3) var(--space-5) 0;
}
.work > :not(.out-of-sight) {
  flex: none;
  width: 100%;
  max-width: 69rem;
}
</style>
