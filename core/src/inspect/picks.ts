import { edgeCalled, isCornerName } from '../names'
import {
  apart,
  cross,
  dot,
  fromPoint,
  integrate,
  lengthOf,
  line,
  radiusOf,
  subtract,
  type Apart,
  type Piece,
  type Place as SpacePlace,
  type Vec,
} from '../geometry'
import { WHOLE_BODY, type MeasurePick, type PickFigureKind, type Step } from '../part'
import {
  cornerWords,
  faceWords,
  poleWords,
  solidEdgeWords,
  solidFaceWords,
  type BodyState,
} from '../route'
import {
  cornersOf,
  edgeKey,
  edgesOf,
  liesOnAxis,
  polesOf,
  type Section,
  type Corner,
  type Pole,
  type SectionEdge,
} from '../section'
import { AXIS_ID } from '../sketch'
import type { SolidPlan } from '../solid'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { UnitSettings } from '../units'

/** What a pick names, as the part stands. A face and a body are the pieces of their outline. */
export type Picked =
  | {
      readonly kind: 'face'
      readonly edges: readonly SectionEdge[]
      readonly plan: SolidPlan | undefined
    }
  | { readonly kind: 'corner'; readonly corner: Corner; readonly plan: SolidPlan | undefined }
  | { readonly kind: 'pole'; readonly pole: Pole }
  | {
      readonly kind: 'body'
      readonly edges: readonly SectionEdge[]
      readonly plan: SolidPlan | undefined
    }
  | { readonly kind: 'axis' }
  /** A face or an edge that no full turn made, by its name on the solid. */
  | {
      readonly kind: 'spot'
      readonly plan: SolidPlan
      readonly section: Section
      readonly name: string
    }

/** The pick among the bodies as they stand; undefined when what it named is gone. */
export function pickedIn(bodies: readonly BodyState[], pick: MeasurePick): Picked | undefined {
  if (pick.key === AXIS_ID) return { kind: 'axis' }
  const body = bodies.find((b) => b.bodyId === pick.body)
  if (!body) return undefined
  const { section, plan } = body
  if (pick.key === WHOLE_BODY) {
    return { kind: 'body', edges: edgesOf(section).filter((e) => !liesOnAxis(e)), plan }
  }
  if (isCornerName(pick.key)) {
    const corner = cornersOf(section).find((c) => c.key === pick.key)
    if (corner) return { kind: 'corner', corner, plan }
    const pole = polesOf(section).find((p) => p.key === pick.key)
    return pole && { kind: 'pole', pole }
  }
  const edges = edgesOf(section).filter((e) => edgeKey(e.name) === pick.key)
  if (edges.length > 0) return { kind: 'face', edges, plan }
  return plan && { kind: 'spot', plan, section, name: pick.key }
}

/** A pick in workshop words, with its key size. */
export function pickWords(
  picked: Picked,
  { units, route }: { readonly units: UnitSettings; readonly route: readonly Step[] },
): string {
  if (picked.kind === 'spot') {
    const { name } = picked
    return edgeCalled(name)
      ? solidEdgeWords(name, { route, units }, [picked])
      : solidFaceWords(name, route)
  }
  if (picked.kind === 'axis') return 'axis'
  if (picked.kind === 'body') return 'body'
  if (picked.kind === 'corner') return cornerWords(picked.corner, units)
  if (picked.kind === 'pole') return poleWords(picked.pole, units)
  const [edge] = picked.edges
  return edge ? faceWords(edge, units) : 'face'
}

/** A measured value in mm, rad or mm², and the way to draw where it was taken. */
export interface Measured {
  readonly value: number
  readonly way?: Apart
  /** The way where it lies in space, of what is measured on a solid. */
  readonly space?: { readonly from: SpacePlace; readonly to: SpacePlace }
  /** The true value is less by no more than this; left out where the value is exact. */
  readonly within?: number
}

/**
 * Measures picks exactly from the section.
 * @returns undefined where the figure has no meaning for the picks
 */
export function measurePicks(kind: PickFigureKind, picks: readonly Picked[]): Measured | undefined {
  const [a, b] = picks
  if (!a) return undefined
  switch (kind) {
    case 'distance':
      return b && straight(a, b)
    case 'axial':
      return b && between(axialPlace(a), axialPlace(b), 'x')
    case 'radial':
      return b && between(radialPlace(a), radialPlace(b), 'y')
    case 'angle':
      return angleOf(a, b)
    case 'pickDiameter':
      return b ? undefined : diameterOf(a)
    case 'pickRadius':
      return b ? undefined : arcRadius(a)
    case 'pickLength':
      return b ? undefined : lengthAlong(a)
    case 'pickArea':
      return areaOf(picks)
    case 'axes':
      return undefined
  }
}

function straight(a: Picked, b: Picked): Measured | undefined {
  if (a.kind === 'axis' && b.kind === 'axis') return undefined
  // How near two bodies come is their gap, a figure of its own.
  if (a.kind === 'body' && b.kind === 'body') return undefined
  if (a.kind === 'axis' || b.kind === 'axis') {
    const [other] = a.kind === 'axis' ? [b] : [a]
    const way = other.kind === 'pole' ? undefined : toAxis(other)
    return way && { value: way.distance, way }
  }
  const ways = placesOf(a).flatMap((p) => placesOf(b).map((q) => leastWay(p, q)))
  const way = ways.reduce<Apart | undefined>(
    (best, w) => (best && best.distance <= w.distance ? best : w),
    undefined,
  )
  return way && { value: way.distance, way }
}

