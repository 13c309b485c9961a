<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { mostHookLetters } from '@core/episode/fields'
import { firstSentence } from '@core/episode/wants'
import { plainNotes } from '@core/notes/plain'
import { cut, letters } from '@core/words/line'
import FormField from '../../platform/parts/FormField.vue'
import { t } from './messages'

/** One line that says why to listen; the notes' first sentence is offered for it. */
const hook = defineModel<string>({ required: true })
const props = defineProps<{ notes: string; fault?: string }>()
const offered = computed(() => cut(firstSentence(plainNotes(props.notes)), mostHookLetters, () => 1))
const left = computed(() => mostHookLetters - letters(hook.value))
</script>

<template>
  <FormField
    v-slot="{ id }"
    :label="t('hook')"
    :fault="fault ?? (left < 0 ? t('lettersTooMany', { count: -left }) : undefined)"
  >
    <div class="row side-by-side gap-3">
      <InputText
        :id="id"
        v-model="hook"
        fluid
        :placeholder="offered || t('hookPlaceholder')"
        :invalid="!!fault || left < 0"
      />
      <button v-if="!hook && offered" type="button" class="small-button" @click="hook = offered">
        {{ t('takeTheFirstSentence') }}
      </button>
      <span v-else-if="hook" class="small quiet figures" :title="t('mostHookLetters', { most: mostHookLetters })">{{
        left
      }}</span>
    </div>
  </FormField>
</template>

<style scoped>
.row > :first-child {
  flex: 1;
}
</style>
