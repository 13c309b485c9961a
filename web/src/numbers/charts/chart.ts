import {
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  CategoryScale,
  type ChartConfiguration,
  type Plugin,
} from 'chart.js'

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale, Filler)

/** A line: its figures, one for each place on the axis, and how it differs from the others without colour. */
export interface Line {
  name: string
  values: readonly (number | null)[]
  /** Lengths of dashes and gaps; none for a whole line. */
  dash?: readonly number[]
  /** What stands at its end, where there are several. */
  short?: string
  point?: 'circle' | 'rect' | 'triangle' | 'rectRot' | 'cross' | 'star'
}
/** What is usual, between two lines. */
export interface Range {
  name: string
  low: readonly (number | null)[]
  high: readonly (number | null)[]
}
export interface Mark {
  /** Its place on the axis. */
  at: number
  words: string
}
export interface Drawing {
  title: string
  labels: readonly string[]
  lines: readonly Line[]
  range?: Range | undefined
  marks?: readonly Mark[] | undefined
  /** Heights from the middle, 0 to 1, of a waveform that is drawn behind the lines. */
  wave?: readonly number[] | undefined
  /** What the axis goes up to, where it is not the highest figure. */
  most?: number | undefined
  /** Whether it is drawn without axes and words, beside words that say what it shows. */
  isSmall?: boolean | undefined
}

/** Colours of the theme, as the canvas takes them. */
interface Colours {
  ink: string
  soft: string
  edge: string
  accent: string
  wash: string
  sheet: string
  font: string
}

export function coloursOf(element: HTMLElement): Colours {
  const probe = document.createElement('span')
  element.append(probe)
  const colour = (name: string): string => {
    probe.style.color = `var(--${name})`
    return getComputedStyle(probe).color
  }
  const colours = {
    ink: colour('ink'),
    soft: colour('ink-soft'),
    edge: colour('edge'),
    accent: colour('accent'),
    wash: colour('curve'),
    sheet: colour('paper'),
    font: getComputedStyle(element).fontFamily,
  }
  probe.remove()
  return colours
}

/** What a line is called stands at its end, below what stands there already; marks stand at their day. */
const names = (drawing: Drawing, { ink, soft, font, sheet }: Colours): Plugin<'line'> => ({
  id: 'names',
  afterDatasetsDraw(chart) {
    const { ctx, chartArea } = chart
    ctx.save()
    ctx.font = `600 13px ${font}`
    ctx.textBaseline = 'middle'
    const taken: { x: number; y: number }[] = []
    const ends = drawing.lines
      .map(({ short, values }, n) => ({
        short,
        point: chart.getDatasetMeta(n).data[values.findLastIndex(each => each !== null)],
      }))
      .toSorted((one, other) => (one.point?.y ?? 0) - (other.point?.y ?? 0))
    for (const { short, point } of ends) {
      if (!short || !point) continue
      let y = point.y
      while (taken.some(other => Math.abs(other.x - point.x) < 60 && Math.abs(other.y - y) < 17)) y += 17
      taken.push({ x: point.x, y })
      ctx.lineWidth = 4
      ctx.strokeStyle = sheet
      ctx.strokeText(short, point.x + 7, y)
      ctx.fillStyle = ink
      ctx.fillText(short, point.x + 7, y)
    }
    ctx.font = `13px ${font}`
    ctx.lineWidth = 1
    let wordsEnd = -Infinity
    let line = 0
    for (const { at, words } of drawing.marks ?? []) {
      const x = chart.scales.x!.getPixelForValue(at)
      ctx.strokeStyle = soft
      ctx.setLineDash([2, 3])
      ctx.beginPath()
      ctx.moveTo(x, chartArea.top)
      ctx.lineTo(x, chartArea.bottom)
      ctx.stroke()
      const length = ctx.measureText(words).width
      const left = Math.max(chartArea.left, x + 5 + length > chartArea.right ? x - 5 - length : x + 5)
      // What would stand over the words before it stands below them.
      line = left < wordsEnd + 8 ? line + 1 : 0
      wordsEnd = Math.max(wordsEnd, left + length)
      ctx.setLineDash([])
      ctx.lineWidth = 4
      ctx.strokeStyle = sheet
      ctx.strokeText(words, left, chartArea.top + 8 + line * 16)
      ctx.lineWidth = 1
      ctx.fillStyle = soft
      ctx.fillText(words, left, chartArea.top + 8 + line * 16)
    }
    ctx.restore()
  },
})

/** A waveform stands behind the lines, as wide as they are. */
const waveBehind = ({ wave }: Drawing, { wash }: Colours): Plugin<'line'> => ({
  id: 'wave',
  beforeDatasetsDraw({ ctx, chartArea: { left, top, width, height } }) {
    if (!wave) return
    ctx.fillStyle = wash
    const each = width / wave.length
    for (const [n, of] of wave.entries()) {
      const long = Math.max(1, of * height)
      ctx.fillRect(left + n * each, top + (height - long) / 2, each * 0.7, long)
    }
  },
})

/** What Chart.js draws of it. */
export function configurationOf(drawing: Drawing, colours: Colours): ChartConfiguration<'line'> {
  const { lines, range, isSmall = false } = drawing
  const whole = (value: number): string => value.toLocaleString('en-GB')
  const edge = { borderColor: colours.soft, borderWidth: 1, borderDash: [2, 3], pointRadius: 0 }
  return {
    type: 'line',
    data: {
      labels: [...drawing.labels],
      datasets: [
        ...lines.map(({ name, values, dash = [], point = 'circle' as const }, n) => ({
          label: name,
          data: [...values],
          borderColor: n === 0 ? colours.accent : colours.soft,
          backgroundColor: colours.sheet,
          borderWidth: n === 0 ? 2.25 : 1.75,
          borderDash: [...dash],
          pointStyle: point,
          pointRadius: isSmall || values.length > 45 ? 0 : 3,
          pointBorderWidth: 1.5,
          tension: 0,
        })),
        ...(range
          ? [
              { ...edge, label: range.name, data: [...range.low], fill: false },
              {
                ...edge,
                label: range.name,
                data: [...range.high],
                fill: '-1' as const,
                backgroundColor: colours.wash,
              },
            ]
          : []),
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: { right: lines.some(({ short }) => short) ? 44 : 6, top: 4 } },
      scales: {
        x: {
          display: !isSmall,
          grid: { display: false },
          ticks: { color: colours.soft, font: { family: colours.font, size: 12 }, maxRotation: 0, autoSkipPadding: 18 },
          border: { color: colours.edge },
        },
        y: {
          display: !isSmall,
          beginAtZero: true,
          ...(drawing.most === undefined ? {} : { max: drawing.most }),
          grid: { color: colours.edge },
          border: { display: false },
          ticks: {
            color: colours.soft,
            font: { family: colours.font, size: 12 },
            precision: 0,
            maxTicksLimit: 6,
            callback: value => whole(Number(value)),
          },
        },
      },
    },
    plugins: [waveBehind(drawing, colours), names(drawing, colours)],
  }
}

export { Chart }
