import {
  Chart,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartConfiguration,
  type Plugin,
} from 'chart.js'
import type { Colours } from '../board/colours'
import type { ChartData } from './chartData'

Chart.register(LineController, LineElement, LinearScale, PointElement)

/** Room for the axis of values, and beside the chart on the other side, in pixels. */
export const VALUE_AXIS = { lying: 76, standing: 44 } as const
const CLEAR = 12

/** Where the chart stands to the part: its places run along the part's axis, at the same scale. */
export interface ChartFrame {
  readonly lie: 'lying' | 'standing'
  /** The places at the two ends of the chart's area, in the chart's unit of length. */
  readonly from: number
  readonly to: number
  readonly lengthUnit: string
  readonly colours: Colours
}

type Line = ChartConfiguration<'line', { x: number; y: number }[]>

/** A chart of curves along the axis; places across for a lying part, upwards for a standing one. */
export function chartConfig(
  data: ChartData,
  { lie, from, to, lengthUnit, colours }: ChartFrame,
  cursor: () => number | undefined,
): Line {
  const lying = lie === 'lying'
  const font = { family: "'IBM Plex Mono', monospace", size: 11 }
  const ticks = { color: colours.inkSoft, font, maxTicksLimit: 7 }
  const grid = { color: colours.rule, lineWidth: 0.6 }
  const title = (text: string) => ({ display: true, text, color: colours.inkSoft, font })
  const places = {
    type: 'linear',
    min: from,
    max: to,
    ticks: { ...ticks, maxTicksLimit: 12, includeBounds: false },
    grid,
  }
  const values = { type: 'linear', beginAtZero: true, ticks, grid, title: title(data.unit) }
  const fixed =
    (room: number, side: 'width' | 'height') => (scale: Record<typeof side, number>) => {
      scale[side] = room
    }
  return {
    type: 'line',
    data: {
      datasets: data.curves.map((curve, i) => ({
        label: curve.name,
        data: curve.points.map(({ place, value }) =>
          lying ? { x: place, y: value } : { x: value, y: place },
        ),
        borderColor: i === 0 ? colours.ink : colours.accent,
        borderWidth: 1.6,
        borderDash: curve.dashed ? [6, 4] : [],
        pointRadius: 0,
        tension: 0,
      })),
    },
    options: {
      animation: false,
      responsive: false,
      parsing: false,
      normalized: lying,
      events: [],
      layout: {
        padding: lying ? { right: CLEAR, top: 8 } : { top: 0, bottom: 0, right: CLEAR, left: 4 },
      },
      scales: (lying
        ? {
            x: { ...places, title: title(lengthUnit) },
            y: { ...values, afterFit: fixed(VALUE_AXIS.lying, 'width') },
          }
        : {
            y: { ...places, title: title(lengthUnit) },
            x: { ...values, afterFit: fixed(VALUE_AXIS.standing, 'height') },
          }) as NonNullable<NonNullable<Line['options']>['scales']>,
    },
    plugins: [cursorLine(lying, colours, cursor)],
  }
}

/** The pixels of a pane between which the chart's places run. */
export function areaOf(
  lie: 'lying' | 'standing',
  width: number,
  height: number,
): readonly [number, number] {
  return lie === 'lying' ? [VALUE_AXIS.lying, width - CLEAR] : [height - VALUE_AXIS.standing, 0]
}

/** The cursor as a line across the chart. */
function cursorLine(
  lying: boolean,
  colours: Colours,
  cursor: () => number | undefined,
): Plugin<'line'> {
  return {
    id: 'cursor',
    afterDatasetsDraw(chart) {
      const place = cursor()
      const scale = chart.scales[lying ? 'x' : 'y']
      if (place === undefined || !scale) return
      const { ctx, chartArea } = chart
      const at = scale.getPixelForValue(place)
      ctx.save()
      ctx.strokeStyle = colours.halo
      ctx.lineWidth = 1.2
      ctx.beginPath()
      ctx.moveTo(lying ? at : chartArea.left, lying ? chartArea.top : at)
      ctx.lineTo(lying ? at : chartArea.right, lying ? chartArea.bottom : at)
      ctx.stroke()
      ctx.restore()
    },
  }
}

export { Chart }
