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
import { FormattedMessage, t } from './messages'

/** What the episode was, against what is on the desk now, and the way back to any of it. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{ episodeId: string; text: EpisodeText; zone: string }>()
const emit = defineEmits<{ bring: [part: Partial<EpisodeText>] }>()
const history = useHistory()
const { states, chosen, problem } = storeToRefs(history)

watch(visible, isVisible => isVisible && void history.open(props.episodeId), { immediate: true })

const acts: Readonly<Record<PastState['act'], string>> = {
  begun: t('created'),
  written: t('edited'),
  'filled in': t('actFilledIn'),
  'many at once': t('actManyAtOnce'),
  'kept aside': t('actKeptAside'),
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
    :header="t('history')"
    class="history"
    :style="{ width: 'min(66rem, 96vw)', height: 'min(44rem, 92vh)' }"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <LoadingShape v-else-if="!states" :what="t('theHistory')" />
    <p v-else-if="states.length === 0" class="quiet">
      {{ t('nothingWritten') }}
    </p>
    <div v-else class="panes">
      <ol class="states unlisted spaced" :aria-label="t('earlierStatesNewestFirst')">
        <li v-for="state in states" :key="state.id">
          <button
            type="button"
            :aria-current="state.id === chosen?.id || undefined"
            @click="history.choose(episodeId, state.id)"
          >
            <span class="when figures">{{ dayAndTime(state.at, zone) }}</span>
            <span class="small one-line quiet text-end">{{ whoIs(state.by) }}</span>
            <span class="small quiet col-span-full"
              >{{ what(state) }}<strong v-if="state.isSent"> · {{ t('wentOut') }}</strong></span
            >
          </button>
        </li>
      </ol>
      <section v-if="chosen && then" class="compared spaced" :aria-label="t('whatWasDifferentThen')">
        <header class="apart items-center">
          <p>
            <strong>{{ dayAndTime(chosen.at, zone) }}</strong>{{ ' '
            }}<span class="quiet"
              ><FormattedMessage of="againstDesk"
                ><template #del="{ words }"
                  ><del class="piece">{{ words }}</del></template
                ><template #ins="{ words }"
                  ><ins class="piece">{{ words }}</ins></template
                ></FormattedMessage
              ></span
            >
          </p>
          <Button
            v-if="others.length > 1"
            :label="t('restoreEverything')"
            size="small"
            @click="emit('bring', part(others))"
          />
        </header>
        <p v-if="others.length === 0" class="quiet" role="status">{{ t('nothingChangedSince') }}</p>
        <article v-for="name in others" :key="name">
          <header class="apart items-center">
            <h3>{{ sentence(known[name].name) }}</h3>
            <Button :label="t('restoreThis')" size="small" outlined @click="emit('bring', part([name]))" />
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
