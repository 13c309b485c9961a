<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import type { OwnPage, OwnPageChange } from '@contract/ownPages'
import FormField from '../../platform/parts/FormField.vue'
import NotesEditor from '../../words/writing/NotesEditor.vue'
import { vOpened } from '../../platform/parts/opened'

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
    <FormField v-slot="{ id }" label="Title">
      <InputText :id="id" v-model="title" maxlength="120" />
    </FormField>
    <NotesEditor
      v-model="content"
      without-fields
      :revision="0"
      label="Content"
      placeholder="Bold, italic, links, lists."
    />
    <p v-if="unsaved" class="small quiet">What you wrote last time, and did not save, is still here.</p>
    <div class="actions">
      <Button type="submit" label="Save" :loading="busy" :disabled="title.trim() === ''" />
      <Button type="button" label="Cancel" text @click="emit('cancel')" />
    </div>
  </form>
</template>
