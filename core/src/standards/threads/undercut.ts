/*
 * Undercuts for outside metric threads, ISO 4755:1983, normal length. They run out of the thread by 30° and stand square
 * against the shoulder. The greatest width is 3 P; the least width is what is left of it before the slope, which tests
 * hold against the depth. The row for a pitch of 5.5 mm is left out: its widths were not certain.
 */

/** An undercut in mm. */
export interface Undercut {
  /** How far below the major diameter its bottom lies, in diameter. */
  readonly below: number
  /** Of its full depth, and as a whole with the slope. */
  readonly least: number
  readonly width: number
  readonly radius: number
}

/** Pitch; how far below; least width; greatest width; radius. */
const ROWS: readonly (readonly [number, number, number, number, number])[] = [
  [0.25, 0.4, 0.4, 0.75, 0.12],
  [0.3, 0.5, 0.5, 0.9, 0.16],
  [0.35, 0.6, 0.6, 1.05, 0.16],
  [0.4, 0.7, 0.6, 1.2, 0.2],
  [0.45, 0.7, 0.7, 1.35, 0.2],
  [0.5, 0.8, 0.8, 1.5, 0.2],
  [0.6, 1, 0.9, 1.8, 0.4],
  [0.7, 1.1, 1.1, 2.1, 0.4],
  [0.75, 1.2, 1.2, 2.25, 0.4],
  [0.8, 1.3, 1.3, 2.4, 0.4],
  [1, 1.6, 1.6, 3, 0.6],
  [1.25, 2, 2, 3.75, 0.6],
  [1.5, 2.3, 2.5, 4.5, 0.8],
  [1.75, 2.6, 3, 5.25, 1],
  [2, 3, 3.4, 6, 1],
  [2.5, 3.6, 4.4, 7.5, 1.2],
  [3, 4.4, 5.2, 9, 1.6],
  [3.5, 5, 6.2, 10.5, 1.6],
  [4, 5.7, 7, 12, 2],
  [4.5, 6.4, 8, 13.5, 2.5],
  [5, 7, 9, 15, 2.5],
  [6, 8.3, 11, 18, 3.2],
]

/** The slope by which an undercut runs out, in degrees. */
export const UNDERCUT_ANGLE = 30

/** The undercut of a pitch in mm; undefined where the table has none. */
export function undercutFor(pitch: number): Undercut | undefined {
  const found = ROWS.find(([p]) => Math.abs(p - pitch) < 1e-9)
  if (!found) return undefined
  const [, below, least, width, radius] = found
  return { below, least, width, radius }
}
