<script setup lang="ts">
import type { Chapter } from '@core/episode/fields'
import type { Stretch } from '@core/audio/measurement'
import { timestampText } from '@core/words/timestamps'
import { dragAlong, stepMs } from '../../production/sound/drag'
import { t } from './messages'

/** Chapters under the waveform: a press on an empty place makes one, one that is there is dragged, or heard by a press. */
const props = defineProps<{
  chapters: readonly Chapter[]
  durationMs: number
  percent: (ms: number) => number
  view: Stretch
  snap: (ms: number) => number
}>()
const emit = defineEmits<{ add: [ms: number]; move: [id: string, ms: number]; hear: [chapter: Chapter] }>()

const within = (ms: number): number => Math.round(Math.min(Math.max(ms, 0), props.durationMs))
const msAt = (share: number): number => within(props.view.fromMs + share * (props.view.toMs - props.view.fromMs))

function press(event: MouseEvent): void {
  const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  emit('add', within(props.snap(msAt((event.clientX - left) / width))))
}

function drag(chapter: Chapter, event: PointerEvent): void {
  const lane = (event.currentTarget as HTMLElement).parentElement!
  dragAlong(
    event,
    lane,
    share => emit('move', chapter.id, within(props.snap(msAt(share)))),
    hasMoved => hasMoved || emit('hear', chapter),
  )
}

function key(chapter: Chapter, event: KeyboardEvent): void {
  const step = stepMs(event)
  if (step !== undefined) emit('move', chapter.id, within(chapter.fromMs + step))
  else if (event.key === 'Enter' || event.key === ' ') emit('hear', chapter)
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="lane" :title="t('clickWhereChapterBegins')" @click.self="press">
    <button
      v-for="(chapter, index) in chapters"
      v-show="chapter.fromMs >= view.fromMs && chapter.fromMs <= view.toMs"
      :key="chapter.id"
      type="button"
      role="slider"
      class="flag figures small"
      :style="{ left: `${percent(chapter.fromMs)}%` }"
      :aria-label="t('chapterNamed', { number: index + 1, title: chapter.title || t('withoutTitle') })"
      aria-valuemin="0"
      :aria-valuemax="durationMs"
      :aria-valuenow="chapter.fromMs"
      :aria-valuetext="timestampText(chapter.fromMs)"
      :title="t('dragChapter', { time: timestampText(chapter.fromMs), title: chapter.title })"
      @pointerdown="event => drag(chapter, event)"
      @keydown="event => key(chapter, event)"
    >
      {{ index + 1 }}
    </button>
  </div>
</template>

<style scoped>
.lane {
  position: relative;
  height: 26px;
  border-radius: var(--round);
  background: var(--sheet-sunk);
  cursor: copy;
  overflow: hidden;
}
.flag {
  position: absolute;
  inset-block: 1px;
  min-width: 24px;
  padding: 0 0.3em;
  border: 0;
  border-inline-start: 3px solid var(--accent);
  border-radius: 0 var(--round) var(--round) 0;
  background: var(--accent-wash);
  color: var(--ink);
  text-align: start;
  cursor: ew-resize;
  touch-action: none;
}
</style>
