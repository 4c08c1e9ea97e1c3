import { numbered, poleName } from '../../names'
import type { Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { edgesOf, edgeKey, liesOnAxis, type Section, type SectionEdge } from '../types'
import { once } from '../../once'

/** A point of the part on its axis: the tip of a cone, the top of a ball, the middle of a face. */
export interface Pole {
  /** The key of the edge that ends there, `|axis`, and a count where it has two. */
  readonly key: string
  /** In mm; `y` is 0. */
  readonly at: Vec
  readonly edge: SectionEdge
}

/** Where the outline of a section comes to the axis. Edges of one name count along the axis. */
export const polesOf = once((section: Section): readonly Pole[] => {
  const ends = edgesOf(section)
    .filter((edge) => !liesOnAxis(edge))
    .flatMap((edge) =>
      [edge.piece.from, edge.piece.to]
        .filter((end) => end.y <= VERTEX_TOLERANCE)
        .map((end) => ({ at: { x: end.x, y: 0 }, edge })),
    )
    .sort((a, b) => a.at.x - b.at.x)
  const counts = new Map<string, number>()
  return ends.map(({ at, edge }): Pole => {
    const key = poleName(edgeKey(edge.name))
    const count = (counts.get(key) ?? 0) + 1
    counts.set(key, count)
    return { key: numbered(key, count), at, edge }
  })
})
