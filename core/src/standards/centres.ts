/*
 * Centre holes: types A (ISO 866:2016), B (ISO 2540:1973) and R (ISO 2541:1972), and their call-out (ISO 6411:1982).
 * The pilot, the greatest diameters and the depths of the pilot are typed from the tables; the depth of the cone follows
 * from them and is held by tests against the depths that the tables print.
 */

export const CENTRE_TYPES = ['A', 'B', 'R'] as const
export type CentreType = (typeof CENTRE_TYPES)[number]

/** A centre hole in mm. */
export interface CentreHole {
  /** Of the pilot. */
  readonly pilot: number
  /** Of the 60° cone, or where the arc ends. */
  readonly cone: number
  /** Of the cone of 120° that guards it; type B. */
  readonly guard: number
  /** How deep the pilot goes from where the cone begins; A and B. */
  readonly pilotDepth: number
  /** Of the arc: the mean of its least and its greatest radius; R. */
  readonly arc: number
  /** The whole depth of type R. */
  readonly depth: number
}

/** Pilot; cone; guard of B; depth of the pilot for A and B; least and greatest radius of R; depth of R. */
const ROWS: readonly (readonly [number, number, number, number, number, number, number])[] = [
  [1, 2.12, 3.15, 0.9, 2.5, 3.15, 1.9],
  [1.25, 2.65, 4, 1.1, 3.15, 4, 2.3],
  [1.6, 3.35, 5, 1.4, 4, 5, 2.9],
  [2, 4.25, 6.3, 1.8, 5, 6.3, 3.7],
  [2.5, 5.3, 8, 2.2, 6.3, 8, 4.6],
  [3.15, 6.7, 10, 2.8, 8, 10, 5.8],
  [4, 8.5, 12.5, 3.5, 10, 12.5, 7.4],
  [5, 10.6, 16, 4.4, 12.5, 16, 9.2],
  [6.3, 13.2, 18, 5.5, 16, 20, 11.4],
  [8, 17, 22.4, 7, 20, 25, 14.7],
  [10, 21.2, 28, 8.7, 25, 31.5, 18.3],
]

/** The pilots there are, in mm. */
export const CENTRE_PILOTS: readonly number[] = ROWS.map(([pilot]) => pilot)

/** The centre hole of a pilot in mm; undefined where the tables have none. */
export function centreHole(pilot: number): CentreHole | undefined {
  const found = ROWS.find(([d]) => Math.abs(d - pilot) < 1e-9)
  if (!found) return undefined
  const [, cone, guard, pilotDepth, least, most, depth] = found
  return { pilot, cone, guard, pilotDepth, arc: (least + most) / 2, depth }
}

/** Half the angles of the cone and of the guard, in radians. */
export const CENTRE_CONE = Math.PI / 6
export const CENTRE_GUARD = Math.PI / 3

/** As a drawing calls it out: `ISO 6411 - B 2.5/8` (ISO 6411, clause 4). */
export const centreWords = (type: CentreType, hole: CentreHole): string =>
  `ISO 6411 - ${type} ${hole.pilot}/${type === 'B' ? hole.guard : hole.cone}`
