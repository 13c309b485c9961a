<script setup lang="ts">
import type { MissingPage } from './facts'
import { FormattedMessage, useMessages } from './useMessages'

defineProps<MissingPage>()
const { t } = useMessages()
</script>

<template>
  <main class="column lone">
    <template v-if="show?.isRemoved">
      <h1>{{ t('removed') }}</h1>
      <p class="quiet">
        <FormattedMessage of="removedWhy" :values="{ show: show.name }">
          <template #link="{ words }"
            ><a :href="show.pageAddress">{{ words }}</a></template
          >
        </FormattedMessage>
      </p>
    </template>
    <template v-else>
      <h1>{{ t('missing') }}</h1>
      <p class="quiet">{{ t('missingWhy') }}</p>
      <p v-if="show">
        <a :href="show.pageAddress">{{ show.name }}</a>
      </p>
    </template>
  </main>
</template>
