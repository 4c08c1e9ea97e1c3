import {
  boundsOf,
  distance,
  lengthOf,
  meetOnlyAtEnd,
  meetingsOf,
  pointAt,
  type Box,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { ProfileFault, SectionEdge } from './types'

/** Edges that have no length, which no outline can use. */
export function zeroLengthFaults(edges: readonly SectionEdge[]): ProfileFault[] {
  return edges
    .filter((e) => lengthOf(e.piece) <= VERTEX_TOLERANCE)
    .map((e) => ({ kind: 'zeroLength', at: e.piece.from, entities: [e.name.entity] }))
}

/** Edges that reach below the axis, with their lowest end or middle. */
export function axisFaults(edges: readonly SectionEdge[]): ProfileFault[] {
  const told = new Set<string>()
  return edges.flatMap((e): ProfileFault[] => {
    // A free curve is several edges, and is told once.
    if (boundsOf(e.piece).min.y >= -VERTEX_TOLERANCE || told.has(e.name.entity)) return []
    told.add(e.name.entity)
    const at = [0, 0.5, 1]
      .map((t) => pointAt(e.piece, t))
      .reduce((low, p) => (p.y < low.y ? p : low))
    return [{ kind: 'belowAxis', at, entities: [e.name.entity] }]
  })
}

/** Places where two edges meet other than end to end. A sweep along the axis finds near pairs. */
export function crossingFaults(edges: readonly SectionEdge[]): ProfileFault[] {
  const boxes = edges.map((e) => boundsOf(e.piece))
  const order = [...edges.keys()].sort((a, b) => (boxes[a]?.min.x ?? 0) - (boxes[b]?.min.x ?? 0))
  const faults: ProfileFault[] = []
  let active: number[] = []
  for (const i of order) {
    const box = boxes[i]
    const edge = edges[i]
    if (!box || !edge) continue
    active = active.filter((j) => (boxes[j]?.max.x ?? 0) >= box.min.x - VERTEX_TOLERANCE)
    for (const j of active) {
      const other = edges[j]
      const otherBox = boxes[j]
      if (!other || !otherBox || !overlapInY(box, otherBox)) continue
      if (meetOnlyAtEnd(edge.piece, other.piece)) continue
      const meeting = meetingsOf(edge.piece, other.piece, VERTEX_TOLERANCE).find(
        (m) => !isEnd(m.at, edge) || !isEnd(m.at, other),
      )
      const doubled = !meeting && sharesBothEnds(edge, other) && sameMiddle(edge, other)
      if (meeting || doubled) {
        const at = meeting?.at ?? pointAt(edge.piece, 0.5)
        const kind = doubled ? 'doubled' : 'crossing'
        faults.push({ kind, at, entities: [other.name.entity, edge.name.entity] })
      }
    }
    active.push(i)
  }
  return faults
}

function overlapInY(a: Box, b: Box): boolean {
  return a.min.y <= b.max.y + VERTEX_TOLERANCE && b.min.y <= a.max.y + VERTEX_TOLERANCE
}

function isEnd(p: Vec, edge: SectionEdge): boolean {
  const { from, to } = edge.piece
  return Math.min(distance(p, from), distance(p, to)) <= VERTEX_TOLERANCE
}

function sharesBothEnds(a: SectionEdge, b: SectionEdge): boolean {
  return isEnd(a.piece.from, b) && isEnd(a.piece.to, b)
}

function sameMiddle(a: SectionEdge, b: SectionEdge): boolean {
  return distance(pointAt(a.piece, 0.5), pointAt(b.piece, 0.5)) <= VERTEX_TOLERANCE
}
