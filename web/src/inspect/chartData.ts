import { significant, type UnitSettings } from '@lathica/core/units'
import { usualUnit, type ShownUnit } from '@lathica/core/units/shown'
import type { BodyState } from '@lathica/core/route'
import type { SolidMesh } from '@lathica/core/mesh'
import {
  capacityCurve,
  stationsAlong,
  stationsOfPlan,
  stationsOfSolid,
  thicknessAlong,
  type Cavity,
  type SlicedStation,
  type Station,
} from '@lathica/core/inspect'

/** One curve of a chart: a value at every place along the axis. */
export interface Curve {
  readonly name: string
  /** Places in the part's unit of length, values in the unit of the chart. */
  readonly points: readonly { readonly place: number; readonly value: number }[]
  readonly dashed: boolean
}

export interface ChartData {
  readonly unit: string
  readonly curves: readonly Curve[]
}

/** About how many places along the part are looked at, and along what is no full turn, which takes longer. */
const SAMPLES = 2000
const CUTS = 400

/** Faces that stand more squarely to the axis than this are ends: the sine of their lean. */
const FLAT = 0.1

/** What a chart is made of, once for all its curves. */
export interface ChartSource {
  readonly body: BodyState
  readonly stations: readonly Station[]
  /** Of a body that is no full turn, its stations by exact sections, or by the triangles of its picture. */
  readonly cut?: readonly SlicedStation[]
  readonly isExact?: boolean
  readonly cavity: Cavity | undefined
  /** in g/mm³ */
  readonly density: number
  readonly units: UnitSettings
}

/**
 * @param mesh tells the picture of a body that is no full turn, if there is one; asked only where sections do not do
 * @returns for such a body no stations until it is built
 */
export function chartSource(
  body: BodyState,
  cavity: Cavity | undefined,
  density: number,
  units: UnitSettings,
  mesh: () => SolidMesh | undefined = () => undefined,
): ChartSource {
  const source = { body, cavity, density, units }
  if (!body.plan) return { ...source, stations: stationsAlong(body.section, SAMPLES) }
  const volume = body.solid?.volume
  const exact = volume === undefined ? undefined : stationsOfPlan(body.plan, volume, CUTS)
  if (exact) return { ...source, stations: exact, cut: exact, isExact: true }
  const picture = mesh()
  const cut = picture && volume !== undefined ? stationsOfSolid(picture, volume, CUTS) : []
  return { ...source, stations: cut, cut }
}

/** The unit of second moments: the part's length to the fourth. */
const fourth = (length: ShownUnit): ShownUnit => ({
  name: `${length.name}⁴`,
  measure: 'number',
  size: length.size ** 4,
})

/** How a curve of some of its stations is made. */
type ValueOf<S> = (station: S) => number

function curveOf<S extends Station>(
  { units }: ChartSource,
  stations: readonly S[],
  name: string,
  unit: ShownUnit,
  value: ValueOf<S>,
  dashed = false,
): Curve {
  const length = usualUnit('length', units)
  const points = stations.map((s) => ({ place: s.x / length.size, value: value(s) / unit.size }))
  return { name, dashed, points }
}

/** A chart along the axis: its word, its curves, and its table where it is not that of all others. */
interface Chart {
  readonly words: string
  /** Only of bodies that hold something. */
  readonly ofVessels?: true
  /** Only of bodies that are full turns. */
  readonly ofTurned?: true
  readonly data: (source: ChartSource) => ChartData
  readonly table?: (source: ChartSource, tell: (value: number) => string) => (string | number)[][]
}

