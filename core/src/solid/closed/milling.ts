import {
  asideOf,
  dotPlaces,
  mapped,
  secondOf,
  vec,
  type ArcPiece,
  type LinePiece,
  type Place,
  type Vec,
} from '../../geometry'
import { edgesOf, type EdgeName, type Section } from '../../section'
import type { PrismTool } from '../plan'
import { SAME } from './taken'

/**
 * What is milled into the outside of a full turn down to a plane floor: everything farther out than the floor under an
 * outline in the directions along the axis (u) and across it (v). At each place along the axis it is a segment of a
 * circle, whose integrals have closed forms; along the axis they are summed by Gauss’s rule between all places where
 * anything begins, in a variable in which what begins like a square root is smooth.
 */
export interface Milling {
  readonly outline: readonly (LinePiece | ArcPiece)[]
  /** How far from the axis its floor is. */
  readonly floor: number
  /** The way out, square to the axis; v is told along `across`. */
  readonly out: Place
  readonly across: Place
}

/** What calls a face that a tool leaves: an edge of its outline, or which end of it. */
export type Called = EdgeName | 'first' | 'last'

/** What a tool mills, with what its faces are called after. */
export interface ToolMilling extends Milling {
  /** How far from the axis the tool reaches. */
  readonly top: number
  /** One for each piece of the outline. */
  readonly walls: readonly Called[]
  readonly ground: Called
}

/** What a prism mills where it stands square to the axis, or runs along it with one side towards it. */
export const millingOf = (tool: PrismTool): ToolMilling | undefined =>
  millingOut(tool) ?? millingAlong(tool)

/** An outline drawn out square to the axis: keyways. */
function millingOut(tool: PrismTool): ToolMilling | undefined {
  const { frame, from, to } = tool
  if (Math.abs(frame.z.z) > 1e-12 || Math.abs(Math.abs(frame.x.z) - 1) > 1e-12) return undefined
  const across = asideOf(frame.z)
  const second = secondOf(frame)
  const way = Math.sign(frame.x.z)
  const turn = Math.sign(dotPlaces(second, across))
  const aside = dotPlaces(frame.at, across)
  const put = ({ x, y }: Vec): Vec => vec(frame.at.z + way * x, aside + turn * y)
  const outline = outlineOf(tool.outline, put, way * turn < 0)
  if (!outline) return undefined
  const deep = dotPlaces(frame.at, frame.z)
  return {
    ...{ outline, floor: deep + from, top: deep + to, out: frame.z, across },
    ...{ walls: edgesOf(tool.outline).map((e) => e.name), ground: 'first' },
  }
}

/** A rectangle drawn out along the axis, one side towards it: flats, and slots into the side from an end. */
function millingAlong({ outline, frame, from, to }: PrismTool): ToolMilling | undefined {
  if (Math.abs(Math.abs(frame.z.z) - 1) > 1e-12) return undefined
  if (Math.hypot(frame.at.x, frame.at.y) > SAME) return undefined
  const edges = edgesOf(outline)
  const isSquare = edges.every(
    ({ piece: p }) => p.kind === 'line' && (p.from.x === p.to.x || p.from.y === p.to.y),
  )
  if (edges.length !== 4 || !isSquare) return undefined
  const corners = edges.map((e) => e.piece.from)
  const [low, high] = [Math.min(...corners.map((p) => p.x)), Math.max(...corners.map((p) => p.x))]
  const [left, right] = [Math.min(...corners.map((p) => p.y)), Math.max(...corners.map((p) => p.y))]
  const across = asideOf(frame.x)
  const turn = Math.sign(dotPlaces(secondOf(frame), across))
  const [v0, v1] = turn > 0 ? [left, right] : [-right, -left]
  const along = (z: number): number => frame.at.z + Math.sign(frame.z.z) * z
  const [start, end] = [along(from), along(to)]
  const [u0, u1] = [Math.min(start, end), Math.max(start, end)]
  const named = (isOne: (p: Vec, q: Vec) => boolean): EdgeName | undefined =>
    edges.find(({ piece: { from: p, to: q } }) => isOne(p, q))?.name
  const ground = named((p, q) => p.x === low && q.x === low)
  const leftSide = named((p, q) => p.y === left && q.y === left)
  const rightSide = named((p, q) => p.y === right && q.y === right)
  if (!ground || !leftSide || !rightSide) return undefined
  const ring = [vec(u0, v0), vec(u1, v0), vec(u1, v1), vec(u0, v1)]
  const sides = ring.map((p, i): LinePiece => ({
    ...{ kind: 'line', from: p, to: ring[(i + 1) % 4] ?? p },
  }))
  const [near, far] = turn > 0 ? [leftSide, rightSide] : [rightSide, leftSide]
  const [before, behind] =
    start <= end ? (['first', 'last'] as const) : (['last', 'first'] as const)
  return {
    ...{ outline: sides, floor: low, top: high, out: frame.x, across },
    ...{ walls: [near, behind, far, before], ground },
  }
}

function outlineOf(
  section: Section,
  put: (p: Vec) => Vec,
  isMirrored: boolean,
): (LinePiece | ArcPiece)[] | undefined {
  const pieces = edgesOf(section).map((e) => mapped(e.piece, put, isMirrored))
  const plain = pieces.filter((p) => p.kind !== 'cubic')
  return plain.length === pieces.length && plain.length > 0 ? plain : undefined
}
