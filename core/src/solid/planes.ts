import { faceName } from '../names'
import {
  PART_FRAME,
  addPlaces,
  crossPlaces,
  inFrame,
  place,
  scalePlace,
  secondOf,
  subtractPlaces,
  turned,
  type Frame,
  type Piece,
  type Place,
} from '../geometry'
import { edgeKey, edgesOf, type SectionEdge } from '../section'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../tolerances'
import { placeMirrored } from './mirrored'
import type {
  BodyTool,
  CombineOp,
  FileTool,
  PrismTool,
  SolidPlan,
  SolidTool,
  TurnedTool,
} from './plan'

/** A plane face of a solid that no full turn made. */
export interface SolidPlane {
  readonly at: Place
  /** Of length 1, into the material. */
  readonly into: Place
  /** Of an end of a part turn: the way out from the axis that it was turned about. */
  readonly out?: Place
}

/** A plane face of a body that is no full turn by its name; of what was turned at first one square to the axis. */
export function planeCalled({ base, ops }: SolidPlan, name: string): SolidPlane | undefined {
  for (const op of [...ops].reverse()) {
    if (op.kind !== 'combine') continue
    for (const tool of op.tools) {
      const found = planeOfTool(op, tool, name)
      // What is cut away leaves the material on the outside of the tool.
      if (found) return op.effect === 'cut' ? { ...found, into: scalePlace(found.into, -1) } : found
    }
  }
  return floorOf(PART_FRAME, edgesOf(base).find((e) => edgeKey(e.name) === name)?.piece)
}

/** The plane of a tool's own face, its normal into the tool. */
function planeOfTool(op: CombineOp, tool: SolidTool, name: string): SolidPlane | undefined {
  const own = (what: string): boolean => name === `${faceName(op.step, what)}${tool.mark}`
  // What a full turn takes away has faces of earlier steps too, which go with it.
  const edge = (among: readonly SectionEdge[]): Piece | undefined =>
    among.find((e) => e.name.step === op.step && name === `${edgeKey(e.name)}${tool.mark}`)?.piece
  if (tool.kind === 'prism') {
    const { frame, from, to } = tool
    if (own('first')) return { at: inFrame(frame, place(0, 0, from)), into: frame.z }
    if (own('last')) {
      return { at: inFrame(frame, place(0, 0, to)), into: scalePlace(frame.z, -1) }
    }
    return sideOf(tool, edge(edgesOf(tool.outline)))
  }
  if (tool.kind === 'turned') {
    if (tool.turn && own('first')) return endOf(tool, tool.turn.from, 1)
    if (tool.turn && own('last')) return endOf(tool, tool.turn.from + tool.turn.by, -1)
    return floorOf(tool.frame, edge(edgesOf(tool.section)))
  }
  if (tool.kind === 'body' && name.endsWith(tool.mark)) {
    const plane = planeCalled(tool.plan, name.slice(0, name.length - tool.mark.length))
    return plane && standing(plane, tool)
  }
  if (tool.kind === 'file') {
    const numbers = tool.planes.find(([face]) => own(`f${face}`))
    const [, ax = 0, ay = 0, az = 0, nx = 0, ny = 0, nz = 0] = numbers ?? []
    return numbers && standing({ at: place(ax, ay, az), into: place(nx, ny, nz) }, tool)
  }
  return undefined
}

/** A plane of a body where that is put: mirrored first, if it is, and then in the frame. */
function standing(plane: SolidPlane, { mirror, frame }: BodyTool | FileTool): SolidPlane {
  const put = (p: Place): Place => inFrame(frame, mirror ? placeMirrored(p, mirror) : p)
  const way = (w: Place): Place => subtractPlaces(put(w), put(place(0, 0, 0)))
  const { at, into, out } = plane
  return { at: put(at), into: way(into), ...(out ? { out: way(out) } : {}) }
}

/** The side of something drawn out that a straight piece of its outline makes; material is left of it. */
function sideOf({ frame, draft }: PrismTool, piece: Piece | undefined): SolidPlane | undefined {
  if (piece?.kind !== 'line' || draft) return undefined
  const along = subtractPlaces(
    inFrame(frame, place(piece.to.x, piece.to.y, 0)),
    inFrame(frame, place(piece.from.x, piece.from.y, 0)),
  )
  const size = Math.hypot(along.x, along.y, along.z)
  const into = crossPlaces(frame.z, scalePlace(along, 1 / size))
  return { at: inFrame(frame, place(piece.from.x, piece.from.y, 0)), into }
}

/** One end of a part turn. */
function endOf({ frame }: TurnedTool, angle: number, way: 1 | -1): SolidPlane {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const out = addPlaces(scalePlace(frame.x, c), scalePlace(secondOf(frame), s))
  return { at: frame.at, into: scalePlace(crossPlaces(frame.z, out), way), out }
}

/** A face square to the axis that something was turned about: the third direction of its frame. */
function floorOf(frame: Frame, piece: Piece | undefined): SolidPlane | undefined {
  if (piece?.kind !== 'line' || Math.abs(piece.from.x - piece.to.x) > VERTEX_TOLERANCE) {
    return undefined
  }
  // Material is left of a piece: to the right along the axis where the piece runs inwards.
  const way = piece.to.y < piece.from.y ? 1 : -1
  return { at: inFrame(frame, place(0, 0, piece.from.x)), into: scalePlace(frame.z, way) }
}

/** Where along the third direction of a frame a plane lies, if it is square to that. */
export function placeAlong(plane: SolidPlane, frame: Frame): number | undefined {
  const { into, at } = plane
  const square = Math.abs(into.x * frame.z.x + into.y * frame.z.y + into.z * frame.z.z)
  if (Math.abs(square - 1) > DIRECTION_TOLERANCE) return undefined
  const { x, y, z } = subtractPlaces(at, frame.at)
  return x * frame.z.x + y * frame.z.y + z * frame.z.z
}

/**
 * The angles about the part's axis at which a plane through it lies: of the end of a part turn one,
 * else two; none of a plane beside the axis or square to it.
 */
export function anglesThrough({ at, into, out }: SolidPlane): readonly number[] {
  if (Math.abs(into.z) > DIRECTION_TOLERANCE) return []
  if (Math.abs(at.x * into.x + at.y * into.y) > VERTEX_TOLERANCE) return []
  const along = out ?? turned(place(into.x, into.y, 0), -Math.PI / 2)
  if (Math.hypot(along.x, along.y) < DIRECTION_TOLERANCE) return []
  const angle = Math.atan2(along.y, along.x)
  return out ? [angle] : [angle, angle + Math.PI]
}
