import { VERTEX_TOLERANCE } from '../../tolerances'
import { fail, succeed, type Result } from '../../result'
import { add, dot, scale, subtract, unit, type Vec } from '../../geometry'
import {
  ALONG_AXIS,
  ALONG_RADIUS,
  entityMap,
  lineEnds,
  locator,
  pointsOf,
  withPoints,
  type Entity,
  type Repeat,
  type Sketch,
} from '../../sketch'
import { withSketch, type Command } from '../command'
import { followsAlone, nothingPicked } from './copies'
import { placeDraft, withConstraint } from './draft'
import { type End } from './ends'
import { without } from './remove'
import type { Part } from '../../part'

/** How often and which way something is to be repeated. */
export interface RepeatPlan {
  /** How many there are in all, the first included. */
  readonly count: number
  /** The pitch in mm; negative goes the other way. */
  readonly pitch: number
  /** How the pitch was typed, for its size; the figure itself when left out. */
  readonly formula?: string
  /** `axial`, `radial` or the id of a line. */
  readonly along: string
}

/** The most copies one repeat makes. */
export const MOST_COPIES = 200

/**
 * Repeats entities in one direction. Where one copy ends where the next begins they share the point,
 * and the pitch is the width of what is repeated; else the pitch gets a size.
 */
export function repeatItems(sketchId: string, ids: readonly string[], plan: RepeatPlan): Command {
  return {
    label: 'repeat',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const bad = refuseCount(plan.count)
      if (bad) return bad
      if (!(Math.abs(plan.pitch) > VERTEX_TOLERANCE)) {
        return fail(
          'repeat.pitch',
          'The pitch is nought.',
          'Give the distance from one to the next.',
        )
      }
      const entities = sketch.entities.filter((e) => ids.includes(e.id))
      const points = [...new Set(entities.flatMap(pointsOf))]
      if (points.length === 0) return nothingPicked()
      if (entities.some((e) => e.kind === 'parallel')) return followsAlone('repeat')
      const step = scale(directionOf(sketch, plan.along), plan.pitch)
      const repeat = { points: startFirst(sketch, points, step), along: plan.along }
      const made = withCopies(part, sketchId, entities, repeat, step, plan.count - 1, [])
      if (!made.ok) return made
      const { part: drawn, copies } = made.value
      const [first] = repeat.points
      const second = copies[0]?.[0]
      const after = drawn.sketches.find((s) => s.id === sketchId)
      if (!after || first === undefined || second === undefined) return succeed(drawn)
      const { sketch: tied } = withConstraint(after, { kind: 'repeat', ...repeat, copies })
      const repeated = withSketch(drawn, tied)
      if (repeat.points.includes(second)) return succeed(repeated)
      const kind = PITCH_SIZES[plan.along] ?? ('distance' as const)
      const formula = plan.formula ?? String(Math.abs(plan.pitch))
      const sizes = [{ offer: { kind, a: first, b: second }, formula }]
      const sized = placeDraft(repeated, sketchId, { points: {}, entities: [], sizes })
      return sized.ok ? succeed(sized.value.part) : sized
    },
  }
}

/** The kind of size a pitch has, by its direction. */
const PITCH_SIZES: Readonly<Record<string, 'axialDistance' | 'radialDistance'>> = {
  [ALONG_AXIS]: 'axialDistance',
  [ALONG_RADIUS]: 'radialDistance',
}

function refuseCount(count: number): Result<never> | undefined {
  if (Number.isInteger(count) && count >= 2 && count <= MOST_COPIES) return undefined
  return fail('repeat.count', `There can be 2 to ${MOST_COPIES} in all.`, 'Type a whole number.')
}

/** The direction of a repeat as a unit vector. */
function directionOf(sketch: Sketch, along: string): Vec {
  if (along === ALONG_AXIS) return { x: 1, y: 0 }
  if (along === ALONG_RADIUS) return { x: 0, y: 1 }
  const [a, b] = lineEnds(entityMap(sketch), locator(sketch), along)
  return unit(subtract(b, a))
}

