<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, onMounted, onScopeDispose, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { ShowSummary } from '@contract/shows'
import { inNaturalOrder } from '@core/upload/order'
import EpisodeRail from '../show/EpisodeRail.vue'
import ThemeSwitch from './ThemeSwitch.vue'
import UploadQueue from '../uploads/UploadQueue.vue'
import WindowDrop from '../uploads/WindowDrop.vue'
import { ApiError } from '../api/client'
import { onNews, useNews } from '../news/news'
import { useRail } from './rail'
import { useSession } from '../account/session'
import { useShows } from '../show/shows'
import { useUploads } from '../uploads/uploads'

const props = defineProps<{ show: string }>()
const router = useRouter()
const route = useRoute()
const shows = useShows()
const sessions = useSession()
const uploads = useUploads()
const news = useNews()
const rail = useRail()
const missing = ref(false)
const show = computed(() => shows.bySlug(props.show))
/** The desk shows its own upload; the line is shown for all others. */
const isQueueShown = computed(() => uploads.all.some(({ episodeId }) => episodeId !== route.params.id))

async function load(): Promise<void> {
  if (!shows.list) void shows.loadList().catch(() => undefined)
  try {
    await shows.openAt(props.show)
    missing.value = false
  } catch (error) {
    if (!(error instanceof ApiError) || error.problem.status !== 404) throw error
    missing.value = true
  }
}

/** The open show is among the choices, wherever it stands in the list. */
const choices = computed<ShowSummary[]>(() => {
  const listed = shows.list?.shows ?? []
  return !show.value || listed.some(({ id }) => id === show.value!.id) ? listed : [show.value, ...listed]
})
let findTimer: ReturnType<typeof setTimeout> | undefined
function find(words: string): void {
  clearTimeout(findTimer)
  findTimer = setTimeout(() => void shows.loadList(words).catch(() => undefined), 200)
}

/** Begins a draft for each file, in the order of the numbers in their names, or one without a file. */
async function begin(files: readonly File[] = []): Promise<void> {
  const ids: string[] = []
  for (const file of files.length > 0 ? inNaturalOrder(files) : [null]) {
    const id = await shows.beginEpisode()
    if (file) void uploads.begin(id, file)
    ids.push(id)
  }
  if (ids.length === 1) await router.push({ name: 'desk', params: { show: props.show, id: ids[0] } })
  await load()
}

async function leave(): Promise<void> {
  await sessions.leave()
  await router.push({ name: 'sign-in' })
}

onMounted(load)
watch(() => props.show, load)
// What happens elsewhere is seen here: in another window, by the release clock.
onMounted(news.begin)
onScopeDispose(news.end)
onNews(({ kind, showId }) => showId === show.value?.id && (kind === 'episode' || kind === 'upload'), shows.loadEpisodes)
onNews(({ kind }) => kind === 'show' || kind === 'membership', shows.refresh, 30_000)
</script>