const charts = {
  diameters: {
    words: 'diameters',
    data: (source) => {
      const length = usualUnit('length', source.units)
      const curves = [curveOf(source, source.stations, 'outer ⌀', length, (s) => s.outer)]
      if (source.stations.some((s) => s.inner > 0)) {
        curves.push(curveOf(source, source.stations, 'inner ⌀', length, (s) => s.inner, true))
      }
      return { unit: length.name, curves }
    },
  },
  area: {
    words: 'section area',
    data: (source) => {
      const unit = usualUnit('area', source.units)
      const curve = curveOf(source, source.stations, 'area', unit, (s) => s.area)
      return { unit: unit.name, curves: [curve] }
    },
  },
  secondMoment: {
    words: 'second moment of area',
    data: (source) => {
      const { stations, cut, units } = source
      const unit = fourth(usualUnit('length', units))
      const name = cut ? 'least' : 'second moment'
      const least = curveOf(source, stations, name, unit, (s) => s.secondMoment)
      const most = cut && curveOf(source, cut, 'greatest', unit, (s) => s.mostMoment, true)
      return { unit: unit.name, curves: most ? [least, most] : [least] }
    },
  },
  mass: {
    words: 'cumulative mass',
    data: (source) => {
      const unit = usualUnit('mass', source.units)
      const { stations, density } = source
      const curve = curveOf(source, stations, 'mass', unit, (s) => s.volume * density)
      return { unit: unit.name, curves: [curve] }
    },
  },
  wall: {
    words: 'wall thickness',
    ofTurned: true,
    data: ({ body, stations, units }) => {
      const length = usualUnit('length', units)
      const span = (stations.at(-1)?.x ?? 0) - (stations[0]?.x ?? 0)
      const all = thicknessAlong(body.section, span / 200 || 1).flat()
      // A face that looks away from the axis is outside, one that looks at it within; ends are neither.
      const side = (isOutside: boolean): Curve['points'] =>
        all
          .filter(({ inward }) => (isOutside ? inward.y < -FLAT : inward.y > FLAT))
          .map(({ at, value }) => ({ place: at.x / length.size, value: value / length.size }))
          .sort((a, b) => a.place - b.place)
      const curves: Curve[] = [{ name: 'from outside', points: side(true), dashed: false }]
      const within = side(false)
      if (within.length > 0) curves.push({ name: 'from within', points: within, dashed: true })
      return { unit: length.name, curves }
    },
    table: ({ body, stations, units }, tell) => {
      const length = usualUnit('length', units)
      const span = (stations.at(-1)?.x ?? 0) - (stations[0]?.x ?? 0)
      const rows = thicknessAlong(body.section, span / 200 || 1).flat()
      return [
        [`place [${length.name}]`, `diameter [${length.name}]`, `thickness [${length.name}]`],
        ...rows.map(({ at, value }) => [at.x, 2 * at.y, value].map((v) => tell(v / length.size))),
      ]
    },
  },
  capacity: {
    words: 'capacity',
    ofVessels: true,
    data: ({ cavity, units }) => {
      const [length, unit] = [usualUnit('length', units), usualUnit('volume', units)]
      const points = (cavity ? capacityCurve(cavity, 400) : []).map(({ height, volume }) => ({
        place: ((cavity?.floor ?? 0) + height) / length.size,
        value: volume / unit.size,
      }))
      return { unit: unit.name, curves: [{ name: 'holds', points, dashed: false }] }
    },
    table: ({ cavity, units }, tell) => {
      const [length, volume] = [usualUnit('length', units), usualUnit('volume', units)]
      const rows = cavity ? capacityCurve(cavity, 400) : []
      return [
        [`height [${length.name}]`, `capacity [${volume.name}]`],
        ...rows.map((r) => [tell(r.height / length.size), tell(r.volume / volume.size)]),
      ]
    },
  },
} satisfies Readonly<Record<string, Chart>>

export type ChartKind = keyof typeof charts

/** Every chart there is, in the order of the list to choose from. */
export const CHARTS: Readonly<Record<ChartKind, Chart>> = charts

export const CHART_KINDS = Object.keys(charts) as ChartKind[]

/** The value of a curve at a place, between its points; undefined beyond its ends. */
export function valueAt(curve: Curve, place: number): number | undefined {
  const { points } = curve
  let [low, high] = [0, points.length - 1]
  const [first, last] = [points[0], points[high]]
  if (!first || !last || place < first.place || place > last.place) return undefined
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if ((points[middle]?.place ?? 0) <= place) low = middle
    else high = middle
  }
  const [a, b] = [points[low], points[high]]
  if (!a || !b) return undefined
  const share = b.place > a.place ? (place - a.place) / (b.place - a.place) : 0
  return a.value + share * (b.value - a.value)
}

/** The table behind a chart, a row for every place, with names and units above. */
export function chartTable(kind: ChartKind, source: ChartSource): (string | number)[][] {
  const { stations, cut, density, units } = source
  const length = usualUnit('length', units)
  // Triangles tell no more than this.
  const tell = (value: number): string => significant(value, cut ? 5 : 8)
  const own = CHARTS[kind].table?.(source, tell)
  if (own) return own
  const [area, mass] = [usualUnit('area', units), usualUnit('mass', units)]
  const moment = fourth(length)
  return [
    [
      `place [${length.name}]`,
      `outer diameter [${length.name}]`,
      `inner diameter [${length.name}]`,
      `section area [${area.name}]`,
      `${cut ? 'least ' : ''}second moment [${moment.name}]`,
      `cumulative mass [${mass.name}]`,
      ...(cut ? [`greatest second moment [${moment.name}]`] : []),
    ],
    ...stations.map((s, i) =>
      [
        s.x / length.size,
        s.outer / length.size,
        s.inner / length.size,
        s.area / area.size,
        s.secondMoment / moment.size,
        (s.volume * density) / mass.size,
        ...(cut ? [(cut[i]?.mostMoment ?? 0) / moment.size] : []),
      ].map(tell),
    ),
  ]
}

/** What the curves of a chart are at a place, in words, to so many digits. */
export function readout(data: ChartData, place: number, digits = 5): string {
  return data.curves
    .flatMap((curve) => {
      const value = valueAt(curve, place)
      if (value === undefined) return []
      return `${curve.name} ${Number(value.toPrecision(digits))} ${data.unit}`
    })
    .join(' · ')
}
