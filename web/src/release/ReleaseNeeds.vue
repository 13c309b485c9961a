<script setup lang="ts">
/** The three needs of an episode, and which of them are met. */
defineProps<{ hasAudio: boolean; awaitsFinish: boolean; arriving: boolean; hasTitle: boolean }>()
</script>

<template>
  <ul class="needs">
    <li :class="{ met: hasAudio && !awaitsFinish }">
      <strong>Audio</strong>
      {{ hasAudio ? (awaitsFinish ? 'is not finished' : 'is here') : arriving ? 'is on its way' : 'is missing' }}
    </li>
    <li :class="{ met: hasTitle }"><strong>Title</strong> {{ hasTitle ? 'is written' : 'is missing' }}</li>
    <li><strong>A moment</strong> is yours to choose</li>
  </ul>
</template>

<style scoped>
.needs {
  margin: 0;
  padding: 0;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-4);
}
li {
  padding-left: 1.4em;
  position: relative;
}
li::before {
  content: '';
  position: absolute;
  left: 0;
  top: 0.42em;
  width: 0.7em;
  height: 0.7em;
  border: 2px solid var(--signal);
  border-radius: 50%;
}
li.met {
  color: var(--ink-soft);
}
li.met::before {
  background: var(--accent);
  border-color: var(--accent);
}
</style>