/** The points with the one furthest back first, which is where neighbouring copies can meet. */
function startFirst(sketch: Sketch, points: readonly string[], step: Vec): string[] {
  const locate = locator(sketch)
  return [...points].sort((a, b) => dot(locate(a), step) - dot(locate(b), step))
}

/** Adds copies after those there are; a point that falls on one of the copy before is shared. */
function withCopies(
  part: Part,
  sketchId: string,
  entities: readonly Entity[],
  repeat: Pick<Repeat, 'points' | 'along'>,
  step: Vec,
  more: number,
  before: readonly (readonly string[])[],
): Result<{ readonly part: Part; readonly copies: readonly (readonly string[])[] }> {
  let here = part
  const copies = [...before]
  for (let k = 0; k < more; k++) {
    const sketch = here.sketches.find((s) => s.id === sketchId)
    if (!sketch) break
    const locate = locator(sketch)
    const last = copies.at(-1) ?? repeat.points
    const points: Record<string, End> = {}
    repeat.points.forEach((id, j) => {
      const place = add(locate(last[j] ?? id), step)
      const shared = last.find((p) => {
        const q = locate(p)
        return Math.hypot(q.x - place.x, q.y - place.y) <= 1e-4 * Math.hypot(step.x, step.y)
      })
      points[`~${id}`] = shared === undefined ? { at: place } : { at: place, point: shared }
    })
    const placed = placeDraft(here, sketchId, {
      points,
      entities: entities.map((e) => ({ ...withPoints(e, (id) => `~${id}`), id: `~${e.id}` })),
    })
    if (!placed.ok) return placed
    here = placed.value.part
    const { ids } = placed.value
    copies.push(repeat.points.map((id) => ids.get(`~${id}`) ?? id))
  }
  return succeed({ part: here, copies })
}

/** Changes how many there are in all of a repeat: copies are added at its end, or the last taken off. */
export function setRepeatCount(sketchId: string, repeatId: string, count: number): Command {
  return {
    label: 'change repeat',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const repeat = sketch?.constraints.find((c) => c.id === repeatId)
      if (!sketch || repeat?.kind !== 'repeat') {
        return fail('repeat.gone', 'This repeat is gone.', 'Pick another.')
      }
      const bad = refuseCount(count)
      if (bad) return bad
      const now = repeat.copies.length + 1
      if (count === now) return succeed(part)
      if (count < now) return succeed(withSketch(part, withFewer(sketch, repeat, count - 1)))
      const locate = locator(sketch)
      const [a, b] = [repeat.points[0] ?? '', repeat.copies[0]?.[0] ?? '']
      const step = subtract(locate(b), locate(a))
      const held = new Set(repeat.points)
      const entities = sketch.entities.filter((e) => pointsOf(e).every((p) => held.has(p)))
      const made = withCopies(part, sketchId, entities, repeat, step, count - now, repeat.copies)
      if (!made.ok) return made
      const after = made.value.part.sketches.find((s) => s.id === sketchId) ?? sketch
      const longer = { ...repeat, copies: made.value.copies }
      return succeed(
        withSketch(made.value.part, {
          ...after,
          constraints: after.constraints.map((c) => (c.id === repeatId ? longer : c)),
        }),
      )
    },
  }
}

function withFewer(sketch: Sketch, repeat: Repeat, copies: number): Sketch {
  const kept = { ...repeat, copies: repeat.copies.slice(0, copies) }
  const held = new Set([...kept.points, ...kept.copies.flat()])
  const dropped = new Set(
    repeat.copies
      .slice(copies)
      .flat()
      .filter((p) => !held.has(p)),
  )
  const shorter = {
    ...sketch,
    constraints: sketch.constraints.map((c) => (c.id === repeat.id ? kept : c)),
  }
  const gone = shorter.entities.filter((e) => pointsOf(e).some((p) => dropped.has(p)))
  return without(shorter, new Set(gone.map((e) => e.id)))
}
