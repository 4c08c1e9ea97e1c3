import type { PartSummary } from '../api/client'

/** A shaded strip of the outside view: four corners, and the way its shading runs. */
export interface Strip {
  readonly d: string
}

/** A card's picture: the upper half in section, the lower half seen from outside. */
export interface SectionPicture {
  readonly viewBox: string
  readonly section: string
  readonly strips: readonly Strip[]
  readonly pencil: string
  readonly axis: string
  /** one pixel of a card in the picture's units */
  readonly pixel: number
}

const WIDTH = 230
const HEIGHT = 130

/** Turns the outline of a half-section into paths. Standing parts stand. */
export function sectionPicture(summary: PartSummary): SectionPicture | undefined {
  const standing = summary.lie === 'standing'
  const loops = [...summary.outline, ...summary.pencil]
  const all = loops.flat()
  if (all.length === 0) return undefined
  const xs = all.filter((_, i) => i % 2 === 0)
  const ys = all.filter((_, i) => i % 2 === 1)
  const [from, to] = [Math.min(...xs), Math.max(...xs)]
  const radius = Math.max(...ys.map(Math.abs), 1e-6)
  const [along, across] = [to - from || 1, 2 * radius]
  const pixel = standing
    ? Math.max(across / WIDTH, along / HEIGHT)
    : Math.max(along / WIDTH, across / HEIGHT)
  const place = (x: number, y: number): string => (standing ? `${y} ${-x}` : `${x} ${-y}`)
  const path = (loop: readonly number[], side: 1 | -1, close: boolean): string => {
    const points: string[] = []
    for (let i = 0; i + 1 < loop.length; i += 2) {
      points.push(place(loop[i] ?? 0, side * (loop[i + 1] ?? 0)))
    }
    return `M${points.join('L')}${close ? 'Z' : ''}`
  }
  const pad = 10 * pixel
  const box = standing
    ? [-radius - pad, -to - pad, across + 2 * pad, along + 2 * pad]
    : [from - pad, -radius - pad, along + 2 * pad, across + 2 * pad]
  return {
    viewBox: box.join(' '),
    section: summary.outline.map((loop) => path(loop, 1, true)).join(''),
    strips: summary.outline.flatMap((loop) => stripsOf(loop, place)),
    pencil: summary.pencil.map((loop) => path(loop, 1, false)).join(''),
    axis: `M${place(from - pad / 2, 0)}L${place(to + pad / 2, 0)}`,
    pixel,
  }
}

/** The outside seen from the side: below the axis, a strip for every edge that faces outwards. */
function stripsOf(loop: readonly number[], place: (x: number, y: number) => string): Strip[] {
  const strips: Strip[] = []
  for (let i = 0; i < loop.length; i += 2) {
    const next = (i + 2) % loop.length
    const [x0, y0, x1, y1] = [loop[i], loop[i + 1], loop[next], loop[next + 1]].map((v) => v ?? 0)
    // Outer loops run counter-clockwise, so what faces outwards runs from right to left.
    if (x0 === undefined || x1 === undefined || y0 === undefined || y1 === undefined) continue
    if (x1 >= x0 || (y0 <= 0 && y1 <= 0)) continue
    strips.push({
      d: `M${place(x0, 0)}L${place(x0, -y0)}L${place(x1, -y1)}L${place(x1, 0)}Z`,
    })
  }
  return strips
}
