import type { SolidPlan } from '../solid'
import { cutsOf, figuresOfCut, type CutFigures } from './crossCut'
import { ASIDE, cumulated, type SlicedStation } from './sliced'

/** More sections than this are not made for one chart, each counted as often as it has tools. */
const MOST_SECTIONS = 3000

/**
 * Stations along a solid by its exact cross-sections, with two at every place where something begins or ends.
 * Where nothing changes between two such places, there is one section for all.
 * @param volume of the solid in mm³, which the cumulated volumes end in
 * @param count about how many stations
 * @returns undefined where something of the solid has no exact section, or there would be too many of them
 */
export function stationsOfPlan(
  plan: SolidPlan,
  volume: number,
  count: number,
): SlicedStation[] | undefined {
  const cuts = cutsOf(plan)
  if (!cuts) return undefined
  const whole = cuts.extent
  const breaks = apart(
    cuts.breaks.filter((x) => x >= whole[0] && x <= whole[1]),
    whole,
  )
  const length = whole[1] - whole[0]
  const aside = length * ASIDE
  const places: number[] = []
  const figures: CutFigures[] = []
  let left = MOST_SECTIONS
  for (const [i, to] of breaks.slice(1).entries()) {
    const from = breaks[i] ?? to
    const [low, high] = [from + aside, to - aside]
    const steps = Math.max(2, Math.round((count * (to - from)) / length))
    const steady = cuts.isSteady(low, high)
    left -= cuts.tools * (steady ? 1 : steps + 1)
    if (left < 0) return undefined
    let same: CutFigures | undefined
    for (let k = 0; k <= steps; k++) {
      const x = from + ((to - from) * k) / steps
      if (!steady || !same) {
        const section = cuts.at(Math.min(high, Math.max(low, x)))
        if (!section) return undefined
        same = figuresOfCut(section)
      }
      places.push(x)
      figures.push(same)
    }
  }
  const areas = Float64Array.from(figures, (f) => f.area)
  const volumes = cumulated(places, areas)
  const scale = (volumes.at(-1) ?? 0) > 0 ? volume / (volumes.at(-1) ?? 1) : 1
  return places.map((x, i): SlicedStation => {
    const { area, least, most, inner, outer } = figures[i] ?? NONE
    return {
      ...{ x, area, secondMoment: least, mostMoment: most },
      ...{ inner: 2 * inner, outer: 2 * outer, volume: (volumes[i] ?? 0) * scale },
    }
  })
}

const NONE: CutFigures = { area: 0, least: 0, most: 0, inner: 0, outer: 0 }

/** Places in order, those that all but coincide once, with both ends. */
function apart(places: readonly number[], [from, to]: readonly [number, number]): number[] {
  const near = (to - from) * 10 * ASIDE
  const inside = places.filter((x) => x > from + near && x < to - near).sort((a, b) => a - b)
  const kept: number[] = [from]
  for (const x of inside) if (x - (kept.at(-1) ?? x) > near) kept.push(x)
  return [...kept, to]
}
