<script setup lang="ts">
import Menu from 'primevue/menu'
import { computed, ref } from 'vue'

/** Fields of the notes that are filled in as the episode is, a press puts one in. */
const props = defineProps<{ fields: readonly string[] }>()
const emit = defineEmits<{ chosen: [name: string] }>()
const menu = ref<InstanceType<typeof Menu>>()
const items = computed(() => props.fields.map(name => ({ label: `{${name}}`, command: () => emit('chosen', name) })))
</script>

<template>
  <button type="button" class="tool" aria-haspopup="menu" @click="event => menu!.toggle(event)">Field</button>
  <Menu ref="menu" :model="items" popup />
</template>
