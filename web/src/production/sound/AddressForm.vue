<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { vOpened } from '../../platform/parts/opened'
import { t } from './messages'

/** Names the address of a file that lives elsewhere. */
defineProps<{ busy: boolean; problem: { detail: string } | null }>()
const emit = defineEmits<{ address: [address: string] }>()
const open = ref(false)
const address = ref('')
</script>

<template>
  <button v-if="!open" type="button" class="small-button" @click="open = true">
    {{ t('useAudioHostedElsewhere') }}
  </button>
  <form v-else v-opened="() => (open = false)" class="elsewhere spaced" @submit.prevent="emit('address', address)">
    <div class="field">
      <label for="address">{{ t('addressOfTheFile') }}</label>
      <InputText
        id="address"
        v-model="address"
        type="url"
        inputmode="url"
        placeholder="https://"
        :invalid="problem !== null"
        fluid
      />
      <span v-if="problem" class="fault" role="alert">{{ problem.detail }}</span>
      <span v-else class="hint">{{ t('addressHint') }}</span>
    </div>
    <div class="actions">
      <Button type="submit" size="small" :label="t('checkThisAddress')" :loading="busy" :disabled="!address.trim()" />
      <Button type="button" size="small" text :label="t('cancel')" @click="open = false" />
    </div>
  </form>
</template>

<style scoped>
.elsewhere {
  width: min(30rem, 100%);
  text-align: left;
}
</style>
