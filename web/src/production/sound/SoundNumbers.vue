<script setup lang="ts">
import { computed } from 'vue'
import type { AudioFile, Sound } from '@contract/sound'
import { nearEnoughLu } from '@core/audio/finishPlan'
import { amount, clock } from '@core/words/amounts'
import { loudnessWords, peakWords } from '../files/words'
import { t } from './messages'

/** What was measured; with a finished file both, side by side. */
const props = defineProps<{ source: AudioFile; finished: AudioFile | null; report: Sound['report'] }>()

const rows = computed(() => [
  { name: t('loudness'), of: (file: AudioFile) => loudnessWords(file.measurement?.integratedLufs ?? null) },
  { name: t('truePeak'), of: (file: AudioFile) => peakWords(file.measurement?.truePeakDbtp ?? null) },
  {
    name: t('range'),
    of: (file: AudioFile) => t('loudnessRange', { lu: (file.measurement?.rangeLu ?? 0).toFixed(1) }),
  },
  ...(props.finished
    ? [
        { name: t('length'), of: (file: AudioFile) => clock(file.durationMs) },
        { name: t('size'), of: (file: AudioFile) => amount(file.bytes) },
      ]
    : []),
])
const files = computed(() => [props.source, ...(props.finished ? [props.finished] : [])])

const done = computed(() => {
  if (!props.report) return null
  const { gainDb, limitedByDb, reductionsDb, missedByLu } = props.report
  const deepest = Math.max(0, ...reductionsDb)
  return (
    [
      Math.abs(gainDb) >= 0.05 &&
        t('gainBy', { way: gainDb > 0 ? 'up' : 'down', decibels: Math.abs(gainDb).toFixed(1) }),
      deepest > 0.1 && t('levelledBy', { decibels: deepest.toFixed(1) }),
      limitedByDb > 0.1 && t('peaksHeldBack', { decibels: limitedByDb.toFixed(1) }),
      Math.abs(missedByLu) > nearEnoughLu &&
        t('targetMissed', { lu: Math.abs(missedByLu).toFixed(1), side: missedByLu < 0 ? 'under' : 'over' }),
    ]
      .filter(Boolean)
      .join(', ') || t('soundUntouched')
  )
})
/** The levelling as a line that hangs from the top, 12 dB high. */
const curve = computed(() => {
  const { reductionsDb = [] } = props.report ?? {}
  if (!reductionsDb.some(value => value > 0.1)) return null
  return `M0 0 ${reductionsDb.map((value, index) => `L${(index / Math.max(1, reductionsDb.length - 1)) * 100} ${(Math.min(value, 12) / 12) * 20}`).join(' ')} L100 0Z`
})
</script>

<template>
  <div class="spaced gap-1 min-w-0 max-w-full">
    <table :aria-label="t('loudness')" class="figures small" :class="{ lone: !finished }">
      <thead v-if="finished">
        <tr>
          <td />
          <th v-for="row in rows" :key="row.name" scope="col">{{ row.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(file, index) in files" :key="file.id">
          <th v-if="finished" scope="row">{{ index === 0 ? t('source') : t('finished') }}</th>
          <td v-for="row in rows" :key="row.name">
            <span v-if="!finished" class="quiet name mr-1">{{ row.name }}</span>{{ row.of(file) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="done" class="small quiet">{{ done }}</p>
    <svg
      v-if="curve"
      class="curve"
      viewBox="0 0 100 20"
      preserveAspectRatio="none"
      role="img"
      :aria-label="t('gainReduction')"
    >
      <path :d="curve" />
    </svg>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
}
/* On a narrow screen the numbers of one file stand below each other, and those of two side by side; of one alone they wrap. */
@media (max-width: 620px) {
  table,
  tbody {
    display: flex;
  }
  tr {
    display: flex;
    flex-direction: column;
  }
  td:empty {
    min-height: 1.5em;
  }
  .lone tr {
    flex-flow: row wrap;
  }
}
th {
  font-weight: 600;
  text-align: left;
  padding-right: var(--space-3);
}
td:first-child {
  padding-left: 0;
}
td {
  padding-left: 0;
  padding-right: var(--space-4);
  white-space: nowrap;
}
.curve {
  width: 100%;
  height: 20px;
  background: var(--sheet-sunk);
  border-radius: 3px;
}
.curve path {
  fill: var(--edge-strong);
}
</style>
