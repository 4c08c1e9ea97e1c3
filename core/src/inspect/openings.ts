import {
  asideOf,
  boundsOf,
  dotPlaces,
  nearestOn,
  secondOf,
  vec,
  windingAround,
  type Place,
  type Vec,
} from '../geometry'
import { aboveAxis, combine, edgesOf, extentOf, sectionAt, type Section } from '../section'
import {
  rectangleOf,
  type PrismTool,
  type SolidOp,
  type SolidPlan,
  type SolidTool,
  type TurnedTool,
} from '../solid'

/** Where liquid leaves a room: how far along the axis it rises until it does, and the step that opened it. */
export interface Opening {
  readonly level: number
  readonly step: string
}

export interface Openings {
  readonly all: readonly Opening[]
  /** Whether all that was done to the full turn is known to leave the room else as it is. */
  readonly isWhole: boolean
}

/**
 * Where holes, slots and notches open a room of a vessel that stands upright. Each tool is looked at in the half-plane: it
 * opens the room where it meets both the room and what lies outside, at the higher of the lowest places of the two.
 * @param outside all that is neither the body nor the room
 */
export function openingsOf(plan: SolidPlan, room: Section, outside: Section): Openings {
  const all: Opening[] = []
  let isWhole = true
  for (const op of plan.ops) {
    if (leavesRoomFree(op)) continue
    const tools = op.kind === 'combine' && op.effect === 'cut' ? op.tools : undefined
    isWhole &&= tools !== undefined
    /** By what they are in the half-plane: the holes of a circle are all alike there. */
    const known = new Map<string, Met>()
    for (const tool of tools ?? []) {
      const key = likeness(tool)
      const met = (key === undefined ? undefined : known.get(key)) ?? metBy(tool, room, outside)
      if (key !== undefined) known.set(key, met)
      const { shadows, inside, beyond } = met
      if (inside !== undefined && beyond !== undefined) {
        all.push({ level: Math.max(inside, beyond), step: op.step })
      } else if (!shadows || inside !== undefined) {
        // What is cut into a wall from inside alone holds some more.
        isWhole = false
      }
    }
  }
  return { all, isWhole }
}

/** Where a tool is in the half-plane, and the lowest places at which it meets a room and what is outside. */
interface Met {
  readonly shadows: readonly Section[] | undefined
  readonly inside: number | undefined
  readonly beyond: number | undefined
}

function metBy(tool: SolidTool, room: Section, outside: Section): Met {
  const shadows = shadowsOf(tool)
  const [inside, beyond] = [room, outside].map((s) => shadows && lowestIn(s, shadows))
  return { shadows, inside, beyond }
}

/** What holes that are the same in the half-plane have in common; undefined of other tools. */
function likeness(tool: SolidTool): string | undefined {
  if (tool.kind !== 'turned' || tool.turn) return undefined
  const { at, z } = tool.frame
  const off = [isUpright(z) ? Math.hypot(at.x, at.y) : dotPlaces(at, z), dotPlaces(at, asideOf(z))]
  const lies = [...off, at.z, z.z].map((x) => x.toFixed(9))
  return JSON.stringify([lies, edgesOf(tool.section).map((e) => e.piece)])
}

/** Whether something is put on that stays out of what it is told to leave free: a handle, a spout. */
const leavesRoomFree = (op: SolidOp): boolean =>
  op.kind === 'combine' &&
  op.effect === 'add' &&
  op.tools.every((t) => t.kind === 'swept' && t.without.regions.length > 0)

/** The lowest place along the axis at which anything of a section is met. */
function lowestIn(section: Section, shadows: readonly Section[]): number | undefined {
  const met = shadows.flatMap((shadow) => {
    const common = combine(section, shadow, 'common')
    return common && common.regions.length > 0 ? [extentOf(common)[0]] : []
  })
  return met.length > 0 ? Math.min(...met) : undefined
}

