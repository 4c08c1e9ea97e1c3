import { arc, beside, line, meetingsOf, vec, type Vec } from '../../../geometry'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { Measure } from '../../../units'
import type { SectionEdge } from '../../../section'
import type { GrooveForm } from '../../../part'

/** The sizes of each form of groove by name; those with a question mark may be left empty. */
export const GROOVE_FIELDS: Readonly<Record<GrooveForm, readonly string[]>> = {
  rectangular: ['width', 'depth', 'bottom', 'radius'],
  round: ['radius', 'depth', 'bottom'],
  vee: ['angle', 'flat', 'depth', 'bottom'],
  belt: ['width', 'angle', 'depth', 'bottom', 'radius'],
  rope: ['radius', 'angle', 'depth', 'bottom'],
  oring: ['width', 'depth', 'bottom', 'radius'],
  retaining: ['width', 'depth', 'bottom'],
  relief: ['width', 'depth', 'bottom', 'radius', 'angle'],
}

/** Sizes that may be left empty: a corner without a radius, a vee to a point, a square run-out. */
export const OPTIONAL_SIZES: ReadonlySet<string> = new Set(['radius', 'flat', 'bottom'])

export const measureOfSize = (name: string): Measure => (name === 'angle' ? 'angle' : 'length')

/** Every size of a groove in mm and radians; those left empty are 0. */
export type GrooveSizes = Readonly<Record<string, number>>

/**
 * A groove's outline in its own frame: u along the face with the groove's middle at 0, v into the
 * material with the face at 0. It runs from the near lip by the bottom to the far lip.
 */
export type GrooveOutline = readonly {
  readonly piece: SectionEdge['piece']
  readonly what: string
}[]

/** What is wrong with the sizes, as a sentence and its mend. */
export interface GrooveFault {
  readonly message: string
  readonly mend: string
}

/** The outline of a form, or why its sizes make none. */
export function grooveOutline(form: GrooveForm, s: GrooveSizes): GrooveOutline | GrooveFault {
  const depth = s['depth'] ?? 0
  const width = s['width'] ?? 0
  const radius = s['radius'] ?? 0
  const half = (s['angle'] ?? 0) / 2
  switch (form) {
    case 'rectangular':
    case 'oring':
    case 'retaining':
      return flanked(width / 2, width / 2, depth, form === 'retaining' ? 0 : radius)
    case 'belt':
      return flanked(width / 2, width / 2 - depth * Math.tan(half), depth, radius)
    case 'vee':
      return vee(half, s['flat'] ?? 0, depth)
    case 'round':
      return round(radius, depth)
    case 'rope':
      return rope(radius, half, depth)
    case 'relief':
      return relief(width, depth, radius, s['angle'] ?? 0)
  }
}

const NARROW: GrooveFault = {
  message: 'The flanks meet above the bottom.',
  mend: 'Type a greater width, a smaller angle or a smaller depth.',
}

function named(points: readonly Vec[], whats: readonly string[]): GrooveOutline {
  return whats.flatMap((what, i) => {
    const [a, b] = [points[i], points[i + 1]]
    return a && b && Math.hypot(a.x - b.x, a.y - b.y) > VERTEX_TOLERANCE
      ? [{ piece: line(a, b), what }]
      : []
  })
}

/** Straight flanks to a flat bottom, with a radius in both bottom corners. */
function flanked(
  top: number,
  bottom: number,
  depth: number,
  radius: number,
): GrooveOutline | GrooveFault {
  if (bottom < 0) return NARROW
  const points = [vec(-top, 0), vec(-bottom, depth), vec(bottom, depth), vec(top, 0)]
  const sharp = named(points, ['near', 'floor', 'far'])
  if (radius <= 0) return sharp
  return withRadius(points, radius)
}

