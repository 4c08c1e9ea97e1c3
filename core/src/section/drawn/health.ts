import {
  boundsOf,
  distance,
  lengthOf,
  meetOnlyAtEnd,
  meetingsOf,
  nearestOn,
  pointAt,
  type Meeting,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { boxesOf, forNearPairs } from '../engine/nearPairs'
import type { ProfileFault, SectionEdge } from '../types'

/** Edges that have no length, which no outline can use. */
export function zeroLengthFaults(edges: readonly SectionEdge[]): ProfileFault[] {
  return edges
    .filter(({ piece }) => {
      // What ends elsewhere has a length, whatever that is.
      if (distance(piece.from, piece.to) > VERTEX_TOLERANCE) return false
      return lengthOf(piece) <= VERTEX_TOLERANCE
    })
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

/** Where edges cross or are doubled, and where others end on them: per edge in its own direction. */
export interface MeetingsAmong {
  readonly faults: readonly ProfileFault[]
  readonly cuts: ReadonlyMap<SectionEdge, readonly Vec[]>
}

/**
 * Looks at where edges meet other than end to end. A single edge may end on another, which it divides
 * there; all else is a fault. A sweep along the axis finds near pairs.
 */
export function meetingsAmong(edges: readonly SectionEdge[]): MeetingsAmong {
  const faults: ProfileFault[] = []
  const cuts = new Map<SectionEdge, { readonly at: Vec; readonly t: number }[]>()
  const endsOnlyAt = (p: Vec): boolean => edges.filter((e) => isEnd(p, e)).length === 1
  const cut = (edge: SectionEdge, at: Vec, t: number): void => {
    const known = cuts.get(edge) ?? []
    if (!known.some((c) => distance(c.at, at) <= VERTEX_TOLERANCE)) known.push({ at, t })
    cuts.set(edge, known)
  }
  forNearPairs(boxesOf(edges), none, (i, j) => {
    // A tangle is none the less one for being told no further.
    if (faults.length >= MOST_TOLD) return
    const [edge, other] = [edges[i], edges[j]]
    if (!edge || !other || meetOnlyAtEnd(edge.piece, other.piece, VERTEX_TOLERANCE)) return
    const all = meetingsOf(edge.piece, other.piece, VERTEX_TOLERANCE)
    const inside = all.filter((m) => !isEnd(m.at, edge) || !isEnd(m.at, other))
    const doubled = inside.length === 0 && sharesBothEnds(edge, other) && sameMiddle(edge, other)
    const entities = [other.name.entity, edge.name.entity]
    if (doubled) {
      faults.push({ kind: 'doubled', at: pointAt(edge.piece, 0.5), entities })
    } else if (
      inside.every((m) => ends(m, edge, other) && endsOnlyAt(m.at)) &&
      !runAlong(edge, other, all)
    ) {
      for (const m of inside) {
        if (isEnd(m.at, edge)) cut(other, m.at, m.u)
        else cut(edge, m.at, m.t)
      }
    } else
      faults.push({ kind: 'crossing', at: inside[0]?.at ?? pointAt(edge.piece, 0.5), entities })
  })
  const sorted = [...cuts].map(
    ([edge, list]) => [edge, list.sort((a, b) => a.t - b.t).map((c) => c.at)] as const,
  )
  return { faults, cuts: new Map(sorted) }
}

const none = (): boolean => false

/** So many crossings are told of a profile at most. */
const MOST_TOLD = 100

/** Whether one of two edges ends where they meet. */
const ends = ({ at }: Meeting, a: SectionEdge, b: SectionEdge): boolean =>
  isEnd(at, a) || isEnd(at, b)

/** Whether two edges share a stretch: somewhere between two of their meetings they lie on one another. */
function runAlong(edge: SectionEdge, other: SectionEdge, meetings: readonly Meeting[]): boolean {
  const along = [...meetings].sort((a, b) => a.t - b.t)
  return along.slice(1).some((m, i) => {
    const middle = pointAt(edge.piece, (m.t + (along[i]?.t ?? 0)) / 2)
    return nearestOn(other.piece, middle).distance <= 4 * VERTEX_TOLERANCE
  })
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
