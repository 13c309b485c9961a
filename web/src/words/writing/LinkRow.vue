<script setup lang="ts">
import { ref } from 'vue'
import { isMisspelt } from '@core/notes/addresses'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** Asks for the address of a link; what is typed without a scheme gets one. */
const props = defineProps<{ first: string }>()
const emit = defineEmits<{ set: [href: string]; leave: [] }>()
const address = ref(props.first)
const fault = ref('')

function set(): void {
  const given = address.value.trim()
  const href = /^[^\s@/]+@[^\s@]+$/.test(given)
    ? `mailto:${given}`
    : /^(https?:\/\/|mailto:)/i.test(given) || given === ''
      ? given
      : `https://${given}`
  if (href !== '' && isMisspelt(href)) fault.value = t('addressRule', { given })
  else emit('set', href)
}
</script>

<template>
  <form
    class="link-row flowing small px-3 py-2 bg-accent-wash rounded"
    v-opened.always="() => emit('leave')"
    @submit.prevent="set"
  >
    <label for="link-address">{{ t('addressOfTheLink') }}</label>
    <input id="link-address" v-model="address" type="text" inputmode="url" :placeholder="t('addressPlaceholder')" />
    <button type="submit" class="small-button">{{ t('apply') }}</button>
    <button type="button" class="small-button" @click="emit('leave')">{{ t('cancel') }}</button>
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
  </form>
</template>

<style scoped>
.link-row input {
  flex: 1;
  min-width: 12rem;
  min-height: 32px;
  padding: 0 var(--space-2);
  border: 1px solid var(--edge-strong);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
</style>
