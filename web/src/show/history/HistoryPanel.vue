<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { storeToRefs } from 'pinia'
import { computed, watch } from 'vue'
import type { PastState } from '@contract/history'
import { type EpisodeField, type EpisodeText, episodeFields, fields as known, isSameField } from '@core/episode/fields'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { dayAndTime } from '../../platform/time/times'
import ComparedWords from './ComparedWords.vue'
import { useHistory } from './history'
import { sentence, whoIs } from './words'

/** What the episode was, against what is on the desk now, and the way back to any of it. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{ episodeId: string; text: EpisodeText; zone: string }>()
const emit = defineEmits<{ bring: [part: Partial<EpisodeText>] }>()
const history = useHistory()
const { states, chosen, problem } = storeToRefs(history)

watch(visible, isVisible => isVisible && void history.open(props.episodeId), { immediate: true })

const acts: Readonly<Record<PastState['act'], string>> = {
  begun: 'Created',
  written: 'Edited',
  'filled in': 'Filled in',
  'many at once': 'Changed with others',
  'kept aside': 'Not applied',
}
const what = ({ act, fields }: PastState): string =>
  act === 'begun' ? acts.begun : `${acts[act]}: ${fields.map(name => known[name as EpisodeField].name).join(', ')}`

const then = computed<EpisodeText | null>(() => chosen.value && { ...props.text, ...chosen.value.text })
const others = computed(() => {
  const earlier = then.value
  return earlier ? episodeFields.filter(name => !isSameField(name, props.text, earlier)) : []
})
const shown = (name: EpisodeField, text: EpisodeText): string =>
  (known[name].shown as (value: unknown) => string)(text[name])
const part = (names: readonly EpisodeField[]): Partial<EpisodeText> =>
  Object.fromEntries(names.map(name => [name, then.value![name]]))
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    header="History"
    class="history"
    :style="{ width: 'min(66rem, 96vw)', height: 'min(44rem, 92vh)' }"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <LoadingShape v-else-if="!states" what="the history" />
    <p v-else-if="states.length === 0" class="quiet">
      Nothing was written here in the last 90 days. Changes from now on are kept for 90 days.
    </p>
    <div v-else class="panes">
      <ol class="states unlisted spaced" aria-label="Earlier states, newest first">
        <li v-for="state in states" :key="state.id">
          <button
            type="button"
            :aria-current="state.id === chosen?.id || undefined"
            @click="history.choose(episodeId, state.id)"
          >
            <span class="when figures">{{ dayAndTime(state.at, zone) }}</span>
            <span class="small one-line quiet text-end">{{ whoIs(state.by) }}</span>
            <span class="small quiet col-span-full"
              >{{ what(state) }}<strong v-if="state.isSent"> · went out</strong></span
            >
          </button>
        </li>
      </ol>
      <section v-if="chosen && then" class="compared spaced" aria-label="What was different then">
        <header class="apart items-center">
          <p>
            <strong>{{ dayAndTime(chosen.at, zone) }}</strong>{{ ' '
            }}<span class="quiet"
              >against the desk now: <del class="piece">only then</del>, <ins class="piece">only now</ins></span
            >
          </p>
          <Button
            v-if="others.length > 1"
            label="Restore everything"
            size="small"
            @click="emit('bring', part(others))"
          />
        </header>
        <p v-if="others.length === 0" class="quiet" role="status">Nothing has changed since then.</p>
        <article v-for="name in others" :key="name">
          <header class="apart items-center">
            <h3>{{ sentence(known[name].name) }}</h3>
            <Button label="Restore this" size="small" outlined @click="emit('bring', part([name]))" />
          </header>
          <ComparedWords :earlier="shown(name, then)" :later="shown(name, text)" />
        </article>
      </section>
    </div>
  </Dialog>
</template>

<style scoped>
.panes {
  display: grid;
  grid-template-columns: 17rem minmax(0, 1fr);
  gap: var(--space-5);
  align-items: start;
}
.states {
  gap: 1px;
  max-height: 62vh;
  overflow-y: auto;
}
.states button {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 var(--space-2);
  width: 100%;
  padding: var(--space-2) var(--space-3);
  border: 0;
  border-inline-start: 3px solid transparent;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: start;
  cursor: pointer;
}
.states button:hover {
  background: var(--accent-wash);
}
.states button[aria-current] {
  border-inline-start-color: var(--accent);
  background: var(--accent-wash);
}
.compared {
  gap: var(--space-4);
  max-height: 62vh;
  overflow-y: auto;
}
.compared h3 {
  font: 600 var(--text-m) / 1.3 var(--sans);
}
@media (max-width: 760px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
  .states {
    max-height: 26vh;
  }
  .compared {
    max-height: none;
  }
}
</style>
