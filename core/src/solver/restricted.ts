import { AXIS_ID, ORIGIN_ID, pointsOf, type Constraint, type Size, type Sketch } from '../sketch'

/** The constraints and sizes of some ids alone, with just the entities and points they are about. */
export function restrictedTo(sketch: Sketch, ids: ReadonlySet<string>): Sketch {
  const constraints = sketch.constraints.filter((c) => ids.has(c.id))
  const sizes = sketch.sizes.filter((s) => ids.has(s.id))
  const named = new Set([...constraints, ...sizes].flatMap(namesIn))
  const entities = sketch.entities.filter((e) => named.has(e.id))
  for (const e of entities) for (const p of pointsOf(e)) named.add(p)
  // Rounds are round even where only their points are spoken of: a rim is level with its centre, and both
  // ends of an arc are as far from it. What they hold together may hold others together in turn.
  const kept = new Set(entities)
  for (let before = -1; before < kept.size;) {
    before = kept.size
    for (const e of sketch.entities) {
      if (e.kind === 'line' || kept.has(e)) continue
      const points = pointsOf(e)
      if (points.filter((p) => named.has(p)).length < points.length - 1) continue
      kept.add(e)
      for (const p of points) named.add(p)
    }
  }
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
  const words = Object.entries(rest).flatMap(([key, word]) =>
    WORDS.has(key) ? [] : [word].flat(2),
  )
  return words.filter((w): w is string => typeof w === 'string' && w !== AXIS_ID && w !== ORIGIN_ID)
}

/** What is typed by the user names nothing, even where it reads like an id. */
const WORDS = new Set(['name', 'formula'])
