import type { Constraint, Entity, Size, Sketch } from '@lathica/core/sketch'
import { constraintResiduals, emptyBasis, gradients, measured, natureOf } from './oracle'
import type { Places } from './places'

type Values = readonly (readonly [string, number])[]

/** A sketch to solve, with its values by size. */
export interface Asked {
  readonly sketch: Sketch
  readonly values: Values
}

/** Sketches with less in them: halves of what is asked left out, an entity with all that speaks of it, one demand. */
export function* smallerSketches({ sketch, values }: Asked): Iterable<Asked> {
  const items = [...sketch.constraints, ...sketch.sizes]
  const without = (left: ReadonlySet<string>): Asked => ({
    sketch: tidied({
      ...sketch,
      entities: sketch.entities.filter((e) => !left.has(e.id)),
      constraints: sketch.constraints.filter((c) => !left.has(c.id)),
      sizes: sketch.sizes.filter((s) => !left.has(s.id)),
    }),
    values: values.filter(([id]) => !left.has(id)),
  })
  const half = Math.floor(items.length / 2)
  for (const some of half > 0 ? [items.slice(0, half), items.slice(half)] : []) {
    yield without(new Set(some.map((item) => item.id)))
  }
  for (const { id } of sketch.entities) {
    yield without(new Set([id, ...items.filter((item) => speaksOf(item, id)).map((i) => i.id)]))
  }
  for (const { id } of items) yield without(new Set([id]))
}

/** In how many ways a sketch can move at a place where all holds, by the rank of everything there. */
export function freedomsAt(sketch: Sketch, places: Places): number {
  const ids = sketch.points.map((p) => p.id)
  const here = new Map(ids.flatMap((id) => [[id, places.get(id) ?? { x: 0, y: 0 }] as const]))
  const basis = emptyBasis()
  const add = (residualsAt: (at: Places) => number[]): void => {
    for (const row of gradients(ids, here, residualsAt)) basis.add(row, 1e-6)
  }
  for (const e of sketch.entities) add((at) => natureOf(e, at))
  for (const c of sketch.constraints) add((at) => constraintResiduals(sketch, c, at))
  for (const s of sketch.sizes) add((at) => [measured(sketch, s, at)])
  return 2 * ids.length - basis.rank()
}

/** Points that nothing speaks of any more are left out. */
function tidied(sketch: Sketch): Sketch {
  const all = [...sketch.entities, ...sketch.constraints, ...sketch.sizes]
  return { ...sketch, points: sketch.points.filter((p) => all.some((o) => speaksOf(o, p.id))) }
}

/** Whether an id stands anywhere in what is said, but for its own. */
function speaksOf(item: Constraint | Size | Entity, id: string): boolean {
  const { id: _own, ...rest } = item
  const found = (value: unknown): boolean =>
    Array.isArray(value) ? value.some(found) : value === id
  return Object.values(rest).some(found)
}
