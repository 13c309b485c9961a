<script setup lang="ts">
import { X } from '@lucide/vue'
import AutoComplete from 'primevue/autocomplete'
import { computed, ref } from 'vue'
import { readTags, tagKey } from '@core/tags/tags'
import { fold } from '@core/words/fold'
import IconButton from '../../platform/parts/IconButton.vue'
import FormField from '../../platform/parts/FormField.vue'
import { t } from './messages'

/** Tags, completed from those that the show has used; the show's usual ones are a press away. */
const tags = defineModel<string[]>({ required: true })
const props = defineProps<{ used: readonly string[]; usual: readonly string[]; label?: string; fault?: string }>()
const typed = ref('')
const found = ref<string[]>([])

const has = (tag: string): boolean => tags.value.some(each => tagKey(each) === tagKey(tag))
const offered = computed(() => props.usual.filter(tag => !has(tag)))

function find(words: string): void {
  found.value = props.used.filter(tag => fold(tag).includes(fold(words)) && !has(tag)).slice(0, 8)
}

/** Takes what was typed, chosen or pasted, in the spelling that is used already. */
function take(words: string): void {
  const fresh = readTags(words, [...props.used, ...props.usual]).filter(tag => !has(tag))
  if (fresh.length > 0) tags.value = [...tags.value, ...fresh]
  typed.value = ''
}
const remove = (tag: string): void => {
  tags.value = tags.value.filter(each => each !== tag)
}
</script>

<template>
  <FormField v-slot="{ id }" :label="label ?? t('tags')" :fault="fault" :hint="t('tagsHint')">
    <div class="row flowing">
      <ul
        v-if="tags.length"
        class="tags unlisted flex flex-wrap gap-2"
        :aria-label="t('tagsSet', { tags: label ?? t('tags') })"
      >
        <li v-for="tag in tags" :key="tag">
          {{ tag }}
          <IconButton :name="t('removeNamed', { name: tag })" :icon="X" @click="remove(tag)" />
        </li>
      </ul>
      <AutoComplete
        v-model="typed"
        :input-id="id"
        :data-draft="typed || undefined"
        class="new"
        fluid
        :suggestions="found"
        :delay="80"
        :show-empty-message="false"
        :placeholder="tags.length ? t('anotherTag') : t('tagsPlaceholder')"
        @complete="({ query }) => find(query)"
        @option-select="({ value }) => take(value)"
        @blur="take(typed)"
        @keydown.enter.prevent="take(typed)"
        @keydown.,.prevent="take(typed)"
      />
    </div>
  </FormField>
  <p v-if="offered.length" class="usual small flowing-text gap-x-3 gap-y-1">
    <span class="quiet">{{ t('usualTags') }}</span>
    <button v-for="tag in offered" :key="tag" type="button" class="small-button" @click="take(tag)">
      {{ tag }}
    </button>
  </p>
</template>

<style scoped>
.tags li {
  display: flex;
  align-items: center;
  padding-inline-start: var(--space-3);
  border-radius: var(--round);
  background: var(--accent-wash);
  overflow-wrap: anywhere;
}
.new {
  flex: 1 1 12rem;
}
</style>
