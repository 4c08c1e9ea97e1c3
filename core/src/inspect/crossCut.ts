import {
  boundsOf,
  cross,
  distance,
  dot,
  gauss,
  inFrame,
  line,
  nearestOn,
  parameterOfDirection,
  place,
  pointAt,
  radiusOf,
  reversed,
  secondOf,
  speedAt,
  tangentAt,
  vec,
  type Frame,
  type Piece,
  type Vec,
} from '../geometry'
import {
  combine,
  edgesOf,
  extentOf,
  materialAlong,
  sectionAt,
  type Section,
  type SectionEdge,
} from '../section'
import { circleOf, type PrismTool, type SolidPlan, type SolidTool, type TurnedTool } from '../solid'
import { lengthwise, ringsAt } from './along'

/** What planes square to the part's axis cut of something: sections in the part's X and Y. */
export interface Cuts {
  /** Where along the axis it begins, ends, or changes otherwise than evenly; in mm. */
  readonly breaks: readonly number[]
  /** Undefined where nothing is. */
  readonly at: (x: number) => Section | undefined
  /** Whether it is the same all along between two places that have no break between them. */
  readonly isSteady: (from: number, to: number) => boolean
}

/** What they cut of a solid. */
export interface PlanCuts extends Cuts {
  /** From where to where it may reach along the axis. */
  readonly extent: readonly [number, number]
  /** How many things are joined to it and taken from it. */
  readonly tools: number
}

/**
 * What planes square to the axis cut of a solid, by lines, arcs and free curves: exact but for rounding. Undefined where
 * something of it cuts to other curves, or is found by the kernel alone.
 */
export function cutsOf({ base, ops }: SolidPlan): PlanCuts | undefined {
  const tools: { readonly cuts: Cuts; readonly effect: 'add' | 'cut' }[] = []
  for (const op of ops) {
    if (op.kind !== 'combine' || op.effect === 'common') return undefined
    for (const tool of op.tools) {
      const cuts = toolCuts(tool)
      if (!cuts) return undefined
      tools.push({ cuts, effect: op.effect })
    }
  }
  const whole = turnedCuts(base, 0, 0, (x) => x)
  const isAdded = tools.some((t) => t.effect === 'add')
  const reaching = isAdded ? [whole, ...tools.map((t) => t.cuts)] : [whole]
  const ends = reaching.flatMap((c) => c.breaks)
  return {
    extent: [Math.min(...ends), Math.max(...ends)],
    tools: tools.length,
    breaks: [whole, ...tools.map((t) => t.cuts)].flatMap((c) => c.breaks),
    isSteady: (from, to) =>
      whole.isSteady(from, to) && tools.every((t) => t.cuts.isSteady(from, to)),
    at: (x) => {
      let section: Section | undefined = whole.at(x) ?? NOTHING
      for (const { cuts, effect } of tools) {
        const tool = cuts.at(x)
        if (tool) section = section && combine(section, tool, effect)
      }
      return section
    },
  }
}

const NOTHING: Section = { regions: [] }
/** Directions this near to one another are one. */
const ALIGNED = 1e-12

function toolCuts(tool: SolidTool): Cuts | undefined {
  if (tool.kind === 'turned') {
    if (tool.turn) return undefined
    const { at, z } = tool.frame
    if (Math.abs(z.z) > 1 - ALIGNED) {
      return turnedCuts(tool.section, at.x, at.y, (x) => z.z * (x - at.z), at.z)
    }
    return Math.abs(z.z) < ALIGNED ? crossCuts(tool) : undefined
  }
  if (tool.kind !== 'prism' || tool.draft) return undefined
  const { z } = tool.frame
  if (Math.abs(z.z) > 1 - ALIGNED) return alongCuts(tool)
  return Math.abs(z.z) < ALIGNED ? outCuts(tool) : undefined
}

/** Of a full turn about an axis along the part's. @param own from a place on the part's axis to one on its own */
function turnedCuts(
  section: Section,
  x: number,
  y: number,
  own: (x: number) => number,
  begin = 0,
): Cuts {
  const edges = edgesOf(section)
  const way = own(1) > own(0) ? 1 : -1
  const radiiAt = (s: number): number[] => ringsAt(section, s).flat()
  return {
    breaks: lengthwise(section).breaks.map((s) => begin + way * s),
    at: (place) => ringsAbout(ringsAt(section, own(place)), x, y),
    isSteady: (from, to) => {
      const [one, other] = [radiiAt(own(from)), radiiAt(own(to))]
      const [low, high] = [Math.min(own(from), own(to)), Math.max(own(from), own(to))]
      return isLike(one, other) && !edges.some(isBentBetween(low, high))
    },
  }
}

