<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed, ref } from 'vue'
import type { Sound } from '@contract/sound'
import { isDeliverable } from '@core/audio/delivery'
import type { Recipe } from '@core/audio/recipe'
import { clock } from '@core/words/amounts'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { vOpened } from '../../platform/parts/opened'
import RecipeEditor from './RecipeEditor.vue'
import { t } from './messages'

/** From the source to the file that goes out: the recipe, the one press, and how far it is. */
const recipe = defineModel<Recipe>({ required: true })
const props = defineProps<{
  sound: Sound
  busy: boolean
  problem: { title: string; detail: string; todo: string } | null
}>()
const emit = defineEmits<{ finish: []; cancel: []; asUploaded: []; keepAsUsual: []; trim: [] }>()
const open = defineModel<boolean>('open', { required: true })
const kept = ref(false)

const deliverable = computed(() => isDeliverable(props.sound.source!.type))
const work = computed(() => props.sound.work)
const progress = computed(() => {
  const { kind, progress: share, secondsLeft } = work.value!
  const values = { kind, share: Math.round(share * 100) }
  return secondsLeft === null
    ? t('progress', values)
    : t('progressWithTime', { ...values, time: clock(secondsLeft * 1000) })
})
const isCurrent = computed(() => props.sound.finishing === 'done' && !props.sound.tagsAreOld)
const words = computed(() => {
  const { finishing, recipe: wanted } = props.sound
  if (finishing === 'done') return props.sound.tagsAreOld ? t('tagsOutOfDate') : t('finishedTells')
  if (wanted) return t('notFinishedYet')
  return t('publishedAsUploaded')
})
const label = computed(() =>
  props.sound.finishing === 'done'
    ? props.sound.tagsAreOld
      ? t('writeTheNewTags')
      : t('finishAgain')
    : t('finishTheAudio'),
)

function keepAsUsual(): void {
  emit('keepAsUsual')
  kept.value = true
}
</script>

<template>
  <div class="finish stacked">
    <div v-if="work" class="work" role="status">
      <span class="small figures">{{ progress }}</span>
      <ProgressBar
        :value="Math.round(work.progress * 100)"
        :show-value="false"
        :aria-label="work.kind === 'measuring' ? t('measuring') : t('finishing')"
      />
      <Button
        v-if="work.kind === 'finishing'"
        type="button"
        :label="t('cancel')"
        size="small"
        text
        :disabled="busy"
        @click="emit('cancel')"
      />
    </div>
    <div v-else class="line flowing gap-x-4 gap-y-1">
      <p class="small" data-testid="finish">{{ words }}</p>
      <button type="button" class="small-button" :aria-expanded="open" @click="open = !open">
        {{ open ? t('hideTheRecipe') : t('showTheRecipe') }}
      </button>
      <button
        v-if="sound.recipe && deliverable"
        type="button"
        class="small-button"
        :disabled="busy"
        @click="emit('asUploaded')"
      >
        {{ t('useTheUploadedFileInstead') }}
      </button>
      <Button
        type="button"
        size="small"
        :label="label"
        :outlined="isCurrent && !open"
        :disabled="busy || !sound.source!.measurement"
        @click="emit('finish')"
      />
    </div>
    <ProblemNote v-if="sound.problem ?? problem" :problem="(sound.problem ?? problem)!" />
    <div v-if="open && !work" v-opened="() => (open = false)" class="stacked boxed gap-3 px-4 py-3">
      <RecipeEditor v-model="recipe" :duration-ms="sound.source!.durationMs" :can-go-as-it-came="deliverable">
        <template #trim
          ><button type="button" class="small-button" @click="emit('trim')">{{ t('trimTheSilence') }}</button></template
        >
      </RecipeEditor>
      <div class="actions">
        <button type="button" class="small-button" :disabled="busy" @click="keepAsUsual">
          {{ kept ? t('savedAsTheShowsDefault') : t('saveAsTheShowsDefault') }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.line p {
  margin-right: auto;
}
.work {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: var(--space-3);
  align-items: center;
}
.work :deep(.p-progressbar) {
  height: 8px;
}
</style>