/** Where a tool is in the half-plane, at its lowest at least; undefined of what is not known. */
function shadowsOf(tool: SolidTool): Section[] | undefined {
  if (tool.kind === 'turned' && !tool.turn) return shadowsOfHole(tool)
  if (tool.kind !== 'prism' || tool.draft) return undefined
  return isUpright(tool.frame.z) ? drawnAlong(tool) : drawnOut(tool)
}

const isUpright = (way: Place): boolean => Math.abs(way.z) > 1 - 1e-12
const isLevel = (way: Place): boolean => Math.abs(way.z) < 1e-12

/** A hole along the axis or across it: its half-section on both sides of its own axis. */
function shadowsOfHole({ section, frame }: TurnedTool): Section[] | undefined {
  const { at, z } = frame
  if (isUpright(z)) {
    const far = Math.hypot(at.x, at.y)
    return [1, -1].flatMap((side) =>
      shadow(section, ({ x, y }) => vec(at.z + z.z * x, far + side * y)),
    )
  }
  if (!isLevel(z) || Math.abs(dotPlaces(at, asideOf(z))) > 1e-9) return undefined
  const start = dotPlaces(at, z)
  return [1, -1].flatMap((half) =>
    [1, -1].flatMap((side) =>
      shadow(section, ({ x, y }) => vec(at.z + half * y, side * (start + x))),
    ),
  )
}

/** An outline that is drawn out along the axis: from the nearest of it to the farthest. */
function drawnAlong({ outline, frame, from, to }: PrismTool): Section[] {
  const second = secondOf(frame)
  const pieces = edgesOf(outline).map((e) => e.piece)
  // The part’s axis in the outline’s own directions.
  const axis = vec(-dotPlaces(frame.at, frame.x), -dotPlaces(frame.at, second))
  const near = Math.min(...pieces.map((p) => nearestOn(p, axis).distance))
  const far = Math.max(
    ...pieces.flatMap((p) => [p.from, p.to]).map((p) => Math.hypot(p.x - axis.x, p.y - axis.y)),
  )
  const [low, high] = spanOf([from, to].map((z) => frame.at.z + frame.z.z * z))
  return [rectangleOf('opening', vec(low, holds(outline, axis) ? 0 : near), vec(high, far))]
}

/** An outline that is drawn out square to the axis, on both sides of a plane through it; undefined where it is not. */
function drawnOut({ outline, frame, from, to }: PrismTool): Section[] | undefined {
  if (!isLevel(frame.z) || !isUpright(frame.x)) return undefined
  const boxes = edgesOf(outline).map((e) => boundsOf(e.piece))
  const off = dotPlaces(frame.at, secondOf(frame))
  const [left, right] = spanOf(boxes.flatMap((b) => [b.min.y + off, b.max.y + off]))
  if (left > 0 || right < 0) return undefined
  const start = dotPlaces(frame.at, frame.z)
  const [low, high] = spanOf(
    boxes.flatMap((b) => [b.min.x, b.max.x].map((x) => frame.at.z + frame.x.z * x)),
  )
  const [inner, outer] = spanOf([start + from, start + to])
  const [near, far] = spanOf([inner, outer].map(Math.abs))
  return [rectangleOf('opening', vec(low, inner < 0 && outer > 0 ? 0 : near), vec(high, far))]
}

const spanOf = (all: readonly number[]): readonly [number, number] => [
  Math.min(...all),
  Math.max(...all),
]

/** Whether a place lies inside an outline. */
const holds = (outline: Section, at: Vec): boolean =>
  windingAround(
    at,
    edgesOf(outline).map(({ piece }) => ({ piece, times: 1 })),
  ) > 0

/** A section at another place, as far as it lies above the axis. */
function shadow(section: Section, put: (p: Vec) => Vec): Section[] {
  const origin = put(vec(0, 0))
  const [x, y] = [put(vec(1, 0)), put(vec(0, 1))]
  const mirrors = (x.x - origin.x) * (y.y - origin.y) < (x.y - origin.y) * (y.x - origin.x)
  const above = aboveAxis(sectionAt(section, put, mirrors), 'opening')
  return above && above.regions.length > 0 ? [above] : []
}
