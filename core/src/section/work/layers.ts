import {
  add,
  arc,
  cross,
  curvatureAt,
  distance,
  dot,
  leftNormal,
  lengthOf,
  line,
  mirroredInAxis,
  parallelsTo,
  pointAt,
  reversed,
  scale,
  stretch,
  tangentAt,
  turnsBeside,
  type Piece,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { aboveAxis, diagonalOf } from './combine'
import { turnBetween } from './corners'
import { areaWithin } from '../engine/nesting'
import { overlay } from '../engine/overlay'
import type { Outline } from '../engine/split'
import {
  edgeKey,
  edgesOf,
  liesOnAxis,
  loopsOf,
  madeFrom,
  type EdgeName,
  type Loop,
  type Section,
  type SectionEdge,
} from '../types'

/** Corners of what is laid round an outside corner: to a point, or with one distance all round. */
export type LayerCorners = 'sharp' | 'round'

/** Where a layer lies: on the material's side of its outline, or on the other. */
export type LayerSide = 'inside' | 'outside'

interface Layers {
  readonly side: LayerSide
  readonly corners: LayerCorners
  /** Thickness in mm of the layer along an edge; 0 for none. */
  readonly thickness: (name: EdgeName) => number
  readonly step: string
}

/** A mitre may reach this many times the thickness; beyond, the corner is made round. */
const LONGEST_MITRE = 4

/** A wall that runs on almost straight into an open face ends square to itself. */
const NEARLY_STRAIGHT = (170 * Math.PI) / 180

/**
 * What lies within a thickness of the outline: one patch along every edge and one round every corner
 * that leaves a gap, each a closed run counter-clockwise. They overlap as they please.
 */
function layersAlong(section: Section, layers: Layers): Outline {
  return loopsOf(section).flatMap((loop) => {
    const run = layers.side === 'inside' ? loop : turnedBack(loop)
    return run.flatMap((edge, i) => {
      const next = beyondAxis(edge, run[(i + 1) % run.length] ?? edge)
      const before = beyondAxis(edge, run[(i + run.length - 1) % run.length] ?? edge)
      return [...patchAlong(edge, before, next, layers), ...patchAround(edge, next, layers)]
    })
  })
}

/**
 * What follows an edge at a corner. The axis is no side of the solid but where it is mirrored: an edge that
 * comes to it goes on in its own mirror image.
 */
const beyondAxis = (edge: SectionEdge, neighbour: SectionEdge): SectionEdge =>
  liesOnAxis(neighbour) && !liesOnAxis(edge)
    ? { ...edge, piece: mirroredInAxis(edge.piece) }
    : neighbour

function turnedBack(loop: Loop): Loop {
  return [...loop].reverse().map((e) => ({ ...e, piece: reversed(e.piece) }))
}

const thicknessOf = (edge: SectionEdge, { thickness }: Layers): number =>
  liesOnAxis(edge) ? 0 : thickness(edge.name)

function patchAlong(
  edge: SectionEdge,
  before: SectionEdge,
  next: SectionEdge,
  layers: Layers,
): SectionEdge[] {
  const by = thicknessOf(edge, layers)
  if (by <= 0) return []
  const { piece, name } = edge
  const offset = madeFrom(layers.step, 'offset', name)
  const rim = madeFrom(layers.step, 'rim', name)
  const side = (from: Vec, to: Vec): SectionEdge => ({ piece: line(from, to), name: rim })
  const runs = piece.kind === 'cubic' ? turnsBeside(piece, by) : [{ of: piece, tight: false }]
  const patch = runs.flatMap((run) => {
    if (run.tight) return patchInTightTurn(run.of, by, offset, rim)
    return parallelsTo(run.of, by).flatMap(({ of, piece: top, tight }) =>
      tight
        ? patchInTightTurn(of, by, offset, rim)
        : [
            { piece: of, name: offset },
            side(of.to, top.to),
            { piece: reversed(top), name: offset },
            side(top.from, of.from),
          ],
    )
  })
  const startsOpen = thicknessOf(before, layers) <= 0
  const endsOpen = thicknessOf(next, layers) <= 0
  if (startsOpen)
    patch.push(...runOn(reversed(piece), turnBetween(before.piece, piece), by, offset, -1))
  if (endsOpen) patch.push(...runOn(piece, turnBetween(piece, next.piece), by, offset, 1))
  return patch
}

/** How far a part of a tight turn may turn, in radians, to be patched over by straight sides. */
const TIGHT_PART = 0.25

/** A tight turn is halved so often at most. */
const MOST_HALVINGS = 24

/**
 * Along a turn tighter than the layer is thick: to the centre of an arc; along a cubic a little beyond
 * its centres of curvature, but not beyond the thickness, so that no gap is left between parts.
 */
function patchInTightTurn(
  piece: Piece,
  by: number,
  name: EdgeName,
  rim: EdgeName,
  depth = 0,
): SectionEdge[] {
  const side = (from: Vec, to: Vec): SectionEdge => ({ piece: line(from, to), name: rim })
  if (piece.kind === 'line') return []
  if (piece.kind === 'arc') {
    const { centre, from, to } = piece
    return [{ piece, name }, side(to, centre), side(centre, from)]
  }
  const [u, v] = [tangentAt(piece, 0), tangentAt(piece, 1)]
  const isSharp = Math.abs(Math.atan2(cross(u, v), dot(u, v))) > TIGHT_PART
  // A cusp stays sharp however often it is halved; next to it there is nothing left to patch.
  if (isSharp && (depth >= MOST_HALVINGS || lengthOf(piece) <= 8 * VERTEX_TOLERANCE)) return []
  if (isSharp) {
    const middle = pointAt(piece, 0.5)
    return [stretch(piece, piece.from, middle), stretch(piece, middle, piece.to)].flatMap((half) =>
      patchInTightTurn(half, by, name, rim, depth + 1),
    )
  }
  const radius = Math.max(...[0, 0.5, 1].map((t) => 1 / Math.abs(curvatureAt(piece, t))))
  const reach = Math.min(by, 1.02 * radius)
  const tip = (t: number): Vec => add(pointAt(piece, t), scale(leftNormal(piece, t), reach))
  // The normals at both ends cross before they get there.
  return [{ piece, name }, side(piece.to, tip(0)), side(tip(0), tip(1)), side(tip(1), piece.from)]
}

/** Beside an open face that leans away, a wall goes on straight until it reaches the face's plane. */
function runOn(
  piece: Piece,
  turn: number,
  by: number,
  name: EdgeName,
  side: 1 | -1,
): SectionEdge[] {
  const inner = Math.PI - turn
  if (inner <= Math.PI / 2 + 1e-9 || inner >= NEARLY_STRAIGHT) return []
  const along = scale(tangentAt(piece, 1), by * Math.tan(inner - Math.PI / 2))
  const across = scale(leftNormal(piece, 1), side * by)
  const corner = piece.to
  return counterClockwise(
    [corner, add(corner, along), add(add(corner, along), across), add(corner, across)],
    () => name,
  )
}

/** At a corner where the layers of two edges leave a gap between them. */
function patchAround(edge: SectionEdge, next: SectionEdge, layers: Layers): SectionEdge[] {
  const [one, two] = [thicknessOf(edge, layers), thicknessOf(next, layers)]
  const turn = turnBetween(edge.piece, next.piece)
  if (one <= 0 || two <= 0 || turn > -1e-9) return []
  const corner = edge.piece.to
  const a = add(corner, scale(leftNormal(edge.piece, 1), one))
  const b = add(corner, scale(leftNormal(next.piece, 0), two))
  const offsetOf = (e: SectionEdge): EdgeName => madeFrom(layers.step, 'offset', e.name)
  const tip = crossingOf(a, tangentAt(edge.piece, 1), b, tangentAt(next.piece, 0))
  const far = LONGEST_MITRE * Math.max(one, two)
  const canPoint = tip !== undefined && distance(tip, corner) <= far
  if (layers.corners === 'round' || !canPoint) {
    if (Math.abs(one - two) > VERTEX_TOLERANCE) {
      return canPoint ? pointed(corner, a, tip, b, offsetOf(edge), offsetOf(next)) : []
    }
    const name = madeFrom(layers.step, 'corner', edge.name, next.name)
    // Run from the second edge's side back to the first's, the patch lies on the left.
    return [
      { piece: line(corner, b), name },
      { piece: arc(b, a, corner, true), name },
      { piece: line(a, corner), name },
    ]
  }
  return pointed(corner, a, tip, b, offsetOf(edge), offsetOf(next))
}

function pointed(
  corner: Vec,
  a: Vec,
  tip: Vec,
  b: Vec,
  one: EdgeName,
  two: EdgeName,
): SectionEdge[] {
  return counterClockwise([corner, b, tip, a], (i) => (i < 2 ? two : one))
}

function counterClockwise(
  points: readonly Vec[],
  nameOf: (side: number) => EdgeName,
): SectionEdge[] {
  const sides = points.map((p, i) => ({
    piece: line(p, points[(i + 1) % points.length] ?? p),
    name: nameOf(i),
  }))
  return areaWithin(sides.map((s) => s.piece)) > 0 ? sides : [...turnedBack(sides)]
}

function crossingOf(p: Vec, u: Vec, q: Vec, v: Vec): Vec | undefined {
  const turn = cross(u, v)
  if (Math.abs(turn) < 1e-9) return undefined
  const t = cross({ x: q.x - p.x, y: q.y - p.y }, v) / turn
  return add(p, scale(u, t))
}

/** How a body is hollowed out. */
export interface ShellSpec {
  readonly step: string
  readonly side: LayerSide
  /** in mm, for every face that has none of its own */
  readonly thickness: number
  /** Keys of the faces left open. */
  readonly open: ReadonlySet<string>
  /** Thicknesses in mm of single faces, by key. */
  readonly faces: ReadonlyMap<string, number>
  readonly corners: LayerCorners
}

/**
 * The wall along a section's outline. Inwards it is what the material and the layers have in common,
 * so that no face is moved; outwards the body becomes the hollow.
 * @returns undefined when rounding left the outline open
 */
export function shellOf(section: Section, spec: ShellSpec): Section | undefined {
  const { side, corners, step } = spec
  // Inwards nothing is farther from an edge than the section is large.
  const most = side === 'inside' ? 1.01 * diagonalOf(edgesOf(section)) : Infinity
  return firstSound((share) => {
    const thickness = (name: EdgeName): number => {
      const key = edgeKey(name)
      if (spec.open.has(key)) return 0
      return share * Math.min(most, spec.faces.get(key) ?? spec.thickness)
    }
    const layers = layersAlong(section, { side, corners, step, thickness })
    if (side === 'inside') {
      return overlay(edgesOf(section), layers, (a, b) => a > 0 && b > 0, true)
    }
    const wall = overlay(edgesOf(section), layers, (a, b) => a <= 0 && b > 0, true)
    return wall && aboveAxis(wall, step)
  })
}

/**
 * The first sound result, of the thickness itself or of one that differs by hardly anything: where patches
 * meet in places that rounding cannot tell apart, a hair's breadth parts them.
 */
function firstSound(make: (share: number) => Section | undefined): Section | undefined {
  for (const share of SHARES) {
    const made = make(share)
    if (made) return made
  }
  return undefined
}

/** Shares of a thickness that are tried. */
const SHARES = [1, 1 + 2e-7, 1 - 3e-7]

/**
 * The section grown by a distance all round, or shrunk by a negative one. Edges along the axis stay.
 * @param by in mm
 */
export function offsetSection(
  section: Section,
  by: number,
  corners: LayerCorners,
  step: string,
): Section | undefined {
  const side = by > 0 ? 'outside' : 'inside'
  const most = by > 0 ? Infinity : 1.01 * diagonalOf(edgesOf(section))
  return firstSound((share) => {
    const thickness = (): number => share * Math.min(most, Math.abs(by))
    const layers = layersAlong(section, { side, corners, step, thickness })
    if (by <= 0) return overlay(edgesOf(section), layers, (a, b) => a > 0 && b <= 0, true)
    const grown = overlay(edgesOf(section), layers, (a, b) => a > 0 || b > 0, true)
    return grown && aboveAxis(grown, step)
  })
}
