import type { PartState } from '../../route'
import { edgesOf, liesOnAxis, type Section } from '../../section'

/** A body as a view shows it. */
export interface Shown {
  readonly bodyId: string
  readonly section: Section
  /** Drawn whole in a section along it: shafts, pins, keys (ISO 128-3:2020). */
  readonly whole: boolean
}

/** What a sheet shows of a part. @param only the body that it is of, if it is not of all */
export function shownBodies({ part, bodies }: PartState, only = ''): Shown[] {
  const own = bodies.filter(
    (b) => !b.reference && b.section.regions.length > 0 && (only === '' || b.bodyId === only),
  )
  const visible = own.filter((b) => part.bodies.find((p) => p.id === b.bodyId)?.visible !== false)
  return visible.map(({ bodyId, section }) => ({
    ...{ bodyId, section, whole: own.length > 1 && isSolid(section) },
  }))
}

/** Solid right through along the axis: what is not cut lengthwise where it stands in something else. */
function isSolid(section: Section, share = 0.98): boolean {
  const edges = edgesOf(section)
  const onAxis = edges.filter(liesOnAxis)
  const reach = (all: typeof edges): number => {
    const xs = all.flatMap((e) => [e.piece.from.x, e.piece.to.x])
    return Math.max(...xs) - Math.min(...xs)
  }
  const length = onAxis.reduce((sum, e) => sum + Math.abs(e.piece.to.x - e.piece.from.x), 0)
  return (
    onAxis.length > 0 &&
    section.regions.every((r) => r.holes.length === 0) &&
    length > share * reach(edges)
  )
}

/** Whether something of the part is seen only when it is cut; centre holes and the like are told in words. */
export const isHollow = (bodies: readonly Shown[]): boolean =>
  bodies.some((b) => !isSolid(b.section, 0.8))