/** The bottom corners rounded: the arc stands at its radius from flank and floor. */
function withRadius(points: readonly Vec[], radius: number): GrooveOutline | GrooveFault {
  const [a, b, c, d] = points
  if (!a || !b || !c || !d) return NARROW
  const [near, floor, far] = [line(a, b), line(b, c), line(c, d)]
  // The frame's v points into the material, so the groove's inside is to the right of this outline.
  const one = meetingsOf(beside(near, -radius), beside(floor, -radius), VERTEX_TOLERANCE)[0]
  const two = meetingsOf(beside(floor, -radius), beside(far, -radius), VERTEX_TOLERANCE)[0]
  const tooLarge = {
    message: 'The corner radius does not fit into the groove.',
    mend: 'Type a radius no larger than the depth and half the width of the bottom.',
  }
  if (!one || !two) return tooLarge
  const at = (from: Vec, to: Vec, t: number): Vec =>
    vec(from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t)
  const [p, q, r, s] = [at(a, b, one.t), at(b, c, one.u), at(b, c, two.t), at(c, d, two.u)]
  if (q.x > r.x + VERTEX_TOLERANCE) return tooLarge
  return [
    { piece: line(a, p), what: 'near' },
    { piece: arc(p, q, one.at, false), what: 'nearRound' },
    { piece: line(q, r), what: 'floor' },
    { piece: arc(r, s, two.at, false), what: 'farRound' },
    { piece: line(s, d), what: 'far' },
  ].filter(
    (e) =>
      Math.hypot(e.piece.from.x - e.piece.to.x, e.piece.from.y - e.piece.to.y) > VERTEX_TOLERANCE,
  )
}

function vee(half: number, flat: number, depth: number): GrooveOutline {
  const top = flat / 2 + depth * Math.tan(half)
  const points = [vec(-top, 0), vec(-flat / 2, depth), vec(flat / 2, depth), vec(top, 0)]
  return flat > 0
    ? named(points, ['near', 'floor', 'far'])
    : named([vec(-top, 0), vec(0, depth), vec(top, 0)], ['near', 'far'])
}

/** Part of a circle; deeper than its radius the flanks go straight up. */
function round(radius: number, depth: number): GrooveOutline | GrooveFault {
  const rise = Math.min(depth, radius)
  const top = Math.sqrt(rise * (2 * radius - rise))
  const sill = depth - rise
  const [a, b] = [vec(-top, sill), vec(top, sill)]
  const bottom = { piece: arc(a, b, vec(0, depth - radius), false), what: 'floor' }
  if (sill <= VERTEX_TOLERANCE) return [bottom]
  return [
    { piece: line(vec(-top, 0), a), what: 'near' },
    bottom,
    { piece: line(b, vec(top, 0)), what: 'far' },
  ]
}

/** A round bottom with flanks tangent to it, which open by the angle. */
function rope(radius: number, half: number, depth: number): GrooveOutline | GrooveFault {
  const touch = vec(radius * Math.cos(half), depth - radius + radius * Math.sin(half))
  // Shallower than where the flanks would touch, the groove is part of the circle alone.
  if (touch.y <= VERTEX_TOLERANCE) return round(radius, depth)
  const top = touch.x + touch.y * Math.tan(half)
  const a = vec(-touch.x, touch.y)
  return [
    { piece: line(vec(-top, 0), a), what: 'near' },
    { piece: arc(a, touch, vec(0, depth - radius), false), what: 'floor' },
    { piece: line(touch, vec(top, 0)), what: 'far' },
  ]
}

/** Square at its far side, which goes against the shoulder, and run out at the near one. */
function relief(
  width: number,
  depth: number,
  radius: number,
  angle: number,
): GrooveOutline | GrooveFault {
  const slope = angle > 0 && angle < Math.PI / 2 ? depth / Math.tan(angle) : 0
  if (slope > width) return NARROW
  const points = [
    vec(-width / 2, 0),
    vec(-width / 2 + slope, depth),
    vec(width / 2, depth),
    vec(width / 2, 0),
  ]
  return radius > 0 ? withRadius(points, radius) : named(points, ['near', 'floor', 'far'])
}