/** The nearest a face or edge comes to the axis. */
function toAxis(picked: Picked): Apart | undefined {
  const all = placesOf(picked).map((place): Apart => {
    if (!('kind' in place)) return { distance: place.y, from: place, to: { x: place.x, y: 0 } }
    const far = line({ x: -1e7, y: 0 }, { x: 1e7, y: 0 })
    return apart(place, far)
  })
  return all.reduce<Apart | undefined>(
    (best, w) => (best && best.distance <= w.distance ? best : w),
    undefined,
  )
}

type Place = Piece | Vec

function placesOf(picked: Picked): readonly Place[] {
  const point = pointOf(picked)
  if (point) return [point]
  return 'edges' in picked ? picked.edges.map((e) => e.piece) : []
}

/** The one place in the half-plane of a pick that is a point there. */
function pointOf(picked: Picked): Vec | undefined {
  if (picked.kind === 'corner') return picked.corner.at
  return picked.kind === 'pole' ? picked.pole.at : undefined
}

function leastWay(a: Place, b: Place): Apart {
  if ('kind' in a) {
    if ('kind' in b) return apart(a, b)
    const way = fromPoint(b, a)
    return { distance: way.distance, from: way.to, to: way.from }
  }
  if ('kind' in b) return fromPoint(a, b)
  const d = subtract(b, a)
  return { distance: Math.hypot(d.x, d.y), from: a, to: b }
}

/** A place that a pick has as a whole along the axis: of a point, or a face square to the axis. */
export function axialPlace(picked: Picked): Vec | undefined {
  return levelPlace(picked, 'x')
}

/** The radius that a pick has as a whole: of a circular edge, a cylinder, or the axis. */
function radialPlace(picked: Picked): Vec | undefined {
  return picked.kind === 'axis' ? { x: Number.NaN, y: 0 } : levelPlace(picked, 'y')
}

function levelPlace(picked: Picked, level: 'x' | 'y'): Vec | undefined {
  const point = pointOf(picked)
  if (point) return point
  const [first] = picked.kind === 'face' ? picked.edges : []
  if (!first || picked.kind !== 'face') return undefined
  const whole = picked.edges.every(
    ({ piece }) =>
      piece.kind === 'line' &&
      Math.abs(piece.from[level] - first.piece.from[level]) <= VERTEX_TOLERANCE &&
      Math.abs(piece.to[level] - first.piece.from[level]) <= VERTEX_TOLERANCE,
  )
  const { from, to } = first.piece
  return whole ? { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 } : undefined
}

function between(a: Vec | undefined, b: Vec | undefined, level: 'x' | 'y'): Measured | undefined {
  if (!a || !b) return undefined
  const value = Math.abs(a[level] - b[level])
  // Drawn square to what is measured, from the first place.
  const x = Number.isNaN(a.x) ? b.x : a.x
  const from = { x, y: a.y }
  const to = level === 'x' ? { x: b.x, y: a.y } : { x, y: b.y }
  return { value, way: { distance: value, from, to } }
}

/** Of one straight face, to the axis; of two, between them: the lesser one. */
function angleOf(a: Picked, b: Picked | undefined): Measured | undefined {
  const [u, v] = [directionOf(a), b ? directionOf(b) : { x: 1, y: 0 }]
  if (!u || !v) return undefined
  const angle = Math.atan2(Math.abs(cross(u, v)), Math.abs(dot(u, v)))
  // Faces along one another have none; that one runs along the axis or square to it is said already.
  const plain = angle < 1e-9 || (!b && angle > Math.PI / 2 - 1e-9)
  return plain ? undefined : { value: angle }
}

function directionOf(picked: Picked): Vec | undefined {
  if (picked.kind === 'axis') return { x: 1, y: 0 }
  const [first] = picked.kind === 'face' ? picked.edges : []
  return first?.piece.kind === 'line' ? subtract(first.piece.to, first.piece.from) : undefined
}

function diameterOf(picked: Picked): Measured | undefined {
  const place = picked.kind === 'axis' ? undefined : radialPlace(picked)
  if (!place || place.y <= 0) return undefined
  const way = { distance: 2 * place.y, from: place, to: { x: place.x, y: -place.y } }
  return { value: 2 * place.y, way }
}

function arcRadius(picked: Picked): Measured | undefined {
  const [edge] = picked.kind === 'face' ? picked.edges : []
  return edge?.piece.kind === 'arc' ? { value: radiusOf(edge.piece) } : undefined
}

/** Along the section for a face, round the axis for a circular edge. */
function lengthAlong(picked: Picked): Measured | undefined {
  if (picked.kind === 'corner') return { value: 2 * Math.PI * picked.corner.at.y }
  if (picked.kind !== 'face') return undefined
  return { value: picked.edges.reduce((sum, e) => sum + lengthOf(e.piece), 0) }
}

/** Of all faces picked together: 2π∫y ds (Pappus). */
function areaOf(picks: readonly Picked[]): Measured | undefined {
  const faces = picks.flatMap((p) => (p.kind === 'face' ? p.edges : []))
  if (faces.length === 0 || picks.some((p) => p.kind !== 'face')) return undefined
  const sum = faces.reduce((total, e) => total + integrate(e.piece, 0).yAlong, 0)
  return { value: 2 * Math.PI * sum }
}
