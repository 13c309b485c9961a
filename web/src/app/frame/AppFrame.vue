<script setup lang="ts">
import Button from 'primevue/button'
import { usePrimeVue } from 'primevue/config'
import { computed, onMounted, onScopeDispose, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { inNaturalOrder } from '@core/upload/order'
import JumpDialog from './JumpDialog.vue'
import KeysDialog from './KeysDialog.vue'
import PlacesNav from './PlacesNav.vue'
import StudioRail from './StudioRail.vue'
import UploadQueue from '../../production/uploads/UploadQueue.vue'
import WindowDrop from '../../production/uploads/WindowDrop.vue'
import { useSession } from '../../people/account/session'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { isMissing } from '../../platform/api/client'
import { onNews, useNews } from '../../platform/news/news'
import { useShows } from '../../show/shows/shows'
import { firstDayOf } from '../../platform/time/week'
import { useUploads } from '../../production/uploads/uploads'
import { t } from './messages'

const props = defineProps<{ show: string }>()
const router = useRouter()
const route = useRoute()
const shows = useShows()
const uploads = useUploads()
const sessions = useSession()
const news = useNews()
const missing = ref(false)
const problem = ref<ShownProblem | null>(null)
const jump = ref<InstanceType<typeof JumpDialog>>()
const keys = ref<InstanceType<typeof KeysDialog>>()
/** Whether there are other shows is seen on its pages, so they wait for it: they would move when it came. */
const isListHere = ref(false)
const show = computed(() => (isListHere.value ? shows.bySlug(props.show) : null))
const { config } = usePrimeVue()
watch(
  () => show.value?.language,
  language => language && (config.locale!.firstDayOfWeek = firstDayOf(language)),
  { immediate: true },
)
/** The desk shows its own upload; the line is shown for all others. */
const isQueueShown = computed(() => uploads.all.some(({ episodeId }) => episodeId !== route.params.id))

async function loadList(): Promise<void> {
  if (!shows.list) await shows.loadList().catch(() => undefined)
  isListHere.value = true
}
async function load(): Promise<void> {
  void loadList()
  problem.value = null
  try {
    await shows.openAt(props.show)
    missing.value = false
  } catch (error) {
    if (isMissing(error)) missing.value = true
    else problem.value = problemOf(error, t('showsUnchanged'))
  }
}

/** Begins a draft for each file, in the order of the numbers in their names, or one without a file. */
async function begin(files: readonly File[] = []): Promise<void> {
  const ids =
    files.length > 0 ? await uploads.beginNew(show.value!.id, inNaturalOrder(files)) : [await shows.beginEpisode()]
  if (ids.length === 1) await router.push({ name: 'desk', params: { show: props.show, id: ids[0] } })
  await load()
}

onMounted(load)
watch(() => props.show, load)
// What happens elsewhere is seen here: in another window, by the release clock.
onMounted(news.begin)
onScopeDispose(news.end)
onNews(({ kind, showId }) => showId === show.value?.id && (kind === 'episode' || kind === 'upload'), shows.loadEpisodes)
onNews(
  ({ kind, showId }) => kind === 'clock' && showId === show.value?.id,
  () => Promise.all([sessions.load(), shows.loadEpisodes()]),
  30_000,
)
onNews(({ kind }) => kind === 'show' || kind === 'membership', shows.refresh, 30_000)
</script>

<template>
  <div class="frame" :class="{ 'at-desk': route.name !== 'show' }">
    <a class="skip" href="#work">{{ t('skipToMain') }}</a>
    <PlacesNav v-if="show" :show="show" @jump="jump?.begin()" @keys="keys?.begin()" />
    <JumpDialog v-if="show" ref="jump" :show="show" @new="begin()" />
    <KeysDialog ref="keys" />
    <StudioRail v-if="show" :show="show" :near="shows.near" @new="begin()" @more="shows.loadMore" />
    <main v-if="show" id="work" tabindex="-1">
      <UploadQueue v-if="isQueueShown" :slug="show.slug" />
      <RouterView :key="String(route.params.id ?? route.name) + show.id" :show="show.slug" @files="begin" />
    </main>
    <main v-else-if="missing" class="lost">
      <h1>{{ t('noShowHere') }}</h1>
      <p class="actions">
        <RouterLink :to="{ name: 'home' }">{{ t('toYourShows') }}</RouterLink>
      </p>
    </main>
    <main v-else-if="problem" class="lost">
      <h1 class="out-of-sight">{{ t('lakeLetter') }}</h1>
      <ProblemNote :problem="problem"><Button :label="t('tryAgain')" size="small" @click="load" /></ProblemNote>
    </main>
    <main v-else class="lost"><LoadingShape :what="t('theShow')" :lines="12" /></main>
    <WindowDrop v-if="show && route.name !== 'desk'" :words="t('dropMakesEpisodes')" @files="begin" />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  height: 100vh;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: var(--space-4);
  top: var(--space-2);
  z-index: 5;
  background: var(--sheet);
  padding: var(--space-3);
}
main {
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow-y: auto;
  outline: none;
}
main > * {
  flex: none;
}
.lost {
  grid-column: 1 / -1;
  padding: 20vh var(--space-6);
}

@media (max-width: 900px) {
  .frame {
    grid-template-columns: auto 15rem minmax(0, 1fr);
  }
  .frame.at-desk {
    grid-template-columns: auto minmax(0, 1fr);
  }
  .frame.at-desk .rail {
    display: none;
  }
}
@media (max-width: 620px) {
  .frame,
  .frame.at-desk {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 60px;
  }
  .frame:not(.at-desk) {
    height: auto;
    min-height: 100vh;
  }
  .frame:not(.at-desk) main {
    overflow: visible;
  }
}
</style>