const isBentBetween =
  (low: number, high: number) =>
  ({ piece }: SectionEdge): boolean => {
    const { min, max } = boundsOf(piece)
    return piece.kind !== 'line' && max.x > low && min.x < high
  }

/** Of an outline drawn out along the axis. */
function alongCuts({ outline, frame, from, to }: PrismTool): Cuts {
  const image = (p: Vec): Vec => {
    const at = inFrame(frame, place(p.x, p.y, 0))
    return vec(at.x, at.y)
  }
  const section = sectionAt(outline, image, frame.z.z < 0)
  const ends = [from, to].map((s) => frame.at.z + frame.z.z * s)
  const [low, high] = [Math.min(...ends), Math.max(...ends)]
  return {
    breaks: ends,
    at: (x) => (x > low && x < high ? section : undefined),
    isSteady: () => true,
  }
}

/** Of an outline drawn out square to the axis: what a line cuts of it, as far as it is drawn out. */
function outCuts({ outline, frame, from, to }: PrismTool): Cuts {
  // The axis as it runs in the outline's own plane.
  const axis = vec(frame.x.z, secondOf(frame).z)
  const lying = sectionAt(outline, (p) => vec(dot(axis, p), cross(axis, p)), false)
  const edges = edgesOf(lying)
  const boxes = edges.map((e) => boundsOf(e.piece))
  const low = Math.min(...boxes.map((b) => b.min.y)) - 1
  const reach = Math.max(...boxes.map((b) => b.max.y)) + 1 - low
  const [begin, end] = extentOf(lying)
  const stretchesAt = (x: number): (readonly [number, number])[] => {
    const u = x - frame.at.z
    if (u <= begin || u >= end) return []
    const found = materialAlong(lying, vec(u, low), vec(0, 1), reach)
    return found.map(([a, b]) => [low + a, low + b] as const)
  }
  return {
    breaks: boxes.flatMap((b) => [b.min.x, b.max.x]).map((u) => frame.at.z + u),
    at: (x) => {
      const u = x - frame.at.z
      const corner = (v: number, w: number): Vec => {
        const own = vec(u * axis.x - v * axis.y, u * axis.y + v * axis.x)
        const at = inFrame(frame, place(own.x, own.y, w))
        return vec(at.x, at.y)
      }
      return together(
        stretchesAt(x).map(([a, b]) => [
          corner(a, from),
          corner(b, from),
          corner(b, to),
          corner(a, to),
        ]),
      )
    },
    isSteady: (a, b) =>
      !edges.some(isBentBetween(a - frame.at.z, b - frame.at.z)) &&
      isLike(stretchesAt(a).flat(), stretchesAt(b).flat()),
  }
}

/** Of a full turn of cylinders about an axis square to the part's: rectangles. */
function crossCuts({ section, frame }: TurnedTool): Cuts | undefined {
  const isPlain = ({ piece: { kind, from, to } }: SectionEdge): boolean =>
    kind === 'line' && (Math.abs(from.x - to.x) < 1e-9 || Math.abs(from.y - to.y) < 1e-9)
  if (!edgesOf(section).every(isPlain)) return undefined
  const { breaks } = lengthwise(section)
  const stretches = breaks.slice(1).flatMap((to, i) => {
    const from = breaks[i] ?? to
    return ringsAt(section, (from + to) / 2).map((ring) => ({ from, to, ring }))
  })
  // What is hollow cuts to two rectangles side by side: no drill does.
  if (stretches.some(({ ring }) => ring[0] > 0)) return undefined
  const radii = [0, ...stretches.map(({ ring }) => ring[1])]
  return {
    breaks: radii.flatMap((r) => [frame.at.z - r, frame.at.z + r]),
    at: (x) => {
      const off = x - frame.at.z
      const boxes = stretches.flatMap(({ from, to, ring }) => {
        const half = ring[1] ** 2 - off ** 2
        return half > 0 ? [crossBox(frame, from, to, Math.sqrt(half))] : []
      })
      return together(boxes)
    },
    isSteady: (from, to) => radii.every((r) => !overlaps(from, to, frame.at.z, r)),
  }
}

const overlaps = (from: number, to: number, middle: number, radius: number): boolean =>
  radius > 0 && Math.max(from, middle - radius) < Math.min(to, middle + radius)

function crossBox({ at, z }: Frame, from: number, to: number, half: number): Vec[] {
  const corner = (s: number, w: number): Vec =>
    vec(at.x + s * z.x - w * z.y, at.y + s * z.y + w * z.x)
  return [corner(from, -half), corner(to, -half), corner(to, half), corner(from, half)]
}

