<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Heard } from '@contract/numbers'
import { columnsOf } from '@core/audio/pyramid'
import { clock } from '@core/words/amounts'
import { useSound } from '../../production/sound/sound'
import { useWaveforms } from '../../production/sound/waveforms'
import ChartFigure from '../charts/ChartFigure.vue'
import { t } from './messages'
import { share, whole } from './words'

/** How far an episode was heard, over its waveform: how many of those who began were still there at each hundredth. */
const props = defineProps<{ heard: Heard; title: string; dated: string }>()
const sounds = useSound()
const waveforms = useWaveforms()
const file = computed(() =>
  [sounds.sound?.finished, sounds.sound?.source].find(each => each?.id === props.heard.fileId),
)
watch(file, found => found && void waveforms.need(found), { immediate: true })

const columnsEach = 4
/** From the middle, for each quarter of a hundredth. */
const wave = computed(() => {
  const waveform = waveforms.waveforms[props.heard.fileId]
  if (!waveform) return undefined
  const columns = columnsOf(waveform, 0, waveform.durationMs, props.heard.parts.length * columnsEach)
  return Array.from({ length: columns.length / 2 }, (_, n) => Math.max(-columns[n * 2]!, columns[n * 2 + 1]!) / 127)
})

const startOf = (part: number): string => clock((part / props.heard.parts.length) * props.heard.durationMs)
const labels = computed(() => props.heard.parts.map((_, part) => startOf(part)))
const lines = computed(() => [{ name: t('stillListening'), values: props.heard.parts }])
const sentence = computed(() => {
  const { parts, listeners } = props.heard
  const halfLeft = parts.findLastIndex(many => many * 2 >= listeners) + 1
  return t('heardTo', {
    count: listeners,
    half: halfLeft < parts.length ? 'yes' : 'no',
    at: startOf(halfLeft),
    end: share(parts.at(-1)!, listeners) || whole(0),
  })
})
</script>

<template>
  <div class="spaced gap-2">
    <ChartFigure
      :title="title"
      :summary="sentence"
      :labels="labels"
      :lines="lines"
      :wave="wave"
      :most="heard.listeners"
      :axis="t('from')"
      :dated="dated"
    />
    <p>{{ sentence }}</p>
    <p class="quiet small">{{ t('heardHint') }}</p>
  </div>
</template>
