import { distance, line, nearestOn, type Piece, type Vec } from '@lathica/core/geometry'
import { SECTION_ID } from '@lathica/core/sketch'
import { cornersOf, edgeKey, edgesOf, guideOf } from '@lathica/core/section'
import { ringPiece, type EndMark, type EndMarks } from '@lathica/core/solid'
import type { Link } from '@lathica/core/edit'
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

/** A corner that cuts, grooves and rounds have left; from the end a corner or middle of what steps made. */
export function onSectionCorner({
  view,
  at,
  from,
  suggesting,
  straight,
  standing,
  endMarks,
}: SnapQuery): Snap | undefined {
  const place = toPlane(view, at)
  const reach = POINT_REACH / view.scale
  const middles = new Set((endMarks ?? []).flatMap((m) => m.rings.map((r) => r.middle.key)))
  const places: EndMark[] = [
    ...(standing ?? []).flatMap(cornersOf),
    ...(endMarks ?? []).flatMap((m) => m.points),
  ]
  const [corner] = places
    .filter((c) => distance(c.at, place) <= reach)
    .sort((a, b) => distance(a.at, place) - distance(b.at, place))
  if (!corner) return undefined
  const level = straight !== false && suggesting.kinds.has('directions')
  const seen = middles.has(corner.key) ? 'middle of a hole or round' : 'corner of the part'
  const words = endMarks?.length ? seen : 'corner of the section'
  return {
    ...free(corner.at),
    end: { at: corner.at, link: { profile: SECTION_ID, item: corner.key } },
    directions: level ? directionsBetween(from?.at, corner.at, NEAR_DIRECTION / 2) : [],
    words: [words],
  }
}

/** An edge of the section, or one seen from the end, which the point will lie on. */
export function onSectionEdge(query: SnapQuery, snap: Snap): Snap | undefined {
  const { view, standing, from, endMarks } = query
  const place = snap.end.at
  const reach = CURVE_SNAP / view.scale
  for (const { piece, link } of (endMarks ?? []).flatMap(edgesSeen)) {
    const onto =
      nearestOn(piece, place).distance <= reach ? ontoPiece(piece, snap, from) : undefined
    if (onto) return onLinked(snap, onto, link, 'on an edge of the part')
  }
  for (const section of standing ?? []) {
    for (const edge of edgesOf(section)) {
      if (nearestOn(edge.piece, place).distance > reach) continue
      const guide = guideOf(edge, section)
      const onGuide = guide && ontoPiece(edge.piece, snap, from)
      if (guide && onGuide) {
        const link = { profile: SECTION_ID, item: edgeKey(edge.name), guide }
        return onLinked(snap, onGuide, link, 'on an edge of the section')
      }
      if (edge.piece.kind !== 'line') continue
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
      return onLinked(snap, onto, link, 'on an edge of the section')
    }
  }
  return undefined
}

const onLinked = (snap: Snap, at: Vec, link: Link, words: string): Snap => ({
  ...snap,
  end: { at, link },
  words: [...snap.words, words],
})

/** The edges of the part seen from the end, straight ones first: they are rarer. */
function edgesSeen({ lines, rings }: EndMarks): { readonly piece: Piece; readonly link: Link }[] {
  const profile = SECTION_ID
  return [
    ...lines.map(([from, to]) => ({
      piece: line(from.at, to.at),
      link: { profile, item: from.key, between: [from, to] as const },
    })),
    ...rings.map((ring) => ({
      piece: ringPiece(ring),
      link: { profile, item: ring.rim.key, ring },
    })),
  ]
}
