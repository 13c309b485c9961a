<script setup lang="ts">
import { computed } from 'vue'
import { paletteOf, type Seeds } from '@core/site/palette'
import { t } from './messages'

/** The two colours that pages are built on: those of the artwork, or chosen ones; and what becomes of them where they could not be read. */
const props = defineProps<{ colours: Seeds | null; found: Seeds }>()
const emit = defineEmits<{ change: [colours: Seeds | null] }>()
const seeds = computed(() => props.colours ?? props.found)
const shown = computed(() => paletteOf(seeds.value, 'light'))
const fields = [
  { name: 'accent', words: t('buttonColour'), shows: 'accent' },
  { name: 'band', words: t('bandColour'), shows: 'deep' },
] as const
</script>

<template>
  <fieldset class="m-0 p-0 border-0">
    <legend class="p-0 font-semibold text-s">{{ t('colours') }}</legend>
    <label class="way">
      <input type="radio" name="colours" :checked="colours === null" @change="emit('change', null)" />
      {{ t('fromTheArtwork') }}
      <span class="swatch" :style="{ background: found.accent }" />
      <span class="swatch" :style="{ background: found.band }" />
    </label>
    <label class="way">
      <input type="radio" name="colours" :checked="colours !== null" @change="emit('change', { ...found })" />
      {{ t('chosen') }}
    </label>
    <template v-if="colours">
      <p v-for="{ name, words, shows } in fields" :key="name" class="chosen">
        <label :for="`colour-${name}`">{{ words }}</label>
        <input
          :id="`colour-${name}`"
          type="color"
          :value="colours[name]"
          @input="event => emit('change', { ...colours!, [name]: (event.target as HTMLInputElement).value })"
        />
        <span v-if="shown[shows] !== colours[name]" class="small quiet">
          <span class="swatch" :style="{ background: shown[shows] }" /> {{ t('adjustedToBeRead') }}
        </span>
      </p>
    </template>
  </fieldset>
</template>

<style scoped>
.way,
.chosen {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
  align-items: center;
  min-height: max(28px, var(--target));
}
.chosen label {
  flex: 0 0 8.5rem;
}
input[type='color'] {
  width: 3rem;
  height: 28px;
  padding: 0;
  border: 1px solid var(--edge-strong);
  border-radius: var(--round);
  background: none;
}
.swatch {
  display: inline-block;
  width: 1.1rem;
  height: 1.1rem;
  border: 1px solid var(--edge-strong);
  border-radius: 3px;
  vertical-align: -0.2rem;
}
</style>
