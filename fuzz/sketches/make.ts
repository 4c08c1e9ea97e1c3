import type { Constraint, Size, Sketch } from '@lathica/core/sketch'
import type { Random } from '../random'
import { Drawing } from './drawing'
import { constraintResiduals, emptyBasis, gradients, measured, natureOf } from './oracle'
import type { Place, Places } from './places'

/** A sketch whose constraints and sizes all hold at a place, and are independent of one another there. */
export interface WellPosed {
  readonly sketch: Sketch
  readonly values: ReadonlyMap<string, number>
  /** Where all holds. */
  readonly intended: Places
  /** In how many ways it can still move. */
  readonly freedoms: number
  /** A size more, which says only what the others say already. */
  readonly spare: Size | undefined
}

/** Shares of a new row that must be its own; below it a sketch is too near to a special place to judge. */
const OWN = 2e-3

/** A sketch of so many things, mostly tied down. */
export function wellPosed(random: Random, things: number, withSpare = false): WellPosed {
  for (;;) {
    const made = tiedDown(random, things, withSpare)
    if (!collapsed(made.sketch, made.intended)) return made
  }
}

/** Whether a line or circle has hardly any length: no direction can be told from it. */
export function collapsed(sketch: Sketch, places: Places): boolean {
  const at = (id: string): Place => places.get(id) ?? { x: 0, y: 0 }
  return sketch.entities.some((e) => {
    const [p, q] = e.kind === 'circle' ? [at(e.centre), at(e.rim)] : [at(e.from), at(e.to)]
    return Math.hypot(q.x - p.x, q.y - p.y) < 0.05
  })
}

function tiedDown(random: Random, things: number, withSpare: boolean): WellPosed {
  const drawing = new Drawing(random)
  for (let i = 0; i < things; i++) drawing.step()
  const { places, entities } = drawing
  const ids = [...places.keys()]
  const bare: Sketch = {
    id: 's',
    name: 'A',
    plane: 'half',
    nextId: 9999,
    points: ids.map((id) => ({ id, ...drawing.at(id) })),
    entities,
    constraints: [],
    sizes: [],
  }
  const basis = emptyBasis()
  /** Takes all rows of something, or none. */
  const takes = (rows: readonly Float64Array[]): boolean => {
    const mark = basis.mark()
    for (const row of rows) {
      if (basis.add(row, OWN) >= OWN) continue
      basis.back(mark)
      return false
    }
    return rows.length > 0
  }
  for (const e of entities) takes(gradients(ids, places, (at) => natureOf(e, at)))
  const constraints: Constraint[] = []
  const sizes: Size[] = []
  const values = new Map<string, number>()
  const wish = (c: Constraint): void => {
    if (takes(gradients(ids, places, (at) => constraintResiduals(bare, c, at)))) constraints.push(c)
  }
  drawing.wishes.forEach((w, i) => {
    if (random.chance(0.9)) wish({ ...w, id: `c${i}` } as Constraint)
  })
  const left = random.chance(0.4) ? 0 : random.below(1 + Math.ceil(ids.length / 2))
  for (let tries = 0; tries < 12 * ids.length && 2 * ids.length - basis.rank() > left; tries++) {
    const found = drawing.size()
    if (!found) continue
    const id = `s${sizes.length}`
    const size = { ...found, id, name: id, formula: '', reference: false } as Size
    const value = measured(bare, size, places)
    if (!(value > (size.kind === 'angle' ? 0.15 : 0.5))) continue
    if (size.kind === 'angle' && value > Math.PI - 0.15) continue
    if (!takes(gradients(ids, places, (at) => [measured(bare, size, at)]))) continue
    sizes.push(size)
    values.set(id, value)
  }
  // What is left may be held to a place.
  for (let tries = 0; tries < 3 && 2 * ids.length - basis.rank() > left; tries++) {
    const point = random.pick(ids)
    wish({ id: `f${tries}`, kind: 'fixed', point, ...drawing.at(point) })
  }
  /** A size that says nothing new: at the intended place its row follows from the others. */
  const spare = (): Size | undefined => {
    for (let tries = 0; tries < 60; tries++) {
      const found = drawing.size()
      if (!found) continue
      const size = { ...found, id: 'spare', name: 'spare', formula: '', reference: false } as Size
      const value = measured(bare, size, places)
      const told = size.kind === 'angle' ? value > 0.3 && value < 2 : value > 2
      const [row] = gradients(ids, places, (at) => [measured(bare, size, at)])
      if (!told || !row || Math.hypot(...row) < 1e-2 || basis.add(row, Infinity) > 1e-8) continue
      if (
        sizes.some(
          (s) =>
            s.kind === size.kind &&
            JSON.stringify({ ...s, id: '', name: '' }) ===
              JSON.stringify({ ...size, id: '', name: '' }),
        )
      )
        continue
      return size
    }
    return undefined
  }
  return {
    sketch: { ...bare, constraints, sizes },
    values,
    intended: places,
    freedoms: 2 * ids.length - basis.rank(),
    spare: withSpare ? spare() : undefined,
  }
}

/** The sketch with each point moved by up to a share of the extent. */
export function displaced({ sketch, intended }: WellPosed, share: number, random: Random): Sketch {
  const all = [...intended.values()]
  const span = (way: 'x' | 'y'): number =>
    Math.max(...all.map((p) => p[way])) - Math.min(...all.map((p) => p[way]))
  const extent = Math.max(span('x'), span('y'))
  return {
    ...sketch,
    points: sketch.points.map((p) => {
      const [by, way] = [share * extent * random(), 2 * Math.PI * random()]
      const { x, y } = intended.get(p.id) ?? p
      return { ...p, x: x + by * Math.cos(way), y: y + by * Math.sin(way) }
    }),
  }
}
