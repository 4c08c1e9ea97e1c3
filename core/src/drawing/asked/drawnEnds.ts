import { distance, place, subtract, unit, vec, type Frame, type Vec } from '../../geometry'
import type { DrawnSize } from '../../part'
import type { PartState } from '../../route'
import { endMarks, type EndMarks } from '../../solid'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { Drawn, DrawnPlace } from './drawnPlace'
import type { FlatShape } from './asked'
import type { End } from './ends'

/** The part as it is looked at from an end: what is half-section is up. */
const FRAMES: Readonly<Record<End, Frame>> = {
  left: { at: place(0, 0, 0), x: place(0, 1, 0), z: place(0, 0, -1) },
  right: { at: place(0, 0, 0), x: place(0, -1, 0), z: place(0, 0, 1) },
}

function marksOf(state: PartState, body: string, from: End): EndMarks | undefined {
  const found = state.bodies.find((b) => b.bodyId === body)
  return found && endMarks(found.section, found.plan, FRAMES[from])
}

/** A circle with where its middle is, or a point (`radius` 0), of what can be measured on the view from an end. */
export interface EndSpot extends DrawnPlace {
  readonly middle: Vec
  readonly radius: number
}

/** What of a body can be measured on the view from an end, whether or not it is seen there. */
export function endSpots(state: PartState, body: string, from: End): EndSpot[] {
  const marks = marksOf(state, body, from)
  if (!marks) return []
  const base = { end: from, body } as const
  const points = marks.points.map(({ key, at }): EndSpot => ({
    ...{ ...base, key, at, what: 'point', middle: at, radius: 0 },
  }))
  const rings = marks.rings.map(({ middle, rim }): EndSpot => {
    const radius = distance(middle.at, rim.at)
    const off = radius * Math.SQRT1_2
    const at = vec(middle.at.x + off, middle.at.y + off)
    return { ...base, key: rim.key, at, what: 'ring', middle: middle.at, radius }
  })
  const axis: EndSpot = {
    ...{ ...base, key: END_AXIS, at: vec(0, 0), what: 'point', middle: vec(0, 0), radius: 0 },
  }
  return [axis, ...points.filter(({ at }) => Math.hypot(at.x, at.y) > VERTEX_TOLERANCE), ...rings]
}

/** As places that end sketches build on call the axis of the part. */
export const END_AXIS = 'axis'

/** A size that was drawn on the view from an end; undefined where one of its places is gone. */
export function drawnOnEnd(
  state: PartState,
  { kind, body, from, to, other = body }: DrawnSize,
  end: End,
): Drawn | undefined {
  const on = (of: FlatShape, value: number, sign = ''): Drawn => ({
    ...{ shape: { kind: 'onEnd', from: end, of }, value, sign },
  })
  if (kind === 'across') {
    const ring = endSpots(state, body, end).find((s) => s.what === 'ring' && s.key === from)
    if (!ring) return undefined
    const out = unit(subtract(ring.at, ring.middle))
    return on({ kind: 'place', at: ring.at, out }, 2 * ring.radius, '⌀')
  }
  const find = (id: string, key: string): Vec | undefined => {
    const marks = marksOf(state, id, end)
    return key === END_AXIS ? marks && vec(0, 0) : marks?.places.get(key)
  }
  const [a, b] = [find(body, from), find(other, to)]
  if (!a || !b) return undefined
  const [dx, dy] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)]
  switch (kind) {
    case 'along':
      return on({ kind: 'along', from: a, to: b, inside: false }, dx)
    case 'radial':
      return on({ kind: 'radial', from: a, to: b }, dy)
    case 'apart': {
      if (dy < VERTEX_TOLERANCE) return on({ kind: 'along', from: a, to: b, inside: false }, dx)
      if (dx < VERTEX_TOLERANCE) return on({ kind: 'radial', from: a, to: b }, dy)
      return on({ kind: 'slant', from: a, to: b }, Math.hypot(dx, dy))
    }
    case 'angle': {
      const far = [Math.hypot(a.x, a.y), Math.hypot(b.x, b.y)] as const
      if (Math.min(...far) < VERTEX_TOLERANCE) return undefined
      const [one, other] = [unit(a), unit(b)]
      const turn = Math.atan2(one.x * other.y - one.y * other.x, one.x * other.x + one.y * other.y)
      return on({ kind: 'angle', at: vec(0, 0), one, other, far }, Math.abs(turn))
    }
    case 'radius':
      return undefined
  }
}
