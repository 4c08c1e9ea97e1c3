import type { PartSummary } from '@lathica/core/inspect'

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

/** Bends of less than this, in radians, come of chords along a curve and make no edge. */
const SMOOTH = 0.35

/** The outside seen from the side: below the axis, a strip for every smooth run that faces outwards. */
function stripsOf(loop: readonly number[], place: (x: number, y: number) => string): Strip[] {
  const strips: Strip[] = []
  let run: { readonly x: number; readonly y: number }[] = []
  let heading = 0
  const flush = (): void => {
    const [first, last] = [run[0], run.at(-1)]
    if (first && last && run.length > 1) {
      const along = run.map((p) => place(p.x, -p.y)).join('L')
      strips.push({ d: `M${place(first.x, 0)}L${along}L${place(last.x, 0)}Z` })
    }
    run = []
  }
  for (let i = 0; i < loop.length; i += 2) {
    const next = (i + 2) % loop.length
    const [a, b] = [
      { x: loop[i] ?? 0, y: loop[i + 1] ?? 0 },
      { x: loop[next] ?? 0, y: loop[next + 1] ?? 0 },
    ]
    // Outer loops run counter-clockwise, so what faces outwards runs from right to left.
    if (b.x >= a.x || (a.y <= 0 && b.y <= 0)) {
      flush()
      continue
    }
    const turned = Math.atan2(b.y - a.y, a.x - b.x)
    if (run.length === 0 || Math.abs(turned - heading) > SMOOTH) {
      flush()
      run = [a]
    }
    run.push(b)
    heading = turned
  }
  flush()
  return strips
}
