import {
  cornersOf,
  distance,
  edgeKey,
  edgesOf,
  liesOnAxis,
  nearestOn,
  windingAround,
  type BodyState,
  type Corner,
  type Section,
  type SectionEdge,
  type Vec,
} from '@lathica/core'

/** What can be referred to: a face, a straight one, one square to the axis, a circular edge, or any. */
export type Accept = 'face' | 'straight' | 'plane' | 'corner' | 'any'

/** A face or a circular edge of a body, as it stands. */
export interface SectionRef {
  readonly body: string
  readonly key: string
  readonly edge?: SectionEdge
  readonly corner?: Corner
}

/** Within the reach, a circular edge counts as so much nearer than a face. */
const EDGE_FIRST = 0.4

type Standing = Pick<BodyState, 'bodyId' | 'section'>

/** What lies nearest to a place, within a reach in mm, of what is accepted. */
export function refAt(
  bodies: readonly Standing[],
  place: Vec,
  reach: number,
  accept: Accept,
): SectionRef | undefined {
  // Below the axis lies the mirror image of the same part.
  const at = { x: place.x, y: Math.abs(place.y) }
  let best: { readonly ref: SectionRef; readonly far: number } | undefined
  const offer = (ref: SectionRef, far: number): void => {
    if (far <= reach && (!best || far < best.far)) best = { ref, far }
  }
  for (const { bodyId, section } of bodies) {
    if (accept === 'corner' || accept === 'any') {
      for (const corner of cornersOf(section)) {
        // Where faces and edges may be picked an edge has its faces beside it, and goes first.
        const near = accept === 'any' ? EDGE_FIRST : 1
        offer({ body: bodyId, key: corner.key, corner }, distance(corner.at, at) * near)
      }
    }
    if (accept !== 'corner') {
      for (const edge of edgesOf(section)) {
        if (!fits(edge, accept)) continue
        offer({ body: bodyId, key: edgeKey(edge.name), edge }, nearestOn(edge.piece, at).distance)
      }
    }
  }
  return best?.ref
}

function fits(edge: SectionEdge, accept: Accept): boolean {
  const { piece } = edge
  if (liesOnAxis(edge)) return false
  if (accept === 'face' || accept === 'any') return true
  if (piece.kind !== 'line') return false
  return accept === 'straight' || Math.abs(piece.from.x - piece.to.x) < 1e-6
}

/** What is called so: the faces of a name, or the corner. */
export function refsCalled(
  bodies: readonly Standing[],
  keys: readonly string[],
): readonly SectionRef[] {
  const wanted = new Set(keys)
  if (wanted.size === 0) return []
  return bodies.flatMap(({ bodyId, section }) => [
    ...edgesOf(section).flatMap((edge): SectionRef[] => {
      const key = edgeKey(edge.name)
      return wanted.has(key) ? [{ body: bodyId, key, edge }] : []
    }),
    ...cornersOf(section).flatMap((corner): SectionRef[] =>
      wanted.has(corner.key) ? [{ body: bodyId, key: corner.key, corner }] : [],
    ),
  ])
}

/** The number of the region around a place; undefined outside of all. */
export function regionAt(section: Section, place: Vec): number | undefined {
  const at = { x: place.x, y: Math.abs(place.y) }
  const found = section.regions.findIndex(({ outer, holes }) => {
    const turned = [outer, ...holes].flat().map(({ piece }) => ({ piece, times: 1 }))
    return windingAround(at, turned) > 0
  })
  return found < 0 ? undefined : found
}
