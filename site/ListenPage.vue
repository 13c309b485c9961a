<script setup lang="ts">
import CopyAddress from './CopyAddress.vue'
import PageFrame from './PageFrame.vue'
import type { ListenPage } from './facts'

const props = defineProps<ListenPage & { qr: string }>()
const here = `${props.show.pageAddress}/listen`
</script>

<template>
  <PageFrame :show="show" here="listen">
    <h1>How to listen</h1>
    <p class="lead">
      {{ show.name }} is a podcast: new episodes come to your phone or computer by themselves, and cost nothing.
    </p>
    <section aria-labelledby="here">
      <h2 id="here" class="section">Right here</h2>
      <p>
        Press <em>Play</em> beside <a :href="show.pageAddress">the newest episode</a> or any of
        <a :href="`${show.pageAddress}/episodes`">all of them</a>. There is nothing to install and nothing to sign up
        for.
      </p>
    </section>
    <section v-if="show.subscribe.length" aria-labelledby="directories">
      <h2 id="directories" class="section">In an app that you have</h2>
      <p>If you use one of these, open the show there and follow it:</p>
      <ul class="chips">
        <li v-for="place in show.subscribe" :key="place.address">
          <a :href="place.address">{{ place.name }}</a>
        </li>
      </ul>
    </section>
    <section aria-labelledby="any-app">
      <h2 id="any-app" class="section">In any podcast app</h2>
      <ol class="steps">
        <li>Open a podcast app. If you have none, look for “podcast” where your phone has its apps.</li>
        <li>
          Search it for <b>{{ show.name }}</b>. Most apps find it by the name.
        </li>
        <li>
          If yours does not, look for <em>Add by address</em>, <em>Add a feed</em> or <em>URL</em>, and paste this:
          <CopyAddress :address="show.feedAddress" words="Copy the feed’s address" />
        </li>
        <li>Press <em>Follow</em> or <em>Subscribe</em>. From then on each new episode is there by itself.</li>
      </ol>
    </section>
    <section v-if="strands.length" aria-labelledby="strands">
      <h2 id="strands" class="section">A part of it only</h2>
      <p>These have feeds of their own, for whoever wants just that:</p>
      <ul class="strands">
        <li v-for="strand in strands" :key="strand.slug">
          <a :href="`${show.pageAddress}/episodes?strand=${strand.slug}`">{{ strand.name }}</a>
          <CopyAddress :address="strand.feedAddress" words="Copy its address" />
        </li>
      </ul>
    </section>
    <section class="on-the-phone" aria-labelledby="phone">
      <!-- eslint-disable-next-line vue/no-v-html -- drawn by site/qr.ts -->
      <div class="qr" role="img" :aria-label="`QR code of ${here}`" v-html="qr" />
      <div>
        <h2 id="phone" class="section">On the phone</h2>
        <p>Point the phone’s camera at the square. It opens this page there, where the addresses can be pressed.</p>
      </div>
    </section>
  </PageFrame>
</template>
