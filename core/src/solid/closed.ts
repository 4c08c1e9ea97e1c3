import { boundsOf, place, vec, type Place } from '../geometry'
import { once } from '../once'
import {
  combine,
  edgesOf,
  liesOnAxis,
  materialAlong,
  solidProperties,
  type Section,
  type SolidProperties,
} from '../section'
import type { LiftedProperties } from './lifted'
import type { SolidPlan, SolidTool } from './plan'
import { rectangleOf } from './tools'

/**
 * Figures of solids without the kernel, in closed form: of a full turn that has holes along its axis between plane faces,
 * whatever their heads and tips. What each hole takes away is a full turn about its own axis, so all of it is exact.
 */

/** What is nearer to something else than this is left to the kernel, in mm. */
const APART = 1e-4
/** Places that differ by less are one, in mm; others nearer than `NEAR` are left to the kernel. */
const SAME = 1e-9
const NEAR = 1e-5

/** A hole along the axis: the half-section of its tool and where it stands. */
interface Drill {
  readonly section: Section
  /** Of its axis, square to the part's. */
  readonly x: number
  readonly y: number
  /** Where its own axis begins along the part's, and which way it runs. */
  readonly z: number
  readonly way: 1 | -1
  readonly from: number
  readonly to: number
  readonly radius: number
}

/** What a hole takes away: figures about its own axis, and where that is. */
interface Removed {
  readonly solid: SolidProperties
  /** In mm²: of its own faces, less what it takes of those it opens. */
  readonly area: number
  readonly at: Place
}

/**
 * The figures of a plan, where they follow from sections alone.
 * @returns undefined where something of it is left to the kernel
 */
export const closedFigures = once((plan: SolidPlan): LiftedProperties | undefined => {
  const { base, ops } = plan
  if (base.regions.length !== 1 || ops.length === 0) return undefined
  const drills: Drill[] = []
  for (const op of ops) {
    if (op.kind !== 'combine' || op.effect !== 'cut') return undefined
    for (const tool of op.tools) {
      const drill = drillOf(tool)
      if (!drill) return undefined
      drills.push(drill)
    }
  }
  if (!areApart(drills)) return undefined
  const whole = solidProperties(base)
  if (!whole) return undefined
  const removed: Removed[] = []
  for (const drill of drills) {
    const taken = removedBy(drill, base)
    if (!taken) return undefined
    removed.push(...taken)
  }
  return left(whole, removed)
})

function drillOf(tool: SolidTool): Drill | undefined {
  if (tool.kind !== 'turned' || tool.turn) return undefined
  const { section, frame } = tool
  if (Math.abs(Math.abs(frame.z.z) - 1) > 1e-12 || section.regions.length === 0) return undefined
  const way = frame.z.z > 0 ? 1 : -1
  const boxes = edgesOf(section).map((e) => boundsOf(e.piece))
  const low = Math.min(...boxes.map((b) => b.min.x))
  const high = Math.max(...boxes.map((b) => b.max.x))
  const { x, y, z } = frame.at
  const ends = [z + way * low, z + way * high]
  return {
    ...{ section, x, y, z, way, from: Math.min(...ends), to: Math.max(...ends) },
    radius: Math.max(...boxes.map((b) => b.max.y)),
  }
}

/** Whether no two holes touch. */
const areApart = (drills: readonly Drill[]): boolean =>
  drills.every((a, i) =>
    drills.slice(i + 1).every((b) => {
      const isBeside = Math.hypot(a.x - b.x, a.y - b.y) > a.radius + b.radius + APART
      return isBeside || a.from > b.to + APART || b.from > a.to + APART
    }),
  )

