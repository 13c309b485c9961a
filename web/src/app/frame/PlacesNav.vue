<script setup lang="ts">
import { useRoute } from 'vue-router'
import type { Show } from '@contract/shows'
import { places } from './places'
import YouMenu from './YouMenu.vue'
import { t } from './messages'

/** The places of a show, the same everywhere: at the side, or at the foot where it is narrow; below them what is the person's own. */
defineProps<{ show: Show }>()
const emit = defineEmits<{ jump: []; keys: [] }>()
const route = useRoute()
</script>

<template>
  <div class="strip">
    <nav :aria-label="t('showNavigation')">
      <RouterLink
        v-for="(place, key) in places"
        :key="key"
        v-slot="{ href, navigate }"
        custom
        :to="{ name: place.tabs[0]!.name, params: { show: show.slug } }"
      >
        <a :href="href" class="place" :aria-current="route.meta.place === place ? 'page' : undefined" @click="navigate">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="place.mark" /></svg>
          <span>{{ place.words }}</span>
          <span
            v-if="key === 'feed' && show.feedFaults"
            class="count figures"
            :title="t('countToFixInFeed', { count: show.feedFaults })"
            >{{ show.feedFaults }}<span class="out-of-sight">&nbsp;{{ t('toFix') }}</span></span
          >
        </a>
      </RouterLink>
    </nav>
    <div class="foot">
      <button
        type="button"
        class="place"
        aria-haspopup="dialog"
        aria-keyshortcuts="Control+K"
        title="Ctrl K"
        @click="emit('jump')"
      >
        <svg viewBox="0 0 24 24" aria-hidden="true">
          <path d="M10.5 4a6.5 6.5 0 1 1 0 13 6.5 6.5 0 0 1 0-13M15.5 15.5 20 20" />
        </svg>
        <span>{{ t('goTo') }}</span>
      </button>
      <YouMenu :show="show" @jump="emit('jump')" @keys="emit('keys')" />
    </div>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  width: 5rem;
  min-height: 0;
  overflow-y: auto;
  padding-block: var(--space-2);
  border-inline-end: 1px solid var(--deep-edge);
  background: var(--deep);
}
.strip :deep(.place) {
  position: relative;
  display: grid;
  gap: 2px;
  justify-items: center;
  width: 100%;
  min-height: 54px;
  padding: 7px 2px 5px;
  border: 0;
  border-inline-start: 3px solid transparent;
  border-inline-end: 3px solid transparent;
  background: none;
  color: var(--on-deep-soft);
  font-size: var(--text-s);
  line-height: 1.2;
  text-decoration: none;
  cursor: pointer;
}
.strip :deep(.place:hover) {
  color: var(--on-deep);
}
.strip :deep(.place:focus-visible) {
  outline-color: var(--on-deep);
  outline-offset: -3px;
}
.strip :deep([aria-current]) {
  border-inline-start-color: var(--on-deep);
  background: var(--deep-lit);
  color: var(--on-deep);
  font-weight: 600;
}
.strip :deep(svg) {
  width: 1.5rem;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.count {
  position: absolute;
  inset: 3px 10px auto auto;
  min-width: 1.35em;
  padding-inline: 0.3em;
  border-radius: 1em;
  background: var(--signal-wash);
  color: var(--signal);
  font-weight: 600;
  text-align: center;
}
@media (max-width: 620px) {
  .strip {
    position: fixed;
    z-index: 4;
    inset: auto 0 0;
    flex-direction: row;
    width: auto;
    padding: 0;
    overflow: visible;
  }
  nav,
  .foot {
    display: flex;
  }
  .foot .place:first-child {
    display: none;
  }
  nav {
    flex: 1;
    min-width: 0;
  }
  .strip :deep(.place) {
    flex: 1 1 auto;
    width: auto;
    min-width: min(44px, 8vw);
    padding-inline: 1px;
    border: 0;
    border-top: 3px solid transparent;
    font-size: 11px;
  }
  .strip :deep([aria-current]) {
    border-top-color: var(--on-deep);
  }
  .count {
    inset-inline-end: 2px;
  }
}
</style>
