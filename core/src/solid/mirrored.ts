import {
  PART_FRAME,
  addPlaces,
  dotPlaces,
  inFrame,
  place,
  reversed,
  scalePlace,
  secondOf,
  subtractPlaces,
  vec,
  type Frame,
  type Place,
  type Vec,
  mapped,
} from '../geometry'
import { mirroredSection, withLoops, type Section } from '../section'
import { edgesAgain, type Again } from './again'
import type { SolidOp, SolidTool } from './plan'
import { orderMirrored, orderReversed, type StretchOrder } from './stretches'

/** A plane that something is mirrored about, by a place in it and its normal of length 1. */
export interface MirrorPlane {
  readonly at: Place
  readonly normal: Place
}

/** The same operation as its mirror image; undefined where it has none that can be told. */
export function mirroredOp(op: SolidOp, again: Again, plane: MirrorPlane): SolidOp | undefined {
  if (op.kind === 'edges') return edgesAgain(op, again, (order) => orderImage(order, plane))
  if (op.kind !== 'combine') return undefined
  const tools = op.tools.map((tool) => mirroredTool(tool, again, plane))
  return { ...op, step: again.step, tools }
}

function orderImage(order: StretchOrder, { normal }: MirrorPlane): StretchOrder {
  return Math.abs(normal.z) > 0.5
    ? orderReversed(order)
    : orderMirrored(order, Math.atan2(normal.y, normal.x))
}

/**
 * A tool is told in its frame, which is right-handed: its image stands in the image of the frame
 * with the second direction turned about, and so with its own second direction turned about.
 */
function mirroredTool(tool: SolidTool, again: Again, plane: MirrorPlane): SolidTool {
  const { step } = again
  const mark = `${tool.mark}${again.mark}`
  switch (tool.kind) {
    case 'turned': {
      const { turn } = tool
      return {
        ...{ ...tool, mark, frame: imageOf(tool.frame, plane) },
        ...(turn ? { turn: { from: -(turn.from + turn.by), by: turn.by } } : {}),
      }
    }
    case 'prism':
      return {
        ...{ ...tool, mark, frame: imageOf(tool.frame, plane) },
        outline: changed(tool.outline, ({ x, y }) => vec(x, -y)),
      }
    case 'facets': {
      const { at, normal } = plane
      if (Math.abs(normal.z) > 0.5) {
        return { ...tool, mark, section: mirroredSection(tool.section, at.z, step) }
      }
      return {
        ...tool,
        mark,
        phase: 2 * (Math.atan2(normal.y, normal.x) + Math.PI / 2) - tool.phase,
      }
    }
    case 'swept': {
      const across = Math.abs(plane.normal.z) > 0.5
      return {
        ...{ ...tool, mark, frame: imageOf(tool.frame, plane) },
        path: tool.path.map((p) => mapped(p, ({ x, y }) => vec(x, -y), true)),
        outline: changed(tool.outline, ({ x, y }) => vec(-x, y)),
        without: across ? mirroredSection(tool.without, plane.at.z, step) : tool.without,
      }
    }
    case 'body':
    case 'file': {
      const about = inside(tool.frame, plane)
      if (!tool.mirror) return { ...tool, mark, mirror: about }
      // Two mirrors are a motion, which a frame tells.
      const { mirror, ...rest } = tool
      const moved = imageOf(imageOf(PART_FRAME, mirror), about)
      return { ...rest, mark, frame: frameIn(tool.frame, moved) }
    }
  }
}

/** A frame that is told in another one's directions, in the space of the part. */
function frameIn(outer: Frame, { at, x, z }: Frame): Frame {
  const way = (p: Place): Place => subtractPlaces(inFrame(outer, p), outer.at)
  return { at: inFrame(outer, at), x: way(x), z: way(z) }
}

/** A place mirrored about a plane. */
export function placeMirrored(p: Place, { at, normal }: MirrorPlane): Place {
  return addPlaces(p, scalePlace(normal, -2 * dotPlaces(subtractPlaces(p, at), normal)))
}

function imageOf(frame: Frame, { at, normal }: MirrorPlane): Frame {
  const way = (w: Place): Place => placeMirrored(w, { at: place(0, 0, 0), normal })
  return { at: placeMirrored(frame.at, { at, normal }), x: way(frame.x), z: way(frame.z) }
}

/** A plane as it is told in a frame's own directions. */
function inside(frame: Frame, { at, normal }: MirrorPlane): MirrorPlane {
  const told = (p: Place): Place =>
    place(dotPlaces(p, frame.x), dotPlaces(p, secondOf(frame)), dotPlaces(p, frame.z))
  return { at: told(subtractPlaces(at, frame.at)), normal: told(normal) }
}

/** An outline with its places mirrored, run through the other way so that material stays left of it. */
const changed = (section: Section, image: (p: Vec) => Vec): Section =>
  withLoops(section, (loop) =>
    [...loop].reverse().map((e) => ({ ...e, piece: reversed(mapped(e.piece, image, true)) })),
  )
