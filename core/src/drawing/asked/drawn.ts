import type { Vec } from '../../geometry'
import type { EdgePlace, SheetSetup } from '../../part'
import type { PartState } from '../../route'
import { cornersOf } from '../../section'
import { formatLength } from '../../units'
import type { Asked, Shape } from './asked'

/** A place that sizes can be drawn from: a corner of a body's section, where a circular edge is. */
export interface DrawnPlace {
  readonly body: string
  readonly key: string
  readonly at: Vec
}

/** Where the corners of a body are. */
export function drawnPlaces(state: PartState, body: string): DrawnPlace[] {
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  return section ? cornersOf(section).map(({ key, at }) => ({ body, key, at })) : []
}

/** Where an edge that was chosen by hand is; undefined where it is gone. */
export const edgePlaceAt = (state: PartState, { body, corner }: EdgePlace): Vec | undefined =>
  drawnPlaces(state, body).find((p) => p.key === corner)?.at

/** The sizes that were drawn on a sheet, in parentheses as they drive nothing (ISO 129-1:2018, 9.4). */
export function drawnSizes(state: PartState, { drawn }: SheetSetup): Asked[] {
  return drawn.flatMap(({ id, kind, body, from, to }): Asked[] => {
    const places = drawnPlaces(state, body)
    const find = (key: string): Vec | undefined => places.find((p) => p.key === key)?.at
    const [a, b] = [find(from), find(to)]
    if (!a || !b) return []
    const shape: Shape =
      kind === 'across'
        ? { kind, at: a, inside: false }
        : kind === 'radial'
          ? { kind, from: a, to: b }
          : { kind, from: a, to: b, inside: false }
    const value =
      kind === 'across' ? 2 * a.y : kind === 'radial' ? Math.abs(a.y - b.y) : Math.abs(a.x - b.x)
    const text = `(${kind === 'across' ? '⌀' : ''}${formatLength(value, state.part.units)})`
    return [{ id, shows: [], shape, lines: [{ text }], value, body }]
  })
}
