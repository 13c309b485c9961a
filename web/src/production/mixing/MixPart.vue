<script setup lang="ts">
import Button from 'primevue/button'
import { deepEqual } from 'fast-equals'
import { computed, ref, watch } from 'vue'
import type { EpisodeText } from '@core/episode/fields'
import { changedBed, changedPiece, movedPiece, withoutBed, withoutPiece } from '@core/mix/edits'
import { type UsualSet, usualSetOf } from '@core/mix/usualSet'
import type { Show } from '@contract/shows'
import type { AudioFile } from '@contract/sound'
import { clock } from '@core/words/amounts'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useAttempt } from '../../platform/parts/attempt'
import ShelfPicker from '../shelf/ShelfPicker.vue'
import { usePlaying } from '../sound/playing'
import RecordPanel from '../recording/RecordPanel.vue'
import { useSound } from '../sound/sound'
import { useWaveforms } from '../sound/waveforms'
import { useShows } from '../../show/shows/shows'
import { useUploads } from '../uploads/uploads'
import BedRow from './BedRow.vue'
import { useMixPlayer } from './hearing/mixPlayer'
import { useDeskMix } from './deskMix'
import MixLanes from './MixLanes.vue'
import PartUploads from './PartUploads.vue'
import PieceRow from './PieceRow.vue'
import { t } from './messages'

/** The audio of the episode as it is put together here: pieces in a row, music under them. Folded away until somebody wants it. */
const text = defineModel<EpisodeText>({ required: true })
const props = defineProps<{ show: Show; episodeId: string; fault?: string }>()
const sounds = useSound()
const waves = useWaveforms()
const uploads = useUploads()
const shows = useShows()
const isRecording = ref(false)
const { mix, isNewer, files, layout, isTaken, change, begin, addPiece, addBed } = useDeskMix(text)
const { atMs, isPlaying, isWaiting, isPossible, failed, toggle, seek, prepare } = useMixPlayer(() => ({
  mix: mix.value,
  durationMs: layout.value.durationMs,
  files: files.value,
}))
const desk = usePlaying()
/** One sound is heard at a time. */
watch(isPlaying, is => {
  if (is && desk.player?.isPlaying) desk.player.toggle()
})
watch(
  () => desk.player?.isPlaying,
  is => {
    if (is && isPlaying.value) toggle()
  },
)
const { problem, busy, attempt } = useAttempt(t('audioUnchanged'))
const picking = ref<'piece' | 'bed' | null>(null)
const isPicking = computed({
  get: () => picking.value !== null,
  set: is => (picking.value = is ? picking.value : null),
})

const nameOf = (fileId: string): string => files.value.get(fileId)?.name ?? t('fileGone')
const lengthOf = (fileId: string): number => files.value.get(fileId)?.durationMs ?? 0
const pieces = computed(() =>
  (mix.value?.pieces ?? []).map(({ id, fileId }, n) => ({ id, name: `${n + 1} ${nameOf(fileId)}` })),
)
const stands = computed(() =>
  isTaken.value ? t('isTheAudio') : sounds.sound?.taken ? t('notYetTheAudio') : t('notUsedYet'),
)

/** What the episodes of the show would begin and end with by this one. */
const set = computed(() => mix.value && usualSetOf(mix.value))
const isUsual = computed(() => set.value !== null && deepEqual(set.value, props.show.usualSet))
const keeping = useAttempt(t('usualUnchanged'))
const keep = (usualSet: UsualSet | null): Promise<unknown> =>
  keeping.attempt(() => shows.change(props.show.id, { version: props.show.version, usualSet }))

function take(file: AudioFile): void {
  if (picking.value === 'bed') addBed(file)
  else addPiece(file)
  picking.value = null
}
function upload(file: File): void {
  const { pieces = [] } = mix.value ?? {}
  void uploads.beginPart(
    props.episodeId,
    file,
    picking.value === 'bed' ? { role: 'bed' } : { role: 'piece', position: pieces.length },
  )
  picking.value = null
}
</script>

