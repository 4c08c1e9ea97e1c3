import { boundsOf, place, vec } from '../../geometry'
import { once } from '../../once'
import { combine, edgesOf, solidProperties, type Section } from '../../section'
import type { TurnedTool } from '../plan'
import { rectangleOf } from '../tools'
import { stretchesBetweenPlanes } from './between'
import { APART, SAME, turnedSums, type Reach, type Taken } from './taken'

/** A hole along the axis: the half-section of its tool and where it stands. */
export interface Drill {
  readonly section: Section
  /** Of its axis, square to the part's. */
  readonly x: number
  readonly y: number
  /** Where its own axis begins along the part's, and which way it runs. */
  readonly z: number
  readonly way: 1 | -1
  readonly reach: Reach
  readonly radius: number
}

/**
 * What a hole along the axis takes between plane faces, whatever its head and tip: full turns about its own axis, so all
 * of it is exact. Undefined where it is something else, or meets more than plane faces.
 */
export function drilled(tool: TurnedTool, base: Section): Taken[] | undefined {
  const found = drillIn(tool, base)
  if (!found) return undefined
  const taken: Taken[] = []
  for (const { part, between } of found.parts) {
    if (!part) return undefined
    taken.push(...takenOf(found.drill, part, ...between))
  }
  return taken
}

/** A hole, and what of its section lies between which plane faces; undefined where that cannot be told. */
export interface DrillIn {
  readonly drill: Drill
  readonly parts: readonly {
    readonly between: readonly [number, number]
    readonly part: Section | undefined
  }[]
}

/** The hole of a tool, and what it meets; undefined as above. Figures and picture both ask for it. */
export const drillIn = (tool: TurnedTool, base: Section): DrillIn | undefined =>
  drillsIn(base)(tool)

const drillsIn = once((base: Section) =>
  once((tool: TurnedTool): DrillIn | undefined => {
    const drill = drillOf(tool)
    // In a bore, or about the axis itself, the kernel tells.
    if (!drill || Math.hypot(drill.x, drill.y) < APART) return undefined
    const ends = edgesOf(drill.section).map((e) => drill.z + drill.way * e.piece.from.x)
    const met = stretchesBetweenPlanes(base, drill.reach, ends)
    return (
      met && {
        drill,
        parts: met.map((between) => ({ between, part: partBetween(drill, ...between) })),
      }
    )
  }),
)

function drillOf(tool: TurnedTool): Drill | undefined {
  const { section, frame } = tool
  if (tool.turn || Math.abs(Math.abs(frame.z.z) - 1) > 1e-12 || section.regions.length === 0) {
    return undefined
  }
  const way = frame.z.z > 0 ? 1 : -1
  const boxes = edgesOf(section).map((e) => boundsOf(e.piece))
  const along = boxes.flatMap((b) => [b.min.x, b.max.x].map((at) => frame.at.z + way * at))
  const radius = Math.max(...boxes.map((b) => b.max.y))
  const { x, y, z } = frame.at
  const far = Math.hypot(x, y)
  const reach: Reach = {
    ...{ from: Math.min(...along), to: Math.max(...along) },
    ...{ low: far - radius, high: far + radius, round: { x, y, radius } },
    ...{ angle: Math.atan2(y, x), half: far > radius ? Math.asin(radius / far) : Math.PI },
  }
  return { section, x, y, z, way, reach, radius }
}

/** Where planes square to the axis are in the directions of a hole’s own section. */
const slabIn = ({ way, z }: Drill, a: number, b: number): [number, number] =>
  way > 0 ? [a - z, b - z] : [z - b, z - a]

/** What of a hole’s section lies between two planes square to the axis. */
function partBetween(drill: Drill, a: number, b: number): Section | undefined {
  const [x0, x1] = slabIn(drill, a, b)
  const slab = rectangleOf('slab', vec(x0, 0), vec(x1, drill.radius + 1))
  return combine(drill.section, slab, 'common')
}

function takenOf(drill: Drill, cut: Section, a: number, b: number): Taken[] {
  const { way, z, reach } = drill
  const [x0, x1] = slabIn(drill, a, b)
  const solid = solidProperties(cut)
  if (!solid) return []
  const opened = edgesOf(cut).reduce((sum, { piece: { kind, from, to } }) => {
    const isFace =
      kind === 'line' &&
      Math.abs(from.x - to.x) < SAME &&
      [x0, x1].some((x) => Math.abs(from.x - x) < SAME)
    return isFace ? sum + Math.PI * Math.abs(from.y ** 2 - to.y ** 2) : sum
  }, 0)
  const at = place(drill.x, drill.y, z + way * solid.centreX)
  return [{ sums: turnedSums(solid, at), area: solid.area - 2 * opened, reach }]
}
