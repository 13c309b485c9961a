<script setup lang="ts">
import { storeToRefs } from 'pinia'
import Button from 'primevue/button'
import { computed, onMounted, onScopeDispose, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { ShelfFile } from '@contract/shelf'
import { amount, clock } from '@core/words/amounts'
import ProblemNote from '../parts/ProblemNote.vue'
import { ApiError } from '../api/client'
import { shortDay } from '../time/times'
import { formatOf, loudnessWords } from '../sound/words'
import { useShelf } from './shelf'
import { useShows } from '../show/shows'

/** All files of a show, used or not: listen, use again, download, delete what nobody uses. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const shelves = useShelf()
const { shelf } = storeToRefs(shelves)
const problem = ref<{ title: string; detail: string; todo: string } | null>(null)
const asking = ref<string | null>(null)
const heard = ref<string | null>(null)
const sound = new Audio()

const asWords: Readonly<Record<ShelfFile['usedBy'][number]['as'], string>> = { source: 'source of', finished: 'finished for', delivered: 'goes out with', past: 'went out with' }
const unused = computed(() => shelf.value?.files.filter(({ usedBy }) => usedBy.length === 0) ?? [])

async function attempt(act: () => Promise<void>): Promise<void> {
  problem.value = null
  try {
    await act()
  } catch (error) {
    problem.value = error instanceof ApiError ? error.problem : { title: 'The server does not answer', detail: 'Nothing was changed.', todo: 'Try again in a moment.' }
  }
}
onMounted(() => attempt(() => shelves.load(show.value.id)))
sound.addEventListener('ended', () => { heard.value = null })
onScopeDispose(() => sound.pause())

function listen(file: ShelfFile): void {
  if (heard.value === file.id) {
    sound.pause()
    heard.value = null
    return
  }
  sound.src = file.playAddress
  heard.value = file.id
  void sound.play()
}

const remove = (file: ShelfFile): Promise<void> => attempt(async () => {
  await shelves.remove(show.value.id, file.id)
  asking.value = null
})

const beginWith = (file: ShelfFile): Promise<void> => attempt(async () => {
  const id = await shelves.beginWith(show.value.id, file.id)
  await shows.loadEpisodes()
  await router.push({ name: 'desk', params: { show: props.show, id } })
})
</script>

<template>
  <section class="page">
    <header class="head">
      <h1>The shelf</h1>
      <p v-if="shelf" class="quiet figures">{{ shelf.files.length }} {{ shelf.files.length === 1 ? 'file' : 'files' }}, {{ amount(shelf.usedBytes) }} · room for {{ amount(shelf.freeBytes) }} more<template v-if="unused.length"> · {{ unused.length }} used by no episode</template></p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="shelf && shelf.files.length === 0" class="first">
      <h2>Nothing lies here yet</h2>
      <p>Drop audio files anywhere on this window: each begins an episode, and lies here from then on.</p>
    </div>
    <table v-else-if="shelf" class="small">
      <thead><tr><th scope="col">File</th><th scope="col">Length</th><th scope="col">Size</th><th scope="col">Loudness</th><th scope="col">Came</th><td /></tr></thead>
      <tbody>
        <tr v-for="file in shelf.files" :key="file.id">
          <th scope="row"><span class="name">{{ file.name }}</span><br><span class="quiet">{{ formatOf(file) }}{{ file.origin === 'finish' ? ', finished here' : file.address ? ', lives elsewhere' : '' }}</span>
            <div v-if="file.usedBy.length === 0" class="quiet">used by no episode</div>
            <div v-for="use in file.usedBy" :key="use.id"><span class="quiet">{{ asWords[use.as] }}</span> <RouterLink :to="{ name: 'desk', params: { show: props.show, id: use.id } }">{{ use.number ? `${use.number} ` : '' }}{{ use.title || 'an untitled episode' }}</RouterLink></div>
          </th>
          <td class="figures">{{ clock(file.durationMs) }}</td>
          <td class="figures">{{ amount(file.bytes) }}</td>
          <td class="figures">{{ file.measurement ? loudnessWords(file.measurement.integratedLufs) : file.address ? 'not measured' : file.measuring === 'failed' ? 'not measurable' : 'being measured' }}</td>
          <td class="figures">{{ shortDay(file.cameAt, show.zone) }}</td>
          <td class="acts">
            <button type="button" class="link-button" :aria-label="`${heard === file.id ? 'Stop' : 'Listen to'} ${file.name}`" @click="listen(file)">{{ heard === file.id ? 'Stop' : 'Listen' }}</button>
            <button type="button" class="link-button" :aria-label="`Use again: ${file.name}`" @click="beginWith(file)">Use again</button>
            <a v-if="!file.address" :href="`/api/v1/files/${file.id}/download`" :aria-label="`Download ${file.name}`">Download</a>
            <template v-if="file.usedBy.length === 0">
              <button v-if="asking !== file.id" type="button" class="link-button" :aria-label="`Delete ${file.name}`" @click="asking = file.id">Delete</button>
              <Button v-else type="button" size="small" label="Delete for good" @click="remove(file)" />
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-5) var(--space-6); display: grid; gap: var(--space-4); }
.head { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); align-items: baseline; }
h1 { font-size: var(--text-xl); }
table { width: 100%; border-collapse: collapse; }
th, td { padding: var(--space-2) var(--space-3) var(--space-2) 0; text-align: left; vertical-align: top; border-bottom: 1px solid var(--edge); font-weight: 400; }
thead th { font-weight: 600; color: var(--ink-soft); }
th:first-child { width: 42%; }
td.figures { white-space: nowrap; }
.name { font-weight: 600; overflow-wrap: anywhere; }
.acts { padding-right: 0; text-align: right; }
.acts > * { display: inline-block; line-height: 24px; margin-left: var(--space-3); vertical-align: top; white-space: nowrap; }
/* On a phone a file's facts stand on a line below its name. */
@media (max-width: 620px) {
  thead { position: absolute; clip-path: inset(50%); }
  tr { display: flex; flex-wrap: wrap; padding: var(--space-2) 0; border-bottom: 1px solid var(--edge); }
  th, td { padding: 0 var(--space-4) 0 0; border: 0; }
  th:first-child, .acts { width: 100%; }
  .acts { text-align: left; }
  .acts > * { margin: 0 var(--space-4) 0 0; }
}
.first { padding: var(--space-6); text-align: center; border: 2px dashed var(--edge-strong); border-radius: var(--round); }
</style>