/** Rings of material about a place. */
function ringsAbout(
  rings: readonly (readonly [number, number])[],
  x: number,
  y: number,
): Section | undefined {
  const circle = (radius: number): readonly SectionEdge[] =>
    edgesOf(sectionAt(circleOf('cut', 2 * radius), (p) => vec(p.x + x, p.y + y), false))
  const regions = rings
    .filter(([inner, outer]) => outer > inner)
    .map(([inner, outer]) => ({
      outer: circle(outer),
      holes: inner > 0 ? [turnedBack(circle(inner))] : [],
    }))
  return regions.length > 0 ? { regions } : undefined
}

const turnedBack = (loop: readonly SectionEdge[]): SectionEdge[] =>
  [...loop].reverse().map((e) => ({ ...e, piece: reversed(e.piece) }))

/** Polygons of four corners as one section; undefined where there is none. */
function together(boxes: readonly (readonly Vec[])[]): Section | undefined {
  let all: Section | undefined
  for (const corners of boxes) {
    const loop = corners.map((p, i): SectionEdge => ({
      piece: line(p, corners[(i + 1) % 4] ?? p),
      name: { step: 'cut', entity: `side${i}`, role: 'made' },
    }))
    const [a, b, c] = corners
    if (!a || !b || !c) continue
    const isBackwards = (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x) < 0
    const box = { regions: [{ outer: isBackwards ? turnedBack(loop) : loop, holes: [] }] }
    all = all ? combine(all, box, 'add') : box
  }
  return all
}

const isLike = (one: readonly number[], other: readonly number[]): boolean =>
  one.length === other.length && one.every((v, i) => Math.abs(v - (other[i] ?? 0)) < 1e-9)

/** What a cross-section comes to. */
export interface CutFigures {
  /** in mm² */
  readonly area: number
  /** Second moments of area about lines through the centroid, in mm⁴. */
  readonly least: number
  readonly most: number
  /** Distances from the axis in mm; nought inside where the axis lies in material. */
  readonly inner: number
  readonly outer: number
}

/** Area, moments and reach of a section in the part's X and Y, by Green's theorem along its edges. */
export function figuresOfCut(section: Section): CutFigures {
  let [area, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0]
  let [inner, outer] = [Infinity, 0]
  for (const { piece } of edgesOf(section)) {
    for (const [from, to] of pieceParts(piece)) {
      gauss(from, to, (t, weight) => {
        const { x, y } = pointAt(piece, t)
        const way = tangentAt(piece, t)
        const dy = way.y * speedAt(piece, t) * weight
        const dx = way.x * speedAt(piece, t) * weight
        area += x * dy
        sx += (x * x * dy) / 2
        sy -= (y * y * dx) / 2
        sxx += (x ** 3 * dy) / 3
        syy -= (y ** 3 * dx) / 3
        sxy += (x * x * y * dy) / 2
      })
    }
    const [near, far] = fromAxis(piece)
    inner = Math.min(inner, near)
    outer = Math.max(outer, far)
  }
  if (!(area > 0)) return { area: 0, least: 0, most: 0, inner: 0, outer: 0 }
  const [xx, yy, xy] = [sxx - sx ** 2 / area, syy - sy ** 2 / area, sxy - (sx * sy) / area]
  const [middle, spread] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)]
  const isSolid = materialAlong(section, vec(0, 0), vec(1, 0), AXIS_REACH).some(([a]) => a === 0)
  return {
    ...{ area, least: Math.max(0, middle - spread), most: middle + spread },
    ...{ inner: isSolid ? 0 : inner, outer },
  }
}

/** How far out from the axis it is looked whether material lies on it, in mm. */
const AXIS_REACH = 1e-3

/** Arcs by quarters, so that a few places tell them to rounding. */
const pieceParts = (piece: Piece): (readonly [number, number])[] =>
  piece.kind === 'line' ? [[0, 1]] : [0, 1, 2, 3].map((k) => [k / 4, (k + 1) / 4] as const)

/** The least and the greatest distance of a piece from the axis; of free curves the greatest by many places. */
function fromAxis(piece: Piece): [number, number] {
  const axis = vec(0, 0)
  const near = nearestOn(piece, axis).distance
  let far = Math.max(distance(piece.from, axis), distance(piece.to, axis))
  if (piece.kind === 'arc') {
    const out = distance(piece.centre, axis)
    const t = out > 0 ? parameterOfDirection(piece, piece.centre) : undefined
    if (t !== undefined) far = out + radiusOf(piece)
  } else if (piece.kind === 'cubic') {
    for (let i = 1; i < MANY; i++) far = Math.max(far, distance(pointAt(piece, i / MANY), axis))
  }
  return [near, far]
}

const MANY = 64
