<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Mark } from '@core/chapters/marks'
import type { Fault } from '@contract/problem'
import type { Show } from '@contract/shows'
import type { EpisodeText } from '@core/episode/fields'
import type { Want } from '@core/episode/wants'
import { useVocabulary } from '../../show/shows/vocabulary'
import LinksField from '../../words/writing/LinksField.vue'
import NotesEditor from '../../words/writing/NotesEditor.vue'
import PeopleField from '../../words/writing/PeopleField.vue'
import TagsField from '../../words/writing/TagsField.vue'
import EpisodeNumbers from '../../numbers/figures/EpisodeNumbers.vue'
import ChaptersPart from '../../words/chapters/ChaptersPart.vue'
import type { useDeskSoundbites } from '../../production/soundbites/deskSoundbites'
import MixPart from '../../production/mixing/MixPart.vue'
import SoundbitesPart from '../../production/soundbites/SoundbitesPart.vue'
import TranscriptPart from '../../words/transcripts/TranscriptPart.vue'
import ExtrasFields from './ExtrasFields.vue'
import HookField from './HookField.vue'
import type { DeskPart } from './parts'
import NotesFacts from './NotesFacts.vue'
import WantNotes from '../../show/episodes/WantNotes.vue'

/** What is written in the part of the desk that is open, each finding at its field. */
const text = defineModel<EpisodeText>('text', { required: true })
const props = defineProps<{
  part: DeskPart
  episodeId: string
  isOut: boolean
  show: Show
  revision: number
  artworkAddress: string | null
  savedArtworkId: string | null
  faults: readonly Fault[]
  wants: readonly Want[]
  /** The notes with their fields filled in. */
  toldNotes: string
  /** Chapters that the file brings. */
  brought: readonly Mark[]
  /** Where the sound that goes out begins in the source. */
  beginsMs: number
  soundbiting: ReturnType<typeof useDeskSoundbites>
}>()
const vocabulary = useVocabulary()
const chaptersPart = ref<InstanceType<typeof ChaptersPart>>()
const soundbitesPart = ref<InstanceType<typeof SoundbitesPart>>()
const transcriptPart = ref<InstanceType<typeof TranscriptPart>>()
const notesEditor = ref<InstanceType<typeof NotesEditor>>()
/** Where a picture that was just brought is seen, until the episode has it. */
const broughtArtwork = ref<string | null>(null)
const artwork = computed(() => {
  if (!text.value.artworkId) return null
  return text.value.artworkId === props.savedArtworkId ? props.artworkAddress : broughtArtwork.value
})
const fault = (field: string): string | undefined =>
  props.faults.find(each => each.field === field || each.field.startsWith(`${field}.`))?.rule
defineExpose({
  bringTranscript: (file: File) => transcriptPart.value?.bring(file, file.name),
  goToCue: (id: string) => transcriptPart.value?.goTo(id),
  focusSoundbite: (id: string | undefined) => soundbitesPart.value?.focusTitle(id),
  focusChapter: (id: string) => chaptersPart.value?.focusTitle(id),
})
</script>

<template>
  <section :id="`parts_tabpanel_${part}`" class="part stacked" role="tabpanel" :aria-labelledby="`parts_tab_${part}`">
    <MixPart v-if="part === 'sound' && !text.mix" v-model="text" :show="show" :episode-id="episodeId" />
    <template v-else-if="part === 'words'">
      <div data-field="hook">
        <HookField v-model="text.hook" :notes="text.notes" :fault="fault('hook')" />
        <WantNotes :wants="wants" field="hook" />
      </div>
      <div data-field="notes">
        <NotesEditor
          ref="notesEditor"
          v-model="text.notes"
          :revision="revision"
          :fault="fault('notes')"
          undone-by-page
        />
        <NotesFacts :told="toldNotes" />
        <WantNotes :wants="wants" field="notes" />
      </div>
      <LinksField
        v-model="text.links"
        :usual="show.usualLinks"
        :fault="fault('links')"
        @insert="link => notesEditor?.insertLink(link)"
      />
    </template>
    <template v-else-if="part === 'people'">
      <PeopleField data-field="people" v-model="text.people" :known="vocabulary.people" :fault="fault('people')" />
      <div>
        <TagsField v-model="text.tags" :used="vocabulary.tags" :usual="show.usualTags" :fault="fault('tags')" />
        <WantNotes :wants="wants" field="tags" />
      </div>
    </template>
    <ChaptersPart
      v-else-if="part === 'chapters'"
      ref="chaptersPart"
      data-field="chapters"
      v-model="text"
      :brought="brought"
      :wants="wants"
      :begins-ms="beginsMs"
      :fault="fault('chapters')"
    />
    <TranscriptPart
      v-else-if="part === 'transcript'"
      ref="transcriptPart"
      data-field="transcript"
      :show-language="show.language"
      :people="text.people.map(({ name }) => name)"
    />
    <SoundbitesPart
      v-else-if="part === 'soundbites'"
      ref="soundbitesPart"
      v-bind="soundbiting.told.value"
      :wants="wants"
      :title="text.title"
      :fault="fault('soundbites')"
      @add="ms => soundbitesPart?.focusTitle(soundbiting.add(ms))"
      @choose="soundbiting.choose"
      @hear="soundbiting.hear"
      @change="soundbiting.acts.change"
      @move="soundbiting.acts.move"
      @remove="soundbiting.acts.remove"
    />
    <ExtrasFields
      v-else-if="part === 'extras'"
      data-field="extras artwork"
      v-model:extras="text.extras"
      v-model:artwork-id="text.artworkId"
      :show="show"
      :artwork-address="artwork"
      :faults="faults"
      @artwork="address => (broughtArtwork = address)"
    />
    <EpisodeNumbers v-else-if="part === 'numbers' && isOut" :key="episodeId" :show="show" :episode-id="episodeId" />
  </section>
</template>

<style scoped>
.part {
  gap: var(--space-3);
  padding-block-end: var(--space-4);
}
</style>
