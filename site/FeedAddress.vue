<script setup lang="ts">
import CopyAddress from './CopyAddress.vue'
import type { PublicShow } from './facts'
import { FormattedMessage, useMessages } from './useMessages'

defineProps<{ show: PublicShow }>()
const { t, listParts } = useMessages()
</script>

<template>
  <section class="feed" aria-labelledby="subscribe">
    <h2 id="subscribe">{{ t('subscribe') }}</h2>
    <p>{{ t('subscribeLead') }}</p>
    <CopyAddress :address="show.feedAddress" :words="t('copyAddress')" />
    <p class="elsewhere">
      <FormattedMessage v-if="show.subscribe.length" of="alsoOn">
        <template #places
          ><template v-for="(part, at) in listParts(show.subscribe)" :key="at"
            ><template v-if="typeof part === 'string'">{{ part }}</template
            ><a v-else :href="part.address">{{ part.name }}</a></template
          ></template
        > </FormattedMessage
      >{{ ' ' }}<a :href="`${show.pageAddress}/listen`">{{ t('stepByStep') }}</a>
    </p>
  </section>
</template>
