import { endsOf, pointsOf } from './measure'
import type { DrawnSketch, Entity, SketchPoint } from './types'

/** What runs from one point to another. */
export type Ended = Exclude<Entity, { kind: 'circle' }>

/** A link of a chain as it is run through. */
export interface ChainLink {
  readonly entity: Ended
  readonly from: string
  readonly to: string
}

/** The picked curves in the order in which they hang together; undefined when they branch or part. */
export function chainOf(
  sketch: DrawnSketch,
  ids: readonly string[],
): readonly ChainLink[] | undefined {
  const entities = sketch.entities.filter(
    (e): e is Ended => ids.includes(e.id) && e.kind !== 'circle',
  )
  const meeting = (point: string): Ended[] => entities.filter((e) => endsOf(e).includes(point))
  const branches = entities.some((e) => endsOf(e).some((p) => meeting(p).length > 2))
  const [any] = entities
  if (!any || branches) return undefined
  const loose = entities.find((e) => endsOf(e).some((p) => meeting(p).length === 1)) ?? any
  const links: ChainLink[] = []
  let here = meeting(loose.from).length === 1 || loose === any ? loose.from : loose.to
  if (meeting(here).length > 1 && meeting(loose.to).length === 1) here = loose.to
  const left = new Set(entities)
  for (let next: Ended | undefined = loose; next;) {
    left.delete(next)
    const to: string = next.from === here ? next.to : next.from
    links.push({ entity: next, from: here, to })
    here = to
    next = meeting(here).find((e) => left.has(e))
  }
  return left.size === 0 ? links : undefined
}

/** Where a sketch places holes: its points that nothing is drawn to, and the centres of its circles. */
export function holePlaces({ points, entities }: DrawnSketch): readonly SketchPoint[] {
  const circles = entities.filter((e) => e.kind === 'circle')
  const drawn = new Set(
    entities.flatMap((e) => {
      if (e.kind === 'circle') return [e.rim, ...(e.role === 'outline' ? [] : [e.centre])]
      return pointsOf(e)
    }),
  )
  const centres = new Set(circles.filter((c) => c.role === 'outline').map((c) => c.centre))
  return points.filter((p) => centres.has(p.id) || !drawn.has(p.id))
}
