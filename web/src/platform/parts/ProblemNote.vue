<script setup lang="ts">
/** An error as a person reads it: what, why, what to do. */
defineProps<{ problem: { title: string; detail: string; todo: string } }>()
</script>

<template>
  <div class="note needs-you" role="alert">
    <h3>{{ problem.title }}</h3>
    <p>{{ problem.detail }}</p>
    <p>{{ problem.todo }}</p>
    <div v-if="$slots.default" class="actions mt-2"><slot /></div>
  </div>
</template>
