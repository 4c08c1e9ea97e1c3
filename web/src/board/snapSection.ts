import { SECTION_ID, cornersOf, distance, edgeKey, edgesOf, nearestOn } from '@lathica/core'
import { POINT_REACH } from './pick'
import {
  CURVE_SNAP,
  NEAR_DIRECTION,
  directionsBetween,
  free,
  ontoPiece,
  type Snap,
  type SnapQuery,
} from './snapping'
import { toPlane } from './view'

/** A corner that cuts, grooves and rounds have left. */
export function onSectionCorner({
  view,
  at,
  from,
  suggesting,
  straight,
  standing,
}: SnapQuery): Snap | undefined {
  const place = toPlane(view, at)
  const reach = POINT_REACH / view.scale
  const [corner] = (standing ?? [])
    .flatMap(cornersOf)
    .filter((c) => distance(c.at, place) <= reach)
    .sort((a, b) => distance(a.at, place) - distance(b.at, place))
  if (!corner) return undefined
  const level = straight !== false && suggesting.kinds.has('directions')
  return {
    ...free(corner.at),
    end: { at: corner.at, link: { profile: SECTION_ID, item: corner.key } },
    directions: level ? directionsBetween(from?.at, corner.at, NEAR_DIRECTION / 2) : [],
    words: ['corner of the section'],
  }
}

/** A straight edge of the section between two corners, which the point will lie on. */
export function onSectionEdge({ view, standing, from }: SnapQuery, snap: Snap): Snap | undefined {
  const place = snap.end.at
  const reach = CURVE_SNAP / view.scale
  for (const section of standing ?? []) {
    for (const edge of edgesOf(section)) {
      if (edge.piece.kind !== 'line' || nearestOn(edge.piece, place).distance > reach) continue
      const corners = cornersOf(section)
      const start = corners.find((c) => c.leaving === edge)
      const end = corners.find((c) => c.arriving === edge)
      const onto = start && end ? ontoPiece(edge.piece, snap, from) : undefined
      if (!start || !end || !onto) continue
      const between = [
        { key: start.key, at: start.at },
        { key: end.key, at: end.at },
      ] as const
      const link = { profile: SECTION_ID, item: edgeKey(edge.name), between }
      return {
        ...snap,
        end: { at: onto, link },
        words: [...snap.words, 'on an edge of the section'],
      }
    }
  }
  return undefined
}
