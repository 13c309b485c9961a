<script setup lang="ts">
import CopyAddress from './CopyAddress.vue'
import PageFrame from './PageFrame.vue'
import type { ListenPage } from './facts'
import { FormattedMessage, useMessages } from './useMessages'

const props = defineProps<ListenPage & { qr: string }>()
const { t } = useMessages()
const here = `${props.show.pageAddress}/listen`
</script>

<template>
  <PageFrame :show="show" here="listen">
    <h1>{{ t('howToListen') }}</h1>
    <p class="lead">{{ t('listenLead', { show: show.name }) }}</p>
    <section aria-labelledby="here">
      <h2 id="here" class="section">{{ t('listenHere') }}</h2>
      <p>
        <FormattedMessage of="listenHereHow">
          <template #em="{ words }"
            ><em>{{ words }}</em></template
          >
          <template #newest="{ words }"
            ><a :href="show.pageAddress">{{ words }}</a></template
          >
          <template #episodes="{ words }"
            ><a :href="`${show.pageAddress}/episodes`">{{ words }}</a></template
          >
        </FormattedMessage>
      </p>
    </section>
    <section v-if="show.subscribe.length" aria-labelledby="directories">
      <h2 id="directories" class="section">{{ t('listenDirectories') }}</h2>
      <p>{{ t('listenDirectoriesHow') }}</p>
      <ul class="chips">
        <li v-for="place in show.subscribe" :key="place.address">
          <a :href="place.address">{{ place.name }}</a>
        </li>
      </ul>
    </section>
    <section aria-labelledby="any-app">
      <h2 id="any-app" class="section">{{ t('listenAnyApp') }}</h2>
      <ol class="steps">
        <li>{{ t('listenOpen') }}</li>
        <li v-for="step in ['listenFind', 'listenPaste', 'listenFollow'] as const" :key="step">
          <FormattedMessage :of="step" :values="{ show: show.name }">
            <template #b="{ words }"
              ><b>{{ words }}</b></template
            >
            <template #em="{ words }"
              ><em>{{ words }}</em></template
            >
          </FormattedMessage>
          <CopyAddress v-if="step === 'listenPaste'" :address="show.feedAddress" :words="t('copyAddress')" />
        </li>
      </ol>
    </section>
    <section v-if="strands.length" aria-labelledby="strands">
      <h2 id="strands" class="section">{{ t('listenStrands') }}</h2>
      <p>{{ t('listenStrandsHow') }}</p>
      <ul class="strands">
        <li v-for="strand in strands" :key="strand.slug">
          <a :href="`${show.pageAddress}/episodes?strand=${strand.slug}`">{{ strand.name }}</a>
          <CopyAddress :address="strand.feedAddress" :words="t('copyAddress')" />
        </li>
      </ul>
    </section>
    <section class="on-the-phone" aria-labelledby="phone">
      <!-- eslint-disable-next-line vue/no-v-html -- drawn by site/qr.ts -->
      <div class="qr" role="img" :aria-label="t('listenQr', { address: here })" v-html="qr" />
      <div>
        <h2 id="phone" class="section">{{ t('listenPhone') }}</h2>
        <p>{{ t('listenPhoneHow') }}</p>
      </div>
    </section>
  </PageFrame>
</template>
