import { isSign, SIGNS } from './lettering'
import type { LineKind } from './items'

/** Dashes of lines in multiples of their width (ISO 128-2:2020, Table 1, lines 02 and 04). */
export const DASHES: Readonly<Record<LineKind, readonly number[]>> = {
  ...{ wide: [], narrow: [], hidden: [12, 3], centre: [24, 3, 1, 3], treated: [24, 3, 1, 3] },
}

/** Width of a line in mm: narrow ones are half as wide as outlines (ISO 128-2:2020, 5.2). */
export const lineWidth = (line: LineKind, wide: number): number =>
  line === 'wide' || line === 'treated' ? wide : wide / 2

/** Stretches of a text that are set at once: plain characters together, each sign by itself. */
export function runsOf(
  text: string,
): { readonly text: string; readonly from: number; readonly isSign: boolean }[] {
  const runs: { text: string; from: number; isSign: boolean }[] = []
  ;[...text].forEach((character, from) => {
    const last = runs.at(-1)
    if (last && !last.isSign && !isSign(character)) last.text += character
    else runs.push({ text: character, from, isSign: isSign(character) })
  })
  return runs
}

/** A way drawn without lifting the pen: where it begins, then lines and curves by their three further points. */
export type PenWay = readonly (readonly number[])[]

/** The strokes of a sign in its box, y upwards: a pair each for where it begins and for lines, six numbers for curves. */
export function signWays(sign: string): PenWay[] {
  return (SIGNS[sign] ?? []).map((stroke): PenWay => {
    if (stroke.kind === 'line') return stroke.points
    if (stroke.kind === 'bow') {
      const [[x0, y0], [x1, y1]] = [stroke.from, stroke.to]
      const third = (x1 - x0) / 4
      return [
        [x0, y0],
        [x0 + third, stroke.over * 1.25, x1 - third, stroke.over * 1.25, x1, y1],
      ]
    }
    const [x, y] = stroke.at
    const r = stroke.radius
    const k = r * QUARTER
    return [
      [x + r, y],
      [x + r, y + k, x + k, y + r, x, y + r],
      [x - k, y + r, x - r, y + k, x - r, y],
      [x - r, y - k, x - k, y - r, x, y - r],
      [x + k, y - r, x + r, y - k, x + r, y],
    ]
  })
}

/** How far the handles of a quarter circle stand out, for a radius of 1. */
const QUARTER = (4 / 3) * Math.tan(Math.PI / 8)
