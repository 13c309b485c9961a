<script setup lang="ts">
import Select from 'primevue/select'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { filledShareText, mailLink, type SharePlace, sharePlaces } from '@core/sharing/texts'
import CopyButton from '../../platform/parts/CopyButton.vue'
import { vOpened } from '../../platform/parts/opened'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import EmbedMaker from './EmbedMaker.vue'
import QrPicture from './QrPicture.vue'
import ShareTemplates from './ShareTemplates.vue'
import { useSharing } from './sharing'
import { t } from './messages'

/** Word of an episode, ready to be passed on: a text for each place, its picture, a square for phones, a player for other pages. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const sharing = useSharing()
const route = useRoute()
const { episodes, problem } = storeToRefs(sharing)
const show = computed(() => shows.bySlug(props.show)!)
const first = computed(() => (typeof route.query.episode === 'string' ? route.query.episode : undefined))
const chosenId = ref<string>()
watch(
  [() => show.value.id, first] as const,
  async ([id, episode]) => {
    await sharing.load(id, episode)
    chosenId.value = episodes.value?.[0]?.id
  },
  { immediate: true },
)
const chosen = computed(() => episodes.value?.find(({ id }) => id === chosenId.value) ?? null)
const isEditing = ref(false)

const places: Readonly<Record<SharePlace, string>> = { post: t('aPost'), forum: t('aForum'), mail: t('aMail') }
const texts = computed(() =>
  chosen.value
    ? sharePlaces.map(place => ({ place, text: filledShareText(show.value.shareTexts[place], chosen.value!.values) }))
    : [],
)
const hasSheet = 'share' in navigator
const passOn = (text: string): void => {
  // Whoever closes the sheet wants nothing else.
  navigator.share({ title: chosen.value!.title, text }).catch(() => undefined)
}
</script>

<template>
  <PageLayout :heading="t('site')" :waits-for="!episodes && !problem && t('theEpisodes')">
    <template #beside
      ><a :href="show.pageAddress" target="_blank">{{ t('asVisitorsSeeIt') }}</a></template
    >
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="episodes?.length === 0" class="quiet">
      {{ t('nothingToShare') }}
    </p>
    <template v-if="chosen">
      <div class="field">
        <label id="shared-episode-name" for="shared-episode">{{ t('episode') }}</label>
        <Select
          v-model="chosenId"
          label-id="shared-episode"
          aria-labelledby="shared-episode-name"
          :options="[...episodes!]"
          option-label="title"
          option-value="id"
        />
      </div>
      <div class="columns">
        <section class="spaced content-start" aria-labelledby="texts">
          <h2 id="texts">{{ t('texts') }}</h2>
          <article v-for="{ place, text } in texts" :key="place">
            <h3>{{ places[place] }}</h3>
            <pre>{{ text }}</pre>
            <p class="actions small">
              <CopyButton :text="text" :about="places[place].toLowerCase()" />
              <a v-if="place === 'mail'" :href="mailLink(text)">{{ t('openAsEmail') }}</a>
              <button v-else-if="hasSheet" type="button" class="small-button" @click="passOn(text)">
                {{ t('share') }}
              </button>
            </p>
          </article>
          <button
            type="button"
            class="small-button justify-self-start"
            :aria-expanded="isEditing"
            @click="isEditing = !isEditing"
          >
            {{ isEditing ? t('keepTexts') : t('editTheseTexts') }}
          </button>
          <ShareTemplates
            v-if="isEditing"
            v-opened="() => (isEditing = false)"
            :show="show"
            @saved="isEditing = false"
          />
        </section>
        <section class="spaced content-start" aria-labelledby="pictures">
          <h2 id="pictures">{{ t('pictures') }}</h2>
          <img :src="chosen.pictureAddress" :alt="t('linkPreviewImage')" width="1200" height="630" class="card" />
          <p class="small">
            <a class="small-button" :href="chosen.pictureAddress" download>{{ t('download') }}</a>
          </p>
          <QrPicture :address="chosen.pageAddress" />
        </section>
      </div>
      <section class="spaced content-start" aria-labelledby="embed">
        <h2 id="embed">{{ t('playerElsewhere') }}</h2>
        <EmbedMaker :show="show" :episode="chosen" />
      </section>
    </template>
  </PageLayout>
</template>

<style scoped>
.field {
  max-width: 30rem;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: var(--space-5);
}
h3 {
  font: 600 var(--text-s) / 1.6 var(--sans);
}
pre {
  margin: 0;
  padding: var(--space-2) var(--space-3);
  border-radius: var(--round);
  background: var(--sheet-sunk);
  font: 400 var(--text-m) / 1.45 var(--sans);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.card {
  width: 100%;
  height: auto;
  border-radius: var(--round);
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
