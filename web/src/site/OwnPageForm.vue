<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import type { OwnPage, OwnPageChange } from '@contract/ownPages'
import FormField from '../parts/FormField.vue'
import NotesEditor from '../writing/NotesEditor.vue'

const props = defineProps<{ page: OwnPage; busy: boolean }>()
const emit = defineEmits<{ save: [change: OwnPageChange]; cancel: [] }>()
const title = ref(props.page.title)
const content = ref(props.page.content)
</script>

<template>
  <form @submit.prevent="emit('save', { version: page.version, title, content })">
    <FormField v-slot="{ id }" label="Title">
      <InputText :id="id" v-model="title" maxlength="120" />
    </FormField>
    <NotesEditor
      v-model="content"
      without-fields
      :revision="0"
      label="What stands on it"
      placeholder="Bold, italic, links, lists."
    />
    <div class="actions">
      <Button type="submit" label="Save it" :loading="busy" :disabled="title.trim() === ''" />
      <Button type="button" label="Leave it as it was" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--space-3);
}
</style>