<template>
  <p v-if="isNewer" class="note">{{ t('byNewerVersion') }}</p>
  <p v-else-if="!mix" class="flowing small quiet">
    <button type="button" class="small-button" @click="begin">{{ t('putItTogether') }}</button>
    {{ t('putTogetherHint') }}
  </p>
  <section v-else class="mix stacked" :aria-label="t('putTogether')" @pointerenter="prepare" @focusin="prepare">
    <div class="apart">
      <h2 class="heading">
        {{ t('putTogether') }}{{ ' ' }}
        <span class="small quiet figures">{{ t('lengthInAll', { length: clock(layout.durationMs) }) }}</span>
      </h2>
      <div class="actions">
        <Button
          type="button"
          size="small"
          outlined
          :label="t('record')"
          :disabled="isRecording"
          @click="isRecording = true"
        />
        <Button type="button" size="small" outlined :label="t('addAPiece')" @click="picking = 'piece'" />
        <Button
          type="button"
          size="small"
          outlined
          :label="t('addABed')"
          :disabled="mix.pieces.length === 0"
          @click="picking = 'bed'"
        />
        <Button
          type="button"
          size="small"
          :label="t('useAsTheAudio')"
          :disabled="busy || isTaken || mix.pieces.length === 0"
          @click="attempt(sounds.takeMix)"
        />
      </div>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <ProblemNote v-if="keeping.problem.value" :problem="keeping.problem.value" />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <PartUploads :episode-id="episodeId" />
    <RecordPanel v-if="isRecording" :episode-id="episodeId" :pieces="pieces" @close="isRecording = false" />
    <p v-if="mix.pieces.length === 0" class="quiet">{{ t('noPieces') }}</p>
    <template v-else>
      <div class="flowing">
        <Button
          type="button"
          size="small"
          outlined
          class="play"
          :label="isPlaying ? t('pause') : t('play')"
          :disabled="!isPossible"
          @click="toggle"
        />
        <span class="figures">{{ t('positionOf', { time: clock(atMs), length: clock(layout.durationMs) }) }}</span>
        <span v-if="!isPossible" class="small">{{ t('needsHttps') }}</span>
        <span role="status" class="small quiet">{{ isWaiting ? t('soundComing') : '' }}</span>
        <span v-if="failed" class="small fault" role="alert">{{ t('cannotBeHeard') }}</span>
      </div>
      <MixLanes
        :at-ms="atMs"
        :layout="layout"
        :name-of="nameOf"
        :length-of="lengthOf"
        :waveforms="waves.waveforms"
        @seek="seek"
      />
      <p class="apart small">
        <span role="status">{{ stands }} {{ isUsual ? t('isUsualSet') : '' }}</span>
        <span class="actions">
          <button v-if="isUsual" type="button" class="small-button" :disabled="keeping.busy.value" @click="keep(null)">
            {{ t('noUsualSet') }}
          </button>
          <button v-else-if="set" type="button" class="small-button" :disabled="keeping.busy.value" @click="keep(set)">
            {{ t('keepAsUsualSet') }}
          </button>
          <button type="button" class="small-button" @click="change(null)">{{ t('removeAllOfIt') }}</button>
        </span>
      </p>
      <ol class="unlisted" :aria-label="t('pieces')">
        <PieceRow
          v-for="(placed, n) in layout.pieces"
          :key="placed.piece.id"
          :placed="placed"
          :place="n + 1"
          :last="layout.pieces.length"
          :file-name="nameOf(placed.piece.fileId)"
          :file-ms="lengthOf(placed.piece.fileId)"
          @change="part => change(changedPiece(mix!, placed.piece.id, part))"
          @move="by => change(movedPiece(mix!, placed.piece.id, by))"
          @remove="change(withoutPiece(mix!, placed.piece.id))"
        />
      </ol>
      <template v-if="mix.beds.length > 0">
        <h3 class="field-name">{{ t('musicUnderThem') }}</h3>
        <ol class="unlisted" :aria-label="t('musicUnderThem')">
          <BedRow
            v-for="(bed, n) in mix.beds"
            :key="bed.id"
            :bed="bed"
            :place="n + 1"
            :file-name="nameOf(bed.fileId)"
            :file-ms="lengthOf(bed.fileId)"
            :pieces="pieces"
            @change="part => change(changedBed(mix!, bed.id, part))"
            @remove="change(withoutBed(mix!, bed.id))"
          />
        </ol>
      </template>
    </template>
    <ShelfPicker
      v-model:visible="isPicking"
      :show-id="show.id"
      can-upload
      @take="(_id, file) => take(file)"
      @upload="upload"
    />
  </section>
</template>

<style scoped>
.mix :deep(.piece-row),
.mix :deep(.bed-row) {
  display: grid;
  grid-template-columns: 1.6rem minmax(8rem, 1fr) auto auto;
  gap: var(--space-1) var(--space-3);
  align-items: end;
  padding-block: var(--space-2);
  border-bottom: 1px solid var(--edge);
}
.mix :deep(.place) {
  align-self: center;
}
.mix :deep(.bed-row) {
  grid-template-columns: 1.6rem minmax(0, 1fr) auto;
}
.mix :deep(.bed-row .values),
.mix :deep(.more) {
  grid-column: 2 / -1;
}
.mix :deep(.values) {
  align-items: end;
  gap: var(--space-1) var(--space-2);
}
.mix :deep(.under) {
  max-width: 11rem;
}
@media (max-width: 900px) {
  .mix :deep(.piece-row) {
    grid-template-columns: 1.6rem minmax(0, 1fr) auto;
  }
  .mix :deep(.piece-row .values) {
    grid-column: 2 / -1;
    grid-row: 2;
  }
}
</style>
