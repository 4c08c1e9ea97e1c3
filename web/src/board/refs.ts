import { distance, nearestOn, type Place, type Vec } from '@lathica/core/geometry'
import {
  cornersOf,
  edgeKey,
  edgesOf,
  liesOnAxis,
  polesOf,
  regionAround,
  type Corner,
  type Pole,
  type Section,
  type SectionEdge,
  type Region,
} from '@lathica/core/section'
import { WHOLE_BODY } from '@lathica/core/part'
import type { BodyState } from '@lathica/core/route'

/** What can be referred to: a face, a straight one, one square to the axis, a circular edge, or any, with points on the axis. */
export type Accept = 'face' | 'straight' | 'plane' | 'corner' | 'any'

/** A face, a circular edge or a point on the axis of a body, as it stands, or the body. */
export interface SectionRef {
  readonly body: string
  readonly key: string
  readonly edge?: SectionEdge
  readonly corner?: Corner
  readonly pole?: Pole
  /** The body as a whole. */
  readonly whole?: Section
  /** An edge of a solid that is no full turn, by the names of its two faces: its lines. */
  readonly rim?: Float32Array
  /** The names of all stretches of such an edge, or of a circular one; empty where it is in one. */
  readonly stretches?: readonly string[]
  /** The name of a face that is no full turn. */
  readonly solidFace?: string
  /** Where on that face the pointer is, in the space of the part. */
  readonly hitAt?: Place
  /** The number of an area of a profile, in no body yet. */
  readonly area?: number
}

export const areaRef = (area: number): SectionRef => ({ body: '', key: String(area), area })

export const areaWords = (area: number): string => `region ${area + 1}`

/** A point within this share of the reach goes before the faces that meet there. */
const POINT_FIRST = 0.5

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
  const toPoint = (point: Vec): number => {
    const far = distance(point, at)
    return accept === 'any' && far <= POINT_FIRST * reach ? far - reach : far
  }
  for (const { bodyId, section } of bodies) {
    if (accept === 'corner' || accept === 'any') {
      for (const corner of cornersOf(section)) {
        offer({ body: bodyId, key: corner.key, corner }, toPoint(corner.at))
      }
    }
    if (accept === 'any') {
      for (const pole of polesOf(section)) {
        offer({ body: bodyId, key: pole.key, pole }, toPoint(pole.at))
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

/** The body whose material lies at a place, as a whole. */
export function wholeAt(bodies: readonly Standing[], place: Vec): SectionRef | undefined {
  const found = bodies.find(({ section }) => regionAt(section.regions, place) !== undefined)
  return found && wholeBody(found)
}

export const wholeBody = ({ bodyId, section }: Standing): SectionRef => ({
  body: bodyId,
  key: WHOLE_BODY,
  whole: section,
})

/** The edges of the outline that a reference is drawn by. */
export function edgesIn({ edge, whole }: Pick<SectionRef, 'edge' | 'whole'>): SectionEdge[] {
  if (whole) return edgesOf(whole).filter((e) => !liesOnAxis(e))
  return edge ? [edge] : []
}

/** What is called so: the faces of a name, the corner or the pole. */
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
    ...polesOf(section).flatMap((pole): SectionRef[] =>
      wanted.has(pole.key) ? [{ body: bodyId, key: pole.key, pole }] : [],
    ),
  ])
}

/**
 * The number of the region around a place; undefined outside of all.
 * @param mirrored whether the regions have an image below the axis
 */
export function regionAt(
  regions: readonly Region[],
  place: Vec,
  mirrored = true,
): number | undefined {
  const at = mirrored ? { x: place.x, y: Math.abs(place.y) } : place
  const found = regionAround({ regions }, at)
  return found < 0 ? undefined : found
}