/** What a hole takes of a full turn; undefined where it meets more than plane faces square to the axis. */
function removedBy(drill: Drill, base: Section): Removed[] | undefined {
  const far = Math.hypot(drill.x, drill.y)
  // In a bore, or about the axis itself, the kernel tells.
  if (far < APART) return undefined
  const [low, high] = [far - drill.radius - APART, far + drill.radius + APART]
  const [from, to] = [drill.from - APART, drill.to + APART]
  const corners = edgesOf(drill.section).map((e) => drill.z + drill.way * e.piece.from.x)
  for (const edge of edgesOf(base)) {
    const { min, max } = boundsOf(edge.piece)
    const isNear = max.x > from && min.x < to && max.y > low && min.y < high
    if (!isNear || liesOnAxis(edge)) continue
    const isSquare = edge.piece.kind === 'line' && max.x - min.x < SAME
    // It has to go all the way across what the hole may reach.
    if (!isSquare || min.y > Math.max(low, SAME) || max.y < high) return undefined
    const off = corners.map((x) => Math.abs(x - min.x))
    if (off.some((d) => d > SAME && d < NEAR)) return undefined
  }
  const taken: Removed[] = []
  for (const [a, b] of materialAlong(base, vec(from, far), vec(1, 0), to - from)) {
    const part = partBetween(drill, from + a, from + b)
    if (!part) return undefined
    taken.push(...part)
  }
  return taken
}

/** What of a hole lies between two planes square to the axis. */
function partBetween(drill: Drill, a: number, b: number): Removed[] | undefined {
  const { section, way, z } = drill
  const [x0, x1] = [way * (a - z), way * (b - z)].sort((p, q) => p - q) as [number, number]
  const slab = rectangleOf('slab', vec(x0, 0), vec(x1, drill.radius + 1))
  const cut = combine(section, slab, 'common')
  if (!cut) return undefined
  const solid = solidProperties(cut)
  if (!solid) return []
  const opened = edgesOf(cut).reduce((sum, { piece: { kind, from, to } }) => {
    const isFace =
      kind === 'line' &&
      Math.abs(from.x - to.x) < SAME &&
      [x0, x1].some((x) => Math.abs(from.x - x) < SAME)
    return isFace ? sum + Math.PI * Math.abs(from.y ** 2 - to.y ** 2) : sum
  }, 0)
  return [
    {
      ...{ solid, area: solid.area - 2 * opened },
      at: place(drill.x, drill.y, z + way * solid.centreX),
    },
  ]
}

/** What is left of a full turn. */
function left(whole: SolidProperties, removed: readonly Removed[]): LiftedProperties {
  const volume = removed.reduce((sum, r) => sum - r.solid.volume, whole.volume)
  const moment = (of: (at: Place) => number, first: number): number =>
    removed.reduce((sum, r) => sum - r.solid.volume * of(r.at), first)
  const centre = place(
    moment((p) => p.x, 0) / volume,
    moment((p) => p.y, 0) / volume,
    moment((p) => p.z, whole.volume * whole.centreX) / volume,
  )
  /** Second moments about the lines through the centre, by Steiner's theorem. */
  const about = (solid: SolidProperties, at: Place) => {
    const [x, y, z] = [at.x - centre.x, at.y - centre.y, at.z - centre.z]
    return {
      xx: solid.inertiaAcross + solid.volume * (y * y + z * z),
      yy: solid.inertiaAcross + solid.volume * (x * x + z * z),
      xy: solid.volume * x * y,
    }
  }
  const start = about(whole, place(0, 0, whole.centreX))
  const { xx, yy, xy } = removed.reduce((sum, r) => {
    const one = about(r.solid, r.at)
    return { xx: sum.xx - one.xx, yy: sum.yy - one.yy, xy: sum.xy - one.xy }
  }, start)
  return {
    ...{ volume, centre, pieces: 1, centreX: centre.z },
    area: removed.reduce((sum, r) => sum + r.area, whole.area),
    inertiaAxis: removed.reduce(
      (sum, { solid, at }) => sum - solid.inertiaAxis - solid.volume * (at.x ** 2 + at.y ** 2),
      whole.inertiaAxis,
    ),
    inertiaAcross: (xx + yy) / 2 + Math.hypot((xx - yy) / 2, xy),
    ...{ from: whole.from, to: whole.to, radius: whole.radius },
  }
}
