<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import type { OwnPage, OwnPageChange } from '@contract/ownPages'
import FormField from '../../platform/parts/FormField.vue'
import NotesEditor from '../../words/writing/NotesEditor.vue'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

const props = defineProps<{
  page: OwnPage
  /** What was written here before and not saved. */
  unsaved: Pick<OwnPage, 'title' | 'content'> | null
  busy: boolean
}>()
const emit = defineEmits<{
  write: [words: Pick<OwnPage, 'title' | 'content'>]
  save: [change: OwnPageChange]
  close: []
  cancel: []
}>()
const title = ref(props.unsaved?.title ?? props.page.title)
const content = ref(props.unsaved?.content ?? props.page.content)
watch([title, content], () => emit('write', { title: title.value, content: content.value }))
</script>

<template>
  <form
    class="spaced gap-3"
    v-opened="() => emit('close')"
    @submit.prevent="emit('save', { version: page.version, title, content })"
  >
    <FormField v-slot="{ id }" :label="t('title')">
      <InputText :id="id" v-model="title" maxlength="120" />
    </FormField>
    <NotesEditor
      v-model="content"
      without-fields
      :revision="0"
      :label="t('content')"
      :placeholder="t('contentPlaceholder')"
    />
    <p v-if="unsaved" class="small quiet">{{ t('unsavedWordsHere') }}</p>
    <div class="actions">
      <Button type="submit" :label="t('save')" :loading="busy" :disabled="title.trim() === ''" />
      <Button type="button" :label="t('cancel')" text @click="emit('cancel')" />
    </div>
  </form>
</template>
