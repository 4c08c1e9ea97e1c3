import { dotPlaces, place, type Place } from '../../geometry'
import { nodeAt } from '../nodes'
import { planeOf } from '../planes'
import { PARALLEL } from './figures'
import type { RestFace } from './types'

/** A plane face along the axis, as it is seen along it. */
export interface LengthwisePlane {
  readonly face: RestFace
  /** The angle of its normal, which looks out of the material. */
  readonly angle: number
  /** How far from the axis it lies along its normal; negative where it looks towards the axis. */
  readonly out: number
  /** Its ends along the axis. */
  readonly from: number
  readonly to: number
}

/** The plane faces along the axis. */
export function lengthwisePlanes(rest: readonly RestFace[]): LengthwisePlane[] {
  return rest.flatMap((face) => {
    const plane = face.kind === 'plane' ? planeOf(face) : undefined
    if (!plane || Math.abs(plane.along.z) > PARALLEL) return []
    const normal = place(-plane.along.x, -plane.along.y, 0)
    const [from, to] = rangeAlong(face, place(0, 0, 1))
    const angle = Math.atan2(normal.y, normal.x)
    return [{ face, angle, out: dotPlaces(plane.at, normal), from, to }]
  })
}

/** A plane face square to the axis. */
export interface SquarePlane {
  readonly face: RestFace
  readonly at: number
  /** 1 where its material lies to the right of it, −1 to the left. */
  readonly way: 1 | -1
}

/** The plane faces square to the axis. */
export function squarePlanes(rest: readonly RestFace[]): SquarePlane[] {
  return rest.flatMap((face): SquarePlane[] => {
    const plane = face.kind === 'plane' ? planeOf(face) : undefined
    if (!plane || Math.abs(plane.along.z) < 1 - PARALLEL) return []
    return [{ face, at: plane.at.z, way: plane.along.z > 0 ? 1 : -1 }]
  })
}

/** How far the places of a face go in a direction. */
export function rangeAlong({ nodes }: RestFace, way: Place): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity]
  for (let i = 0; i < nodes.length / 3; i++) {
    const at = dotPlaces(nodeAt(nodes, i), way)
    low = Math.min(low, at)
    high = Math.max(high, at)
  }
  return [low, high]
}

/** How far two angles are from one another, up to half a turn, in radians. */
export function angleBetween(a: number, b: number): number {
  const off = Math.abs(a - b) % (2 * Math.PI)
  return Math.min(off, 2 * Math.PI - off)
}

/** Out from the axis at an angle, and round it from there. */
export const directionsAt = (angle: number): readonly [Place, Place] => [
  place(Math.cos(angle), Math.sin(angle), 0),
  place(-Math.sin(angle), Math.cos(angle), 0),
]
