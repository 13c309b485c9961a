<script setup lang="ts">
import { Braces } from '@lucide/vue'
import Menu from 'primevue/menu'
import { computed, ref } from 'vue'
import IconButton from '../../platform/parts/IconButton.vue'

/** Fields of the notes that are filled in as the episode is, a press puts one in. */
const props = defineProps<{ fields: readonly string[] }>()
const emit = defineEmits<{ chosen: [name: string] }>()
const menu = ref<InstanceType<typeof Menu>>()
const items = computed(() => props.fields.map(name => ({ label: `{${name}}`, command: () => emit('chosen', name) })))
</script>

<template>
  <IconButton name="Insert field" :icon="Braces" aria-haspopup="menu" @click="(event: Event) => menu!.toggle(event)" />
  <Menu ref="menu" :model="items" popup />
</template>
