import { boundsOf, vec } from '../../geometry'
import { edgeKey, edgesOf, loopsOf, type Section } from '../../section'
import { boredIn, type BoredAside, type SolidPlan } from '../../solid'
import { stepsRound, stripsOf, unitCircle } from '../lathe'
import { joinedPieces, type FacePiece } from '../pieces'
import type { SolidMesh } from '../solid'
import { asideFaces } from './aside'
import {
  ABOUT_AXIS,
  isIn,
  outlinePieces,
  planeFace,
  ringAbout,
  roundPieces,
  turnedFace,
  type Opening,
} from './bored'
import { isWithin } from './planes'

/**
 * A full turn with holes and outlines along its axis between plane faces, and with what is milled and drilled into it from
 * outside, as triangles whose chords stay within a tolerance in mm, without the kernel: its faces are called as the kernel’s
 * are. Watertight once equal places are one. Undefined for a plan that holds anything else.
 */
export function closedMesh(plan: SolidPlan, tolerance: number): SolidMesh | undefined {
  const bored = boredIn(plan)
  if (!bored) return undefined
  const openings: Opening[] = []
  const inside = bored.flatMap((one) => {
    if (one.kind === 'aside') return []
    return one.kind === 'round'
      ? roundPieces(one, tolerance, openings)
      : outlinePieces(one, tolerance, openings)
  })
  const aside = bored.filter((one) => one.kind === 'aside')
  return joinedPieces([...turnedPieces(plan.base, tolerance, openings, aside), ...inside])
}

/** Faces of the full turn with what is open in them left out, and those of what was taken from outside. */
function turnedPieces(
  base: Section,
  tolerance: number,
  openings: readonly Opening[],
  taken: readonly BoredAside[],
): FacePiece[] {
  const edges = edgesOf(base)
  const radius = Math.max(0, ...edges.map((e) => boundsOf(e.piece).max.y))
  const circle = unitCircle(stepsRound(radius, tolerance))
  const strips = stripsOf(loopsOf(base), tolerance)
  const aside = taken.length > 0 ? asideFaces(edges, strips, taken, circle, tolerance) : undefined
  const turned = strips.flatMap((strip, i): FacePiece[] => {
    if (aside?.done.has(i) === true) return []
    const edge = edges[strip.edge]
    const name = edge ? edgeKey(edge.name) : ''
    const holes = openings.filter((o) => edge && isIn(edge.piece, o)).map((o) => o.ring)
    const around = aside?.ringsOf(i)
    if (!around && holes.length === 0) return [turnedFace(name, strip, circle, ABOUT_AXIS)]
    const [one = vec(0, 0), other = one] = strip.points
    const [low, high] = one.y < other.y ? [one.y, other.y] : [other.y, one.y]
    const whole = [high, low].filter((r) => r > 0).map((r) => ringAbout(vec(0, 0), r, circle))
    return (around ?? [whole]).map((rings) => {
      const own = holes.filter((h) => !around || (h[0] && rings[0] && isWithin(rings[0], h[0])))
      return planeFace(name, one.x, strip.normals[0]?.x ?? 1, [...rings, ...own])
    })
  })
  return [...turned, ...(aside?.pieces ?? [])]
}
