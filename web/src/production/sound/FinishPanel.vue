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
const isCurrent = computed(() => props.sound.finishing === 'done' && !props.sound.tagsAreOld)
const words = computed(() => {
  const { finishing, recipe: wanted } = props.sound
  if (finishing === 'done')
    return props.sound.tagsAreOld
      ? 'Finished, but the tags in the file are out of date: title, number or notes have changed.'
      : 'Finished. This file will be published.'
  if (wanted) return 'Not finished yet. It will be released once it is.'
  return 'Will be published as uploaded.'
})
const label = computed(() =>
  props.sound.finishing === 'done'
    ? props.sound.tagsAreOld
      ? 'Write the new tags'
      : 'Finish again'
    : 'Finish the audio',
)

function keepAsUsual(): void {
  emit('keepAsUsual')
  kept.value = true
}
</script>

<template>
  <div class="finish stacked">
    <div v-if="work" class="work" role="status">
      <span class="small figures"
        >{{ work.kind === 'measuring' ? 'Measuring the sound' : 'Finishing' }} …
        {{ Math.round(work.progress * 100) }} %<template v-if="work.secondsLeft !== null"
          >, {{ clock(work.secondsLeft * 1000) }} left</template
        ></span
      >
      <ProgressBar
        :value="Math.round(work.progress * 100)"
        :show-value="false"
        :aria-label="work.kind === 'measuring' ? 'Measuring' : 'Finishing'"
      />
      <Button
        v-if="work.kind === 'finishing'"
        type="button"
        label="Cancel"
        size="small"
        text
        :disabled="busy"
        @click="emit('cancel')"
      />
    </div>
    <div v-else class="line flowing gap-x-4 gap-y-1">
      <p class="small" data-testid="finish">{{ words }}</p>
      <button type="button" class="small-button" :aria-expanded="open" @click="open = !open">
        {{ open ? 'Hide the recipe' : 'Show the recipe' }}
      </button>
      <button
        v-if="sound.recipe && deliverable"
        type="button"
        class="small-button"
        :disabled="busy"
        @click="emit('asUploaded')"
      >
        Use the uploaded file instead
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
          ><button type="button" class="small-button" @click="emit('trim')">Trim the silence</button></template
        >
      </RecipeEditor>
      <div class="actions">
        <button type="button" class="small-button" :disabled="busy" @click="keepAsUsual">
          {{ kept ? 'Saved as the show’s default' : 'Save as the show’s default' }}
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
