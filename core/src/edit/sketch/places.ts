import { fail, succeed, type Result } from '../../result'
import { settle, sketchStates } from '../../route'
import { add, distance, mix, nearestOn, line, subtract, type Vec } from '../../geometry'
import { entityName, handlesAt, locator, type Fixed, type Sketch } from '../../sketch'
import { describeItem, findItem, type NewConstraint } from '../../constraints'
import type { Part } from '../../part'
import { withSketch, type Command } from '../command'
import { disagreementsOf } from './disagreement'
import { placeDraft, withTiesThatFit } from './draft'

/** Where points are to stand, in mm; what is left out stays as it is. */
export interface TypedPlace {
  readonly x?: number
  readonly y?: number
}

/** A point that comes to rest farther than this from where it was told to stand, in mm, is held elsewhere. */
const THERE = 1e-6

/** Puts points where they are told to stand, and the rest of the sketch as that takes. */
export const placePoints = (sketchId: string, ids: readonly string[], to: TypedPlace): Command =>
  pointsCommand('place', sketchId, ids, (part, { locate }) =>
    standingAt(part, sketchId, new Map(ids.map((id) => [id, { ...locate(id), ...to }]))),
  )

/** Moves points, and the rest of the sketch as that takes. @param by in mm */
export const nudgePoints = (sketchId: string, ids: readonly string[], by: Vec): Command =>
  pointsCommand('move', sketchId, ids, (part, { locate }) =>
    standingAt(part, sketchId, new Map(ids.map((id) => [id, add(locate(id), by)]))),
  )

/** What points are flattened onto: one radius, one place along the axis, or the line between the outer two. */
export type Onto = 'radius' | 'place' | 'line'

/**
 * Flattens points onto the mean of their radii or of their places along the axis, or onto the straight line between
 * the two that are farthest apart.
 * @param keep whether constraints keep them there; for a line a construction line is drawn to hold them
 */
export const flattenPoints = (
  sketchId: string,
  ids: readonly string[],
  onto: Onto,
  keep: boolean,
): Command =>
  pointsCommand('flatten', sketchId, ids, (part, { locate }) => {
    const [first = '', ...rest] = ids
    if (rest.length < (onto === 'line' ? 2 : 1)) {
      const least = onto === 'line' ? 'three points' : 'two points'
      return fail('flatten.few', 'These are too few to flatten.', `Pick ${least} or more.`)
    }
    const places = ids.map(locate)
    const mean = (of: 'x' | 'y'): number =>
      places.reduce((sum, p) => sum + p[of], 0) / places.length
    if (onto !== 'line') {
      const to = onto === 'radius' ? { y: mean('y') } : { x: mean('x') }
      const flat = standingAt(
        part,
        sketchId,
        new Map(ids.map((id) => [id, { ...locate(id), ...to }])),
      )
      if (!flat.ok || !keep) return flat
      const along = onto === 'radius' ? 'axial' : 'radial'
      const ties = rest.map((b): NewConstraint => ({ kind: 'inLine', a: first, b, along }))
      return succeed(withTiesThatFit(flat.value, sketchId, ties))
    }
    const [a, b] = outermost(ids, locate)
    const straight = line(locate(a), locate(b))
    if (distance(straight.from, straight.to) <= THERE) {
      return fail('flatten.one', 'These points are all in one place.', 'Move them apart first.')
    }
    const foot = (p: Vec): Vec => mix(straight.from, straight.to, nearestOn(straight, p).t)
    const flat = standingAt(part, sketchId, new Map(ids.map((id) => [id, foot(locate(id))])))
    if (!flat.ok || !keep) return flat
    const between = ids.filter((id) => id !== a && id !== b)
    const drawn = placeDraft(flat.value, sketchId, {
      points: { '~a': { at: locate(a), point: a }, '~b': { at: locate(b), point: b } },
      entities: [{ id: '~line', kind: 'line', from: '~a', to: '~b', role: 'construction' }],
      ties: between.map((point) => ({ kind: 'pointOn', point, curve: '~line' })),
    })
    return drawn.ok ? succeed(drawn.value.part) : drawn
  })

/** The two of some points that are farthest apart. */
function outermost(ids: readonly string[], locate: (id: string) => Vec): readonly [string, string] {
  let best: readonly [string, string] = [ids[0] ?? '', ids[1] ?? '']
  let most = -1
  ids.forEach((a, i) =>
    ids.slice(i + 1).forEach((b) => {
      const apart = distance(locate(a), locate(b))
      if (apart > most) [most, best] = [apart, [a, b]]
    }),
  )
  return best
}

/** An edit of points that are all there. */
function pointsCommand(
  verb: string,
  sketchId: string,
  ids: readonly string[],
  edit: (part: Part, at: { readonly locate: (id: string) => Vec }) => Result<Part>,
): Command {
  return {
    label: ids.length === 1 ? `${verb} point` : `${verb} ${ids.length} points`,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const known = new Set(sketch?.points.map((p) => p.id))
      if (!sketch || !ids.every((id) => known.has(id))) {
        return fail('point.gone', 'A point to move is gone.', 'Pick again.')
      }
      return edit(part, { locate: locator(sketch) })
    },
  }
}

/** The part with points of a sketch where they are told to stand; refused where something holds them. */
function standingAt(part: Part, sketchId: string, targets: ReadonlyMap<string, Vec>): Result<Part> {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
  // Held there for once, so that the rest follows and not they.
  const holds = [...targets].map(([point, { x, y }], i): Fixed => ({
    ...{ id: `~${i}`, kind: 'fixed', point, x, y },
  }))
  const before = locator(sketch)
  // Handles of ends that are moved go along, as far as nothing holds them.
  const along = new Map(
    [...targets].flatMap(([id, to]) => {
      const by = subtract(to, before(id))
      return handlesAt(sketch, [id]).map((h) => [h, add(before(h), by)] as const)
    }),
  )
  const tried = settle(
    withSketch(part, {
      ...sketch,
      points: sketch.points.map((p) => ({ ...p, ...along.get(p.id), ...targets.get(p.id) })),
      constraints: [...sketch.constraints, ...holds],
    }),
  )
  const settled: Sketch = tried.sketches.find((s) => s.id === sketchId) ?? sketch
  const after = locator(settled)
  const solved = sketchStates(tried).get(sketchId)?.solution.solved === true
  const off = [...targets].find(([id, to]) => distance(after(id), to) > THERE)?.[0]
  if (off !== undefined || !solved) {
    const name = entityName(sketch, off ?? [...targets.keys()][0] ?? '')
    const against = disagreementsOf(tried, sketchId).flatMap((d) => d.members)
    const items = [...new Set(against)].flatMap((id) => findItem(sketch, id) ?? [])
    const what = items.map((item) => describeItem(sketch, item)).join(', ')
    const held = what === '' ? 'sizes or constraints hold it' : `it is held by ${what}`
    return fail(
      'place.held',
      `${name.charAt(0).toUpperCase()}${name.slice(1)} cannot stand there: ${held}.`,
      'Change those, or choose another place.',
    )
  }
  return succeed(withSketch(tried, { ...settled, constraints: sketch.constraints }))
}
