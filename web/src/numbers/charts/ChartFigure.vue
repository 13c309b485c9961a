<script setup lang="ts">
import { onBeforeUnmount, ref, useId, useTemplateRef, watch } from 'vue'
import { useTheme } from '../../platform/theme/theme'
import { locale } from '../../platform/messages'
import type { Drawing } from './chart'
import { t } from './messages'

/** Lines drawn by Chart.js, with the table that they are of, and as a picture to keep. */
const props = defineProps<
  Drawing & {
    /** What can be seen in it, for who cannot. */
    summary: string
    /** What the places on the axis are. */
    axis: string
    /** The date that a picture of it bears. */
    dated: string
  }
>()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const figure = useTemplateRef<HTMLElement>('figure')
const theme = useTheme()
const id = useId()
const isTable = ref(false)
type Drawn = { update(): void; destroy(): void }
let drawn: Drawn | null = null
const format = (value: number | null): string => (value === null ? '–' : value.toLocaleString(locale))

async function draw(): Promise<void> {
  if (!canvas.value || !figure.value) return
  const { Chart, configurationOf, coloursOf } = await import('./chart')
  if (!canvas.value || !figure.value) return
  drawn?.destroy()
  drawn = new Chart(canvas.value, configurationOf(props, coloursOf(figure.value)))
}
watch([canvas, () => theme.isDark, () => props.lines, () => props.range, () => props.marks, () => props.wave], draw, {
  flush: 'post',
})
onBeforeUnmount(() => drawn?.destroy())

/** The drawing with its title and date, as a PNG. */
function keepPicture(): void {
  const source = canvas.value
  if (!source || !figure.value) return
  const scale = source.width / source.clientWidth
  const picture = document.createElement('canvas')
  const head = 56 * scale
  picture.width = source.width + 32 * scale
  picture.height = source.height + head + 16 * scale
  const context = picture.getContext('2d')!
  const style = getComputedStyle(figure.value)
  context.fillStyle = getComputedStyle(document.body).backgroundColor
  context.fillRect(0, 0, picture.width, picture.height)
  context.fillStyle = style.color
  context.font = `${18 * scale}px ${style.getPropertyValue('--serif')}`
  context.fillText(props.title, 16 * scale, 26 * scale)
  context.font = `${13 * scale}px ${style.fontFamily}`
  context.fillText(props.dated, 16 * scale, 46 * scale)
  context.drawImage(source, 16 * scale, head)
  const link = document.createElement('a')
  link.download = `${props.title}.png`
  link.href = picture.toDataURL('image/png')
  link.click()
}
</script>

<template>
  <figure ref="figure" class="figure" :aria-labelledby="isSmall ? undefined : id">
    <figcaption v-if="!isSmall" class="head">
      <h2 :id="id" class="text-l">{{ title }}</h2>
      <span class="actions">
        <button type="button" class="small-button" :aria-pressed="isTable" @click="isTable = !isTable">
          {{ t('asATable') }}
        </button>
        <button v-if="!isTable" type="button" class="small-button" @click="keepPicture">{{ t('savePicture') }}</button>
      </span>
    </figcaption>
    <div v-show="!isTable" :class="['drawing', { small: isSmall }]">
      <canvas ref="canvas" role="img" :aria-label="summary" />
    </div>
    <div v-if="isTable" class="rows scrolls" tabindex="0" role="region" :aria-label="title">
      <table :aria-label="title">
        <thead>
          <tr>
            <th scope="col">{{ axis }}</th>
            <th v-for="line in lines" :key="line.name" scope="col" class="figures">{{ line.name }}</th>
            <th v-if="range" scope="col" class="figures">{{ range.name }}</th>
            <th v-if="marks?.length" scope="col">{{ t('marks') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(label, n) in labels" :key="n">
            <th scope="row">{{ label }}</th>
            <td v-for="line in lines" :key="line.name" class="figures">{{ format(line.values[n] ?? null) }}</td>
            <td v-if="range" class="figures">
              {{ t('fromTo', { low: format(range.low[n] ?? null), high: format(range.high[n] ?? null) }) }}
            </td>
            <td v-if="marks?.length">
              {{
                marks
                  .filter(({ at }) => at === n)
                  .map(({ words }) => words)
                  .join(', ')
              }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </figure>
</template>

<style scoped>
.figure {
  margin: 0;
  min-width: 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  align-items: baseline;
  justify-content: space-between;
}
.drawing {
  position: relative;
  height: 15rem;
}
.drawing.small {
  height: 4.5rem;
}
.rows {
  max-height: 15rem;
  overflow: auto;
}
</style>
