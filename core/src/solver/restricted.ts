import { AXIS_ID, ORIGIN_ID, pointsOf, type Constraint, type Size, type Sketch } from '../sketch'

/** The constraints and sizes of some ids alone, with just the entities and points they are about. */
export function restrictedTo(sketch: Sketch, ids: ReadonlySet<string>): Sketch {
  const constraints = sketch.constraints.filter((c) => ids.has(c.id))
  const sizes = sketch.sizes.filter((s) => ids.has(s.id))
  const named = new Set([...constraints, ...sizes].flatMap(namesIn))
  const entities = sketch.entities.filter((e) => named.has(e.id))
  for (const e of entities) for (const p of pointsOf(e)) named.add(p)
  // Arcs are round even where only their points are spoken of.
  const round = sketch.entities.filter(
    (e) =>
      e.kind !== 'line' && !named.has(e.id) && pointsOf(e).filter((p) => named.has(p)).length > 1,
  )
  for (const e of round) for (const p of pointsOf(e)) named.add(p)
  const kept = new Set([...entities, ...round])
  return {
    ...sketch,
    points: sketch.points.filter((p) => named.has(p.id)),
    entities: sketch.entities.filter((e) => kept.has(e)),
    constraints,
    sizes,
  }
}

/** All ids that a constraint or size speaks of. */
function namesIn(item: Constraint | Size): string[] {
  const { id: _own, kind: _kind, ...rest } = item
  const words = Object.values(rest).flat(2)
  return words.filter((w): w is string => typeof w === 'string' && w !== AXIS_ID && w !== ORIGIN_ID)
}
