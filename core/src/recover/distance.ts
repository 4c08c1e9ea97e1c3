import {
  PART_FRAME,
  addPlaces,
  dotPlaces,
  scalePlace,
  secondOf,
  subtractPlaces,
  vec,
  type Frame,
  type Place,
} from '../geometry'
import { edgesOf, type Section } from '../section'
import type { SolidPlan, SolidTool } from '../solid'
import { nearestIn } from './near'
import { lengthOf } from './nodes'

/**
 * Tells how far a place lies from the nearest surface of a plan in mm: of what was turned, and of its tools, wherever
 * these end. Tools of other kinds than turned and drawn out ones are passed over.
 */
export function distanceTo({ base, ops }: SolidPlan): (p: Place) => number {
  const toBase = toTurned(base, PART_FRAME)
  const tools = ops.flatMap((op) => (op.kind === 'combine' ? op.tools : [])).map(toTool)
  return (p) => {
    let least = toBase(p)
    for (const { ball, to } of tools) {
      const isFar = ball && lengthOf(subtractPlaces(p, ball.at)) - ball.radius >= least
      if (isFar !== true) least = Math.min(least, to(p))
    }
    return least
  }
}

interface ToTool {
  /** A ball that holds it; undefined where none is known. */
  readonly ball: { readonly at: Place; readonly radius: number } | undefined
  readonly to: (p: Place) => number
}

function toTool(tool: SolidTool): ToTool {
  switch (tool.kind) {
    case 'turned':
      return { ball: ballAround(tool.section, tool.frame), to: toTurned(tool.section, tool.frame) }
    case 'prism': {
      const nearest = nearestIn(edgesOf(tool.outline).map((e) => e.piece))
      const to = (p: Place): number => {
        const { x, y, z } = seenFrom(tool.frame, p)
        const beyond = Math.max(0, tool.from - z, z - tool.to)
        const ends = Math.min(Math.abs(z - tool.from), Math.abs(z - tool.to))
        return Math.min(Math.hypot(nearest(vec(x, y)).distance, beyond), ends)
      }
      return { ball: undefined, to }
    }
    default:
      return { ball: undefined, to: () => Infinity }
  }
}

/** Round a section of straight lines that is turned about the z of its frame. */
function ballAround(section: Section, frame: Frame): ToTool['ball'] {
  const edges = edgesOf(section)
  if (edges.some((e) => e.piece.kind !== 'line')) return undefined
  const ends = edges.flatMap((e) => [e.piece.from, e.piece.to])
  const [low, high] = [Math.min(...ends.map((p) => p.x)), Math.max(...ends.map((p) => p.x))]
  return {
    at: addPlaces(frame.at, scalePlace(frame.z, (low + high) / 2)),
    radius: Math.hypot((high - low) / 2, Math.max(...ends.map((p) => p.y))),
  }
}

function toTurned(section: Section, frame: Frame): (p: Place) => number {
  const nearest = nearestIn(edgesOf(section).map((e) => e.piece))
  return (p) => {
    const { x, y, z } = seenFrom(frame, p)
    return nearest(vec(z, Math.hypot(x, y))).distance
  }
}

/** A place by the three directions of a frame. */
function seenFrom(frame: Frame, p: Place): Place {
  const off = subtractPlaces(p, frame.at)
  return {
    x: dotPlaces(off, frame.x),
    y: dotPlaces(off, secondOf(frame)),
    z: dotPlaces(off, frame.z),
  }
}
