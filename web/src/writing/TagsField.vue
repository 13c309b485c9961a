<script setup lang="ts">
import AutoComplete from 'primevue/autocomplete'
import { computed, ref } from 'vue'
import { readTags, tagKey } from '@core/tags/tags'
import { fold } from '@core/words/fold'
import FormField from '../parts/FormField.vue'

/** Tags, completed from those that the show has used; the show's usual ones are a press away. */
const tags = defineModel<string[]>({ required: true })
const props = defineProps<{ used: readonly string[]; usual: readonly string[]; label?: string; fault?: string }>()
const typed = ref('')
const found = ref<string[]>([])

const has = (tag: string): boolean => tags.value.some(each => tagKey(each) === tagKey(tag))
const offered = computed(() => props.usual.filter(tag => !has(tag)))

function find(words: string): void {
  typed.value = words
  found.value = props.used.filter(tag => fold(tag).includes(fold(words)) && !has(tag)).slice(0, 8)
}

/** Takes what was typed, chosen or pasted, in the spelling that is used already. */
function take(given: readonly string[]): void {
  const spelling = [...tags.value, ...props.used]
  const all = new Map(tags.value.filter(tag => given.includes(tag)).map(tag => [tagKey(tag), tag]))
  for (const tag of given.flatMap(words => readTags(words, spelling)))
    if (!all.has(tagKey(tag))) all.set(tagKey(tag), tag)
  tags.value = [...all.values()]
  typed.value = ''
}

/** What stands in the line when it is left, or is ended by a comma, is a tag too. */
function end(event: Event): void {
  const input = event.target as HTMLInputElement
  if (!input.value?.trim()) return
  take([...tags.value, input.value])
  input.value = ''
}
</script>

<template>
  <FormField
    v-slot="{ id }"
    :label="label ?? 'Tags'"
    :fault="fault"
    hint="Apart by commas. They stand on the page, in the feed and in the file."
  >
    <AutoComplete
      :input-id="id"
      :model-value="tags"
      multiple
      fluid
      :typeahead="true"
      :suggestions="found"
      :delay="80"
      :show-empty-message="false"
      :placeholder="tags.length ? '' : 'reed organs, workshops …'"
      @complete="({ query }) => find(query)"
      @update:model-value="take"
      @blur="end"
      @keydown.enter="end"
      @keydown.,.prevent="end"
    />
  </FormField>
  <p v-if="offered.length" class="usual small">
    <span class="quiet">Usual:</span>
    <button v-for="tag in offered" :key="tag" type="button" class="link-button" @click="take([...tags, tag])">
      {{ tag }}
    </button>
  </p>
</template>

<style scoped>
.usual {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-3);
}
</style>
