import { inFrame, mapped, place, subtract, vec, type Place, type Vec } from '../../geometry'
import type { Part } from '../../part'
import { endPlane, type EndPlane } from '../../sketch'
import type { FlatShape, Shape } from './asked'

/** An end of the part, as it is looked at. */
export type End = 'left' | 'right'

/** A place of the part as it is seen from an end: the half-section's side is up. */
export const seenFromEnd = ({ x, y }: Place, from: End): Vec => vec(from === 'right' ? -y : y, x)

/** Something told at a place of an end view, with the way out from the axis. */
export function atEnd(at: Vec, from: End): Shape {
  const far = Math.hypot(at.x, at.y)
  return { kind: 'end', at, out: far > 0 ? vec(at.x / far, at.y / far) : vec(0, 1), from }
}

/** Where a place of an end sketch is seen from an end. */
export const sketchedAt =
  (lie: Part['lie'], plane: EndPlane, from: End) =>
  ({ x, y }: Vec): Vec =>
    seenFromEnd(inFrame(endPlane(lie, plane), place(x, y, 0)), from)

/** A size of an end sketch where it is seen from an end. */
export function shapeOnEnd(shape: Shape, put: (p: Vec) => Vec, from: End): Shape | undefined {
  const of = flatShape(shape, put)
  return of && { kind: 'onEnd', from, of }
}

function flatShape(shape: Shape, put: (p: Vec) => Vec): FlatShape | undefined {
  const origin = put(vec(0, 0))
  const way = (v: Vec): Vec => subtract(put(v), origin)
  switch (shape.kind) {
    case 'along':
    case 'radial':
    case 'slant': {
      const [from, to] = [put(shape.from), put(shape.to)]
      // Turned by the way the part is looked at, what ran level may be upright.
      const kinds = { along: 'radial', radial: 'along', slant: 'slant' } as const
      const isTurned = Math.abs(way(vec(1, 0)).x) < 0.5
      return { kind: isTurned ? kinds[shape.kind] : shape.kind, from, to, inside: false }
    }
    case 'angle':
      return { kind: 'angle', at: put(shape.at), one: way(shape.one), other: way(shape.other) }
    case 'radius': {
      const [a, b] = [way(vec(1, 0)), way(vec(0, 1))]
      const arc = mapped(shape.arc, put, a.x * b.y - a.y * b.x < 0)
      return arc.kind === 'arc' ? { kind: 'radius', arc } : undefined
    }
    case 'across':
      return { kind: 'place', at: put(shape.at), out: vec(0, 1) }
    case 'place':
      return { kind: 'place', at: put(shape.at), out: way(shape.out) }
    case 'end':
    case 'onEnd':
    case 'section':
    case 'onSection':
      return undefined
  }
}
