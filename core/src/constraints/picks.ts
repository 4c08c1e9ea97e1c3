import { ORIGIN_ID, endsOf, roundOf, type Entity, type Sketch } from '../sketch'
import type { Picks } from './kind'

/** Questions about what is picked, for telling which constraints fit. */

export const isPoint = (sketch: Sketch, id: string): boolean =>
  id === ORIGIN_ID || sketch.points.some((p) => p.id === id)

export const entityOf = (sketch: Sketch, id: string): Entity | undefined =>
  sketch.entities.find((e) => e.id === id)

export const isLine = (sketch: Sketch, id: string): boolean => entityOf(sketch, id)?.kind === 'line'

export const isRound = (sketch: Sketch, id: string): boolean =>
  roundOf(entityOf(sketch, id)) !== undefined

export const linesIn = (sketch: Sketch, picks: Picks): string[] =>
  picks.filter((id) => isLine(sketch, id))

export const ownPointsIn = (sketch: Sketch, picks: Picks): string[] =>
  picks.filter((id) => sketch.points.some((p) => p.id === id))

export const endsIn = (sketch: Sketch, id: string): readonly string[] => {
  const entity = entityOf(sketch, id)
  return entity ? endsOf(entity) : []
}

/** The first pick with every other, if all are of a kind. */
export function fromFirst(
  sketch: Sketch,
  picks: Picks,
  fits: (sketch: Sketch, id: string) => boolean,
): readonly (readonly [first: string, other: string])[] {
  const [first, ...rest] = picks
  if (first === undefined || rest.length === 0) return []
  return picks.every((id) => fits(sketch, id)) ? rest.map((other) => [first, other]) : []
}
