/*
 * ISO metric trapezoidal threads: diameters and pitches of ISO 2902:1977, to 120 mm, dimensions of ISO 2904:1977.
 */

/** Diameters in mm with their pitches. */
export const TRAPEZOIDAL: ReadonlyMap<number, readonly number[]> = new Map(
  `8:1.5; 9:2 1.5; 10:2 1.5; 11:3 2; 12:3 2; 14:3 2; 16:4 2; 18:4 2; 20:4 2; 22:8 5 3; 24:8 5 3; 26:8 5 3; 28:8 5 3;
   30:10 6 3; 32:10 6 3; 34:10 6 3; 36:10 6 3; 38:10 7 3; 40:10 7 3; 42:10 7 3; 44:12 7 3; 46:12 8 3; 48:12 8 3;
   50:12 8 3; 52:12 8 3; 55:14 9 3; 60:14 9 3; 65:16 10 4; 70:16 10 4; 75:16 10 4; 80:16 10 4; 85:18 12 4; 90:18 12 4;
   95:18 12 4; 100:20 12 4; 105:20 12 4; 110:20 12 4; 115:22 14 6; 120:22 14 6`
    .split(/\s*;\s*/)
    .map((row) => {
      const [size, pitches = ''] = row.split(':')
      return [Number(size), pitches.trim().split(/\s+/).map(Number)] as const
    }),
)

/** The clearance at the crest of a pitch, ISO 2904, in mm. */
export function crestClearance(pitch: number): number {
  if (pitch <= 1.5) return 0.15
  if (pitch <= 5) return 0.25
  return pitch <= 12 ? 0.5 : 1
}
