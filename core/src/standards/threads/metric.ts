/*
 * ISO metric screw threads: sizes and pitches of ISO 261:1998, Table 2, to 125 mm; basic profile of ISO 68-1:1998 and
 * basic dimensions of ISO 724:1993. The third diameter, of the root of an outside thread, is d − 1.226869 P (root with a
 * radius of H/6), and the stress area that of ISO 898-1, on the mean of pitch and root diameter.
 */

const rows = (text: string): ReadonlyMap<number, readonly number[]> =>
  new Map(
    text
      .trim()
      .split(/\s*;\s*/)
      .map((row) => {
        const [size, pitches = ''] = row.split(':')
        return [Number(size), pitches.trim().split(/\s+/).map(Number)] as const
      }),
  )

/** Diameters in mm with their coarse pitch. */
export const COARSE: ReadonlyMap<number, number> = new Map(
  [
    ...rows(`
      1:0.25; 1.1:0.25; 1.2:0.25; 1.4:0.3; 1.6:0.35; 1.8:0.35; 2:0.4; 2.2:0.45; 2.5:0.45; 3:0.5; 3.5:0.6; 4:0.7;
      4.5:0.75; 5:0.8; 6:1; 7:1; 8:1.25; 9:1.25; 10:1.5; 11:1.5; 12:1.75; 14:2; 16:2; 18:2.5; 20:2.5; 22:2.5; 24:3;
      27:3; 30:3.5; 33:3.5; 36:4; 39:4; 42:4.5; 45:4.5; 48:5; 52:5; 56:5.5; 60:5.5; 64:6; 68:6
    `),
  ].map(([size, [pitch = 0]]) => [size, pitch] as const),
)

/** Diameters in mm with their fine pitches. */
export const FINE: ReadonlyMap<number, readonly number[]> = rows(`
  1:0.2; 1.1:0.2; 1.2:0.2; 1.4:0.2; 1.6:0.2; 1.8:0.2; 2:0.25; 2.2:0.25; 2.5:0.35; 3:0.35; 3.5:0.35; 4:0.5; 4.5:0.5;
  5:0.5; 5.5:0.5; 6:0.75; 7:0.75; 8:1 0.75; 9:1 0.75; 10:1.25 1 0.75; 11:1 0.75; 12:1.5 1.25 1; 14:1.5 1.25 1;
  15:1.5 1; 16:1.5 1; 17:1.5 1; 18:2 1.5 1; 20:2 1.5 1; 22:2 1.5 1; 24:2 1.5 1; 25:2 1.5 1; 26:1.5; 27:2 1.5 1;
  28:2 1.5 1; 30:3 2 1.5 1; 32:2 1.5; 33:3 2 1.5; 35:1.5; 36:3 2 1.5; 38:1.5; 39:3 2 1.5; 40:3 2 1.5; 42:4 3 2 1.5;
  45:4 3 2 1.5; 48:4 3 2 1.5; 50:3 2 1.5; 52:4 3 2 1.5; 55:4 3 2 1.5; 56:4 3 2 1.5; 58:4 3 2 1.5; 60:4 3 2 1.5;
  62:4 3 2 1.5; 64:4 3 2 1.5; 65:4 3 2 1.5; 68:4 3 2 1.5; 70:6 4 3 2 1.5; 72:6 4 3 2 1.5; 75:4 3 2 1.5;
  76:6 4 3 2 1.5; 80:6 4 3 2 1.5; 85:6 4 3 2; 90:6 4 3 2; 95:6 4 3 2; 100:6 4 3 2; 105:6 4 3 2; 110:6 4 3 2;
  115:6 4 3 2; 120:6 4 3 2; 125:6 4 3 2
`)

/** Every metric size with its pitches, the coarse one first. */
export const METRIC: ReadonlyMap<number, readonly number[]> = new Map(
  [...new Set([...COARSE.keys(), ...FINE.keys()])]
    .sort((a, b) => a - b)
    .map((size) => {
      const coarse = COARSE.get(size)
      return [size, [...(coarse === undefined ? [] : [coarse]), ...(FINE.get(size) ?? [])]]
    }),
)
