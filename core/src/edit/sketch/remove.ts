import { referencesOf } from '../../constraints'
import { succeed } from '../../result'
import { withoutPlace } from '../../geometry'
import {
  locator,
  pointsOf,
  standsOn,
  splineOf,
  type Constraint,
  type Sketch,
  type SketchSpline,
} from '../../sketch'
import { sketchCommand, type Command } from '../command'

/**
 * Deletes points, curves, constraints and sizes. What stands on a deleted point or curve goes with
 * it; points that nothing stands on any more go too. A repeat loses only the copies concerned.
 */
export function removeItems(sketchId: string, ids: readonly string[]): Command {
  return sketchCommand(ids.length === 1 ? 'delete' : `delete ${ids.length}`, sketchId, (sketch) =>
    succeed(without(sketch, new Set(ids))),
  )
}

export function without(sketch: Sketch, gone: ReadonlySet<string>): Sketch {
  const entities = sketch.entities
    .map((e) => (e.kind === 'spline' ? thinned(sketch, e, gone) : e))
    .filter((e) => !gone.has(e.id) && !standsOn(e).some((p) => gone.has(p)))
    .filter((e, _, all) => e.kind !== 'parallel' || all.some((other) => other.id === e.of))
  const kept = new Set(entities.map((e) => e.id))
  const lost = sketch.entities.filter((e) => !kept.has(e.id))
  const held = new Set(entities.flatMap(pointsOf))
  const orphans = new Set(lost.flatMap(pointsOf).filter((p) => !held.has(p)))
  const points = sketch.points.filter((p) => !gone.has(p.id) && !orphans.has(p.id))
  const left = new Set([...points.map((p) => p.id), ...entities.map((e) => e.id)])
  const stands = (item: Parameters<typeof referencesOf>[0]): boolean =>
    !gone.has(item.id) && referencesOf(item).every((id) => left.has(id))
  return {
    ...sketch,
    points,
    entities,
    constraints: sketch.constraints.flatMap((c) => trimmed(c, left)).filter(stands),
    sizes: sketch.sizes.filter(stands),
  }
}

/** A free curve without those of its inner points and handles that are gone: it goes by the others. */
function thinned(sketch: Sketch, curve: SketchSpline, gone: ReadonlySet<string>): SketchSpline {
  const locate = locator(sketch)
  const handle = (id: string): string => (gone.has(id) ? '' : id)
  return curve.by.reduce<SketchSpline>(
    (here, point) => {
      if (!gone.has(point)) return here
      const { spans } = withoutPlace(splineOf(here, locate), here.by.indexOf(point) + 1)
      return { ...here, by: here.by.filter((p) => p !== point), spans }
    },
    { ...curve, fromHandle: handle(curve.fromHandle), toHandle: handle(curve.toHandle) },
  )
}

/** A repeat without the points that are gone: rows stay as long as one another. */
function trimmed(c: Constraint, left: ReadonlySet<string>): Constraint {
  if (c.kind !== 'repeat') return c
  const rows = [c.points, ...c.copies]
  const whole = c.points.map((_, j) => rows.every((row) => left.has(row[j] ?? '')))
  if (whole.every(Boolean) || !whole.includes(true)) return c
  const keep = (row: readonly string[]): string[] => row.filter((_, j) => whole[j] === true)
  return { ...c, points: keep(c.points), copies: c.copies.map(keep) }
}
