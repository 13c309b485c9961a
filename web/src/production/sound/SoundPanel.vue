<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import type { Finding } from '@core/audio/findings'
import type { Sound, Upload } from '@contract/sound'
import { trimOf } from '@core/audio/finishPlan'
import { type Recipe, recipeText, withPossibleEnds } from '@core/audio/recipe'
import { cuttingPlaces, snapped } from '@core/audio/snap'
import AddressForm from './AddressForm.vue'
import AudioInput from '../files/AudioInput.vue'
import FinishPanel from './FinishPanel.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import ShelfPicker from '../shelf/ShelfPicker.vue'
import SoundBench from './SoundBench.vue'
import SoundFacts from './SoundFacts.vue'
import SoundFindings from './SoundFindings.vue'
import TrimHandles from './TrimHandles.vue'
import UploadProgress from '../uploads/UploadProgress.vue'
import { useSound } from './sound'
import { useAttempt } from '../../platform/parts/attempt'
import type { Sending } from '../uploads/uploads'
import { FormattedMessage, t } from './messages'

/** The audio of an episode: on its way, here and measured, finished, or not yet. */
const props = defineProps<{
  sound: Sound
  upload: Upload | null
  sending: Sending | null
  showSlug: string
  showId: string
  /** Whether what can be done about the sound is shown, or the sound alone. */
  whole: boolean
  /** Whether it is put together of several files, and so does not wait for one. */
  isPutTogether: boolean
  /** Whether its numbers are left out, so that there is room for what goes by its time. */
  low: boolean
}>()
const emit = defineEmits<{ file: [file: File]; pause: []; goOn: []; cancel: []; keepAsUsual: [recipe: Recipe] }>()
const sounds = useSound()
const input = ref<InstanceType<typeof AudioInput>>()
const bench = ref<InstanceType<typeof SoundBench>>()
const open = ref(false)
const picking = ref(false)
const { problem: finishProblem, busy, attempt } = useAttempt(t('soundUnchanged'))

const audio = computed(() => props.sound.source)
/** The recipe as it is being written; a change is kept on the server at once where the episode has a recipe already. */
const recipe = ref<Recipe>(withPossibleEnds(props.sound.recipe ?? props.sound.usual))
watch(
  () => [props.sound.recipe, props.sound.usual] as const,
  ([own, usual], [before]) => {
    const known = own ?? usual
    if (
      recipeText(known) !== recipeText(recipe.value) &&
      (!open.value || recipeText(before ?? usual) !== recipeText(known))
    )
      recipe.value = withPossibleEnds(known)
  },
)
const kept = computed(() => {
  const { fromMs, toMs, encoding } = recipe.value
  const isCut =
    (fromMs !== null || toMs !== null) && encoding !== 'as it came' && (open.value || props.sound.recipe !== null)
  return isCut ? { fromMs: fromMs ?? 0, toMs: toMs ?? audio.value!.durationMs } : null
})
const places = computed(() => (audio.value?.measurement ? cuttingPlaces(audio.value.measurement) : []))

let keepTimer: ReturnType<typeof setTimeout> | undefined
watch(recipe, changed => {
  clearTimeout(keepTimer)
  if (!open.value || recipeText(changed) === recipeText(props.sound.recipe ?? props.sound.usual)) return
  keepTimer = setTimeout(() => void attempt(() => sounds.setRecipe(changed)), 600)
})

async function finish(): Promise<void> {
  clearTimeout(keepTimer)
  if (await attempt(() => sounds.finish(recipe.value))) open.value = false
}

function cut(ends: Partial<Pick<Recipe, 'fromMs' | 'toMs'>>): void {
  const { durationMs } = audio.value!
  const { fromMs, toMs } = { ...recipe.value, ...ends }
  recipe.value = {
    ...encoded(recipe.value),
    fromMs: fromMs ? Math.round(fromMs) : null,
    toMs: toMs !== null && toMs < durationMs ? Math.round(toMs) : null,
  }
}

/** What goes out as it came can be neither cut nor levelled. */
const encoded = (as: Recipe): Recipe =>
  as.encoding === 'as it came'
    ? { ...as, encoding: audio.value!.type === 'audio/mp4' ? 'm4a' : 'speech and music' }
    : as

/** The one press that a finding offers: the recipe it takes, and for loudness and form the finishing itself. */
async function fix(finding: Finding): Promise<void> {
  if (finding.fix === 'finish') return finish()
  open.value = true
  if (finding.fix === 'trim') cut(trimOf(audio.value!.measurement!))
  if (finding.fix === 'level')
    recipe.value = { ...encoded(recipe.value), levelling: Math.max(recipe.value.levelling, 0.5) }
  if (finding.fix === 'mono') recipe.value = { ...recipe.value, encoding: 'speech' }
  if (finding.fix === 'one side') recipe.value = { ...recipe.value, encoding: 'speech', oneChannel: 'left' }
}