<template>
  <div class="frame" :class="{ 'at-desk': route.name !== 'show', folded: rail.isFolded }">
    <a class="skip" href="#work">To the work</a>
    <aside v-if="show" class="rail">
      <button
        type="button"
        class="fold"
        :aria-expanded="!rail.isFolded"
        :aria-label="rail.isFolded ? 'Unfold the rail' : 'Fold the rail'"
        :title="rail.isFolded ? 'Unfold the rail' : 'Fold the rail'"
        @click="rail.isFolded = !rail.isFolded"
      >
        <svg viewBox="0 0 12 12" aria-hidden="true">
          <path d="M8 2.5 4 6l4 3.5" fill="none" stroke="currentColor" stroke-width="1.4" />
        </svg>
      </button>
      <header>
        <Select
          v-if="(shows.list?.total ?? 0) > 1"
          class="switch"
          aria-label="Show"
          :model-value="show.slug"
          :options="choices"
          option-label="name"
          option-value="slug"
          :filter="shows.list!.total > choices.length || choices.length > 12"
          @filter="({ value }) => find(value)"
          @hide="find('')"
          @update:model-value="slug => router.push({ name: 'show', params: { show: slug } })"
        />
        <RouterLink v-else class="show-name" :to="{ name: 'show', params: { show: show.slug } }">{{
          show.name
        }}</RouterLink>
        <div class="actions">
          <Button label="New episode" size="small" @click="begin()" />
          <RouterLink class="small" :to="{ name: 'show', params: { show: show.slug } }">The show</RouterLink>
          <RouterLink class="small" :to="{ name: 'shelf', params: { show: show.slug } }">The shelf</RouterLink>
        </div>
      </header>
      <EpisodeRail v-if="shows.near" :show="show" :near="shows.near" @more="shows.loadMore" />
      <footer class="small">
        <ThemeSwitch />
        <button type="button" class="link-button" :title="sessions.session?.account?.email" @click="leave">
          Sign out
        </button>
      </footer>
    </aside>
    <main v-if="show" id="work" tabindex="-1">
      <RouterLink v-if="route.name !== 'show'" class="back" :to="{ name: 'show', params: { show: show.slug } }"
        >All episodes</RouterLink
      >
      <UploadQueue v-if="isQueueShown" :slug="show.slug" />
      <RouterView :key="String(route.params.id ?? route.name) + show.id" :show="show.slug" @files="begin" />
    </main>
    <main v-else-if="missing" class="lost">
      <h1>There is no show at this address</h1>
      <p><RouterLink :to="{ name: 'home' }">To your shows</RouterLink></p>
    </main>
    <WindowDrop
      v-if="show && route.name !== 'desk'"
      words="Drop it: a new episode begins with each file"
      @files="begin"
    />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: 19rem minmax(0, 1fr);
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
  padding: var(--space-2);
}
.rail {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--edge);
}
.rail header {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-4);
}
.rail header .actions {
  gap: var(--space-3);
}
/* The strip keeps a glyph and a number for each episode; what they are called is said by their tips and to screen readers. */
.fold {
  display: grid;
  place-items: center;
  align-self: flex-end;
  width: 2rem;
  height: 1.75rem;
  margin: var(--space-1) var(--space-2) calc(-1 * var(--space-2)) 0;
  border: 0;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
}
.fold svg {
  width: 0.9rem;
}
@media (min-width: 901px) {
  .frame.folded {
    grid-template-columns: 3.75rem minmax(0, 1fr);
  }
  .folded .fold {
    align-self: center;
    margin: var(--space-2) 0;
  }
  .folded .fold svg {
    transform: scaleX(-1);
  }
  .folded .rail header,
  .folded .rail footer,
  .folded .rail :deep(.find),
  .folded .rail :deep(.waterline span),
  .folded .rail :deep(.nothing),
  .folded .rail :deep(.facts),
  .folded .rail :deep(.more) {
    display: none;
  }
  .folded .rail :deep(.row) {
    flex-direction: column;
    gap: 0;
    align-items: center;
    font-size: var(--text-s);
  }
  .folded .rail :deep(.name) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
@media (max-width: 900px) {
  .fold {
    display: none;
  }
}
.switch {
  font-family: var(--serif);
  font-weight: 560;
}
.show-name {
  font: 560 var(--text-l) var(--serif);
  color: var(--ink);
  text-decoration: none;
}
.rail footer {
  display: flex;
  justify-content: space-between;
  padding: var(--space-3) var(--space-4);
  background: var(--deep);
  --accent: var(--on-deep-soft);
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
.back {
  display: none;
}

@media (max-width: 900px) {
  .frame {
    grid-template-columns: 16rem minmax(0, 1fr);
  }
  .frame.at-desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .frame.at-desk .rail {
    display: none;
  }
  .back {
    display: inline-block;
    padding: var(--space-3) var(--space-5) 0;
  }
}
@media (max-width: 620px) {
  .frame:not(.at-desk) {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
    min-height: 100vh;
  }
  .frame:not(.at-desk) main {
    overflow: visible;
  }
}
</style>
