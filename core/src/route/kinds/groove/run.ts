import { fail, succeed, type Result } from '../../../result'
import {
  add,
  cross,
  dot,
  line,
  norm,
  reversed,
  scale,
  subtract,
  unit,
  type Piece,
  type Vec,
  mapped,
} from '../../../geometry'
import { combine, profileOf, type Section, type SectionEdge } from '../../../section'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../../../tolerances'
import {
  changed,
  edgesNamed,
  lost,
  material,
  notSound,
  positive,
  told,
  wholeCount,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import {
  GROOVE_FIELDS,
  OPTIONAL_SIZES,
  grooveOutline,
  measureOfSize,
  type GrooveOutline,
  type GrooveSizes,
} from './forms'
import type { GrooveStep } from '../../../part'

/** The face a groove goes into: a straight edge, perhaps parted, with u along it and v into it. */
export interface Host {
  readonly origin: Vec
  readonly along: Vec
  readonly into: Vec
  /** Length along u in mm. */
  readonly length: number
}

/** The straight line that carries all edges of a name; undefined for arcs. */
export function hostOf(edges: readonly SectionEdge[]): Host | undefined {
  const [first] = edges
  if (first?.piece.kind !== 'line') return undefined
  const travel = unit(subtract(first.piece.to, first.piece.from))
  // Along the axis from left to right; on faces outwards from the axis.
  const forward = Math.abs(travel.x) > DIRECTION_TOLERANCE ? travel.x > 0 : travel.y > 0
  const along = forward ? travel : scale(travel, -1)
  const start = first.piece.from
  const ends = edges.flatMap(({ piece }) => [piece.from, piece.to])
  const places = ends.map((p) => dot(subtract(p, start), along))
  const low = Math.min(...places)
  return {
    origin: add(start, scale(along, low)),
    along,
    into: { x: -travel.y, y: travel.x },
    length: Math.max(...places) - low,
  }
}

/** Cuts a groove, or several at one pitch, into a cylinder, a cone or a face. */
export function groove(step: GrooveStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const edges = edgesNamed(before.value, step.on)
  const host = hostOf(edges)
  if (edges.length === 0) return lost('The face of this groove', step.on)
  if (!host) {
    return fail(
      'groove.curved',
      'A groove goes into a cylinder, a cone or a face, not into a rounded surface.',
      'Pick a straight edge of the section.',
    )
  }
  const sizes = sizesOf(step, context, host)
  if (!sizes.ok) return sizes
  const made = grooveOutline(step.form, sizes.value)
  const outline = step.turned === true && !('message' in made) ? turnedRound(made) : made
  if ('message' in outline) return fail('groove.sizes', outline.message, outline.mend)
  const count = wholeCount(context, step.count, 'number of grooves')
  if (!count.ok) return count
  const pitch = count.value > 1 ? positive(context, step.pitch, 'length', 'pitch') : succeed(0)
  if (!pitch.ok) return pitch
  const place = placeOf(step, context, before.value, host, outline)
  if (!place.ok) return place
  const middles = Array.from({ length: count.value }, (_, i) => place.value + i * pitch.value)
  const fits = fitting(context, host, outline, middles)
  if (!fits.ok) return fits
  const tool = toolOf(step.id, host, outline, middles)
  if (!tool.ok) return tool
  const after = combine(before.value, tool.value, 'cut')
  return changed(context, step.body, before.value, after, {
    section: tool.value,
    effect: 'cut',
    body: step.body,
  })
}

function sizesOf(step: GrooveStep, context: StepContext, host: Host): Result<GrooveSizes> {
  const sizes: Record<string, number> = {}
  const bottomGiven = (step.sizes['bottom'] ?? '').trim() !== ''
  for (const name of GROOVE_FIELDS[step.form]) {
    const text = (step.sizes[name] ?? '').trim()
    const skipped = name === 'bottom' || (name === 'depth' && bottomGiven)
    const mayMiss = OPTIONAL_SIZES.has(name) && !(name === 'radius' && needsRadius(step))
    if (skipped || (text === '' && mayMiss)) continue
    const value =
      name === 'angle' || (mayMiss && text !== '')
        ? context.number(text, measureOfSize(name), name)
        : positive(context, text, measureOfSize(name), name)
    if (!value.ok) return value
    if (value.value < 0 || (name === 'angle' && value.value >= Math.PI)) {
      return fail(
        'groove.size',
        `The ${name} lies outside what a groove can have.`,
        'Type another.',
      )
    }
    sizes[name] = value.value
  }
  if (bottomGiven) {
    const bottom = context.number(step.sizes['bottom'] ?? '', 'length', 'bottom diameter')
    if (!bottom.ok) return bottom
    const depth = depthTo(host, bottom.value)
    if (depth === undefined || depth <= 0) {
      return fail(
        'groove.bottom',
        'The bottom diameter does not lie inside the material.',
        'Type a diameter below the surface, or a depth instead.',
      )
    }
    sizes['depth'] = depth
  }
  return succeed(sizes)
}

/** An outline with its sides exchanged. */
const turnedRound = (outline: GrooveOutline): GrooveOutline =>
  outline
    .map(({ piece, what }) => ({
      piece: reversed(mapped(piece, ({ x, y }) => ({ x: -x, y }), true)),
      what,
    }))
    .reverse()

const needsRadius = ({ form }: GrooveStep): boolean => form === 'round' || form === 'rope'

/** The depth at which a groove in a cylinder has its bottom at a diameter. */
function depthTo(host: Host, diameter: number): number | undefined {
  if (Math.abs(host.along.y) > DIRECTION_TOLERANCE) return undefined
  return (diameter / 2 - host.origin.y) * Math.sign(host.into.y)
}

/** Where the groove's middle lies along the face. */
function placeOf(
  { place }: GrooveStep,
  context: StepContext,
  section: Section,
  host: Host,
  outline: GrooveOutline,
): Result<number> {
  const from = referenceOf(place.from, section, host)
  if (!from.ok) return from
  if (place.second !== '') {
    const second = referenceOf(place.second, section, host)
    return second.ok ? succeed((from.value + second.value) / 2) : second
  }
  if (place.from === 'middle' && place.distance.trim() === '') return from
  const typed = context.number(place.distance, 'length', 'distance')
  if (!typed.ok) return typed
  const isDiameter = place.from === 'axis'
  const distance = isDiameter ? typed.value / 2 : typed.value
  // Away from the reference, to where the face is: back from its far end, forward from its start.
  const way = !isDiameter && from.value > host.length / 2 + VERTEX_TOLERANCE ? -1 : 1
  const half = widthOf(outline) / 2
  const beyond = place.to === 'near' ? half : place.to === 'far' ? -half : 0
  return succeed(from.value + way * (distance + beyond))
}

const widthOf = (outline: GrooveOutline): number =>
  (outline.at(-1)?.piece.to.x ?? 0) - (outline[0]?.piece.from.x ?? 0)

function referenceOf(ref: string, section: Section, host: Host): Result<number> {
  if (ref === 'start') return succeed(0)
  if (ref === 'end') return succeed(host.length)
  if (ref === 'middle') return succeed(host.length / 2)
  if (ref === 'axis') return succeed(host.along.y === 0 ? 0 : -host.origin.y / host.along.y)
  const edges = edgesNamed(section, ref)
  if (edges.length === 0) return lost('The edge this groove is placed from', ref)
  const places = edges.flatMap(({ piece }) => [piece.from, piece.to])
  const off = (p: Vec): number => Math.abs(cross(host.along, subtract(p, host.origin)))
  const nearest = places.reduce((best, p) => (off(p) < off(best) ? p : best))
  return succeed(dot(subtract(nearest, host.origin), host.along))
}

/** Grooves stay on their face, above the axis, and clear of one another. */
function fitting(
  context: StepContext,
  host: Host,
  outline: GrooveOutline,
  middles: readonly number[],
): Result<true> {
  const half = widthOf(outline) / 2
  const [first = 0, second] = middles
  const last = middles.at(-1) ?? first
  const off = Math.max(half - first, last + half - host.length)
  if (off > VERTEX_TOLERANCE) {
    return fail(
      'groove.off',
      `The groove runs off the end of its face by ${told(context, off)}.`,
      `The face is ${told(context, host.length)} long: change the distance, the width or the number.`,
    )
  }
  if (second !== undefined && second - first < 2 * half - VERTEX_TOLERANCE) {
    return fail(
      'groove.pitch',
      'The grooves run into one another.',
      `Type a pitch of at least ${told(context, 2 * half)}.`,
    )
  }
  const deepest = middles.flatMap((m) =>
    outline.flatMap(({ piece }) => [piece.from, piece.to].map((p) => toPlane(host, m, p).y)),
  )
  if (Math.min(...deepest) < -VERTEX_TOLERANCE) {
    return fail(
      'groove.axis',
      'The groove is deeper than the axis.',
      'Type a smaller depth or a greater bottom diameter.',
    )
  }
  return succeed(true)
}

function toPlane(host: Host, middle: number, p: Vec): Vec {
  const along = scale(host.along, middle + p.x)
  return add(add(host.origin, along), scale(host.into, p.y))
}

/** The grooves as sections to be cut, each closed along its face. */
function toolOf(
  step: string,
  host: Host,
  outline: GrooveOutline,
  middles: readonly number[],
): Result<Section> {
  const placed = (piece: Piece, middle: number): Piece => {
    // A frame whose second direction lies to the right of the first is a mirror image.
    return mapped(piece, (p) => toPlane(host, middle, p), cross(host.along, host.into) < 0)
  }
  const regions = middles.flatMap((middle, i) => {
    const named = (what: string): SectionEdge['name'] => ({
      step,
      entity: i === 0 ? what : `${what}.${i + 1}`,
      role: 'made',
    })
    const edges = outline.map(({ piece, what }) => ({
      piece: placed(piece, middle),
      name: named(what),
    }))
    const [a, b] = [edges[0]?.piece.from, edges.at(-1)?.piece.to]
    if (!a || !b || norm(subtract(a, b)) <= VERTEX_TOLERANCE) return []
    return profileOf([...edges, { piece: line(b, a), name: named('mouth') }], step).section.regions
  })
  return regions.length === middles.length ? succeed({ regions }) : notSound
}
