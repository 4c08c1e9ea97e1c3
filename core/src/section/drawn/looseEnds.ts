import { distance } from '../../geometry'
import { degreeOf, leavingFrom, twin, type Arrangement } from '../engine/arrangement'
import { isOnAxis, singleEnds } from './faces'
import type { ProfileFault, SectionEdge } from '../types'

/** Edges that hang by both ends, and where the others are loose. */
interface Hanging {
  readonly kept: SectionEdge[]
  readonly faults: ProfileFault[]
}

/**
 * Takes off edges that hang by one end, again and again, and reports where they began.
 * @param half whether an end on the axis is held there, as others can be joined to it along the axis
 */
export function withoutLooseEnds(arrangement: Arrangement, half: boolean): Hanging {
  const { edges, vertices, startOf } = arrangement
  const degree = vertices.map((_, v) => degreeOf(arrangement, v))
  // One that is left over on the axis begins what is not drawn to its end.
  const isLeftOver = half && singleEnds(arrangement).length % 2 === 1
  const ends = [...degree.keys()].filter((v) => degree[v] === 1)
  if (half) vertices.forEach((p, v) => isOnAxis(p) && (degree[v] = Infinity))
  const gone = new Uint8Array(edges.length)
  const loose = ends.filter((v) => degree[v] === 1)
  for (let v = loose.pop(); v !== undefined; v = loose.pop()) {
    const halfEdge = leavingFrom(arrangement, v).find((h) => gone[h >> 1] === 0)
    if (halfEdge === undefined) continue
    gone[halfEdge >> 1] = 1
    const other = startOf[twin(halfEdge)] ?? 0
    degree[other] = (degree[other] ?? 1) - 1
    if (degree[other] === 1) loose.push(other)
  }
  const edgeAt = (v: number): number => (leavingFrom(arrangement, v)[0] ?? 0) >> 1
  const told = ends.filter((v) => degree[v] !== Infinity || (isLeftOver && gone[edgeAt(v)] === 1))
  const faults = told.map((v): ProfileFault => {
    const at = vertices[v] ?? { x: 0, y: 0 }
    const others = told.flatMap((w) => (w === v ? [] : (vertices[w] ?? [])))
    const edge = edges[edgeAt(v)]
    const entities = edge ? [edge.name.entity] : []
    const gaps = others.map((p) => distance(p, at))
    return { kind: 'open', at, entities, ...(gaps.length > 0 ? { gap: Math.min(...gaps) } : {}) }
  })
  return { kept: edges.filter((_, i) => gone[i] === 0), faults }
}