const problem = computed(() => {
  if (props.sending) return props.sending.problem
  const { refusal, fileName } = props.upload ?? {}
  return refusal ? { ...refusal, detail: `${fileName}: ${refusal.detail}` } : null
})
const underway = computed(() => (props.sending && props.sending.state !== 'refused' ? props.sending : null))
const reading = computed(() => props.upload?.state === 'reading')
/** Begun, not finished, and not sent by this window. */
const stranded = computed(() => (!props.sending && props.upload?.state === 'receiving' ? props.upload : null))
</script>

<template>
  <section class="sound stacked" :aria-label="t('audio')">
    <AudioInput ref="input" @file="file => emit('file', file)" />
    <ProblemNote v-if="problem" :problem="problem">
      <Button type="button" size="small" :label="t('chooseAFile')" @click="input?.choose()" />
    </ProblemNote>
    <UploadProgress
      v-if="underway"
      :sending="underway"
      @pause="emit('pause')"
      @go-on="emit('goOn')"
      @cancel="emit('cancel')"
    />
    <p v-else-if="reading" class="px-4 py-3 bg-accent-wash rounded" role="status">
      {{ t('readingFile', { name: upload!.fileName }) }}
    </p>
    <div v-else-if="stranded" class="note needs-you">
      <h3>{{ t('uploadUnfinished', { name: stranded.fileName }) }}</h3>
      <p>{{ t('uploadUnfinishedHint') }}</p>
      <div class="actions mt-2">
        <Button type="button" size="small" :label="t('chooseTheFile')" @click="input?.choose()" />
      </div>
    </div>
    <template v-if="audio">
      <SoundBench ref="bench" :key="audio.id" :sound="sound" :source="audio" :kept="kept" :low="low">
        <template #handles="{ percent, view }">
          <TrimHandles
            v-if="open && recipe.encoding !== 'as it came'"
            :from-ms="recipe.fromMs ?? 0"
            :to-ms="recipe.toMs ?? audio.durationMs"
            :duration-ms="audio.durationMs"
            :percent="percent"
            :view="view"
            :snap="ms => snapped(ms, places, (view.toMs - view.fromMs) / 80)"
            @update:from-ms="fromMs => cut({ fromMs })"
            @update:to-ms="toMs => cut({ toMs })"
          />
        </template>
        <template #lane="place"><slot name="lane" v-bind="place" /></template>
      </SoundBench>
      <slot />
      <div v-show="whole" class="spaced">
        <p v-if="audio.address" class="small wrap-anywhere">
          <FormattedMessage of="hostedElsewhere" :values="{ address: audio.address }"
            ><template #link="{ words }"
              ><a :href="words" target="_blank" rel="noopener">{{ words }}</a></template
            ></FormattedMessage
          >
        </p>
        <FinishPanel
          v-else
          v-model="recipe"
          v-model:open="open"
          :sound="sound"
          :busy="busy"
          :problem="finishProblem"
          @finish="finish"
          @cancel="attempt(sounds.cancelFinish)"
          @as-uploaded="attempt(() => sounds.setRecipe(null))"
          @keep-as-usual="emit('keepAsUsual', recipe)"
          @trim="cut(trimOf(audio.measurement!))"
        />
        <SoundFindings
          :findings="sound.findings"
          :busy="busy || !audio.measurement"
          @fix="fix"
          @hear="finding => bench?.hear(finding)"
        />
        <SoundFacts :audio="audio" :also-in="sound.alsoIn" :show-slug="showSlug" @replace="input?.choose()" />
      </div>
    </template>
    <div v-else-if="!underway && !reading && !problem && !stranded && !isPutTogether" class="empty spaced">
      <p class="big">{{ t('dropAudio') }}</p>
      <p class="quiet">
        {{ t('dropAudioHint') }}
      </p>
      <Button type="button" :label="t('chooseAFile')" @click="input?.choose()" />
      <button type="button" class="small-button" aria-haspopup="dialog" @click="picking = true">
        {{ t('chooseFromTheShelf') }}
      </button>
      <ShelfPicker
        v-model:visible="picking"
        :show-id="showId"
        @take="
          fileId => {
            picking = false
            void attempt(() => sounds.bringFromShelf(fileId))
          }
        "
      />
      <AddressForm
        :busy="busy"
        :problem="finishProblem"
        @address="address => attempt(() => sounds.bringFrom(address))"
      />
    </div>
    <slot v-if="!audio" />
  </section>
</template>

<style scoped>
.empty {
  justify-items: center;
  padding: var(--space-5);
  border: 2px dashed var(--edge-strong);
  border-radius: var(--round);
  text-align: center;
}
.big {
  font: 560 var(--text-l) var(--serif);
}
</style>
