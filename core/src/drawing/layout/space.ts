import { pointsAlong, type Piece, type Vec } from '../../geometry'

/** A box on paper, in mm. */
export interface Plot {
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
}

export interface Seg {
  readonly a: Vec
  readonly b: Vec
}

export const plot = (x0: number, y0: number, x1: number, y1: number): Plot => ({
  ...{ x0: Math.min(x0, x1), x1: Math.max(x0, x1) },
  ...{ y0: Math.min(y0, y1), y1: Math.max(y0, y1) },
})

export const grown = ({ x0, y0, x1, y1 }: Plot, by: number): Plot => ({
  ...{ x0: x0 - by, y0: y0 - by, x1: x1 + by, y1: y1 + by },
})

export const overlap = (a: Plot, b: Plot): boolean =>
  a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1

/** Whether a straight line runs through a box (Liang and Barsky's parameters). */
export function runsThrough({ a, b }: Seg, { x0, y0, x1, y1 }: Plot): boolean {
  if (Math.max(a.x, b.x) <= x0 || Math.min(a.x, b.x) >= x1) return false
  if (Math.max(a.y, b.y) <= y0 || Math.min(a.y, b.y) >= y1) return false
  const dx = b.x - a.x
  const dy = b.y - a.y
  let from = 0
  let to = 1
  if (dx !== 0) {
    const [s, t] = [(x0 - a.x) / dx, (x1 - a.x) / dx]
    from = Math.max(from, Math.min(s, t))
    to = Math.min(to, Math.max(s, t))
  }
  if (dy !== 0) {
    const [s, t] = [(y0 - a.y) / dy, (y1 - a.y) / dy]
    from = Math.max(from, Math.min(s, t))
    to = Math.min(to, Math.max(s, t))
  }
  return from < to
}

/** Whether two straight lines cross between their ends. */
export function cross({ a, b }: Seg, { a: c, b: d }: Seg): boolean {
  return sideOf(a, b, c) * sideOf(a, b, d) < -1e-9 && sideOf(c, d, a) * sideOf(c, d, b) < -1e-9
}

/** Which side of a way a place lies on, as twice the area between them. */
const sideOf = (p: Vec, q: Vec, r: Vec): number =>
  (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)

/** Width of the columns in which lines are found, in mm. */
const COLUMN = 8

/** Lines by the columns of the paper that they run through. */
class Lines {
  private readonly columns = new Map<number, Seg[]>()

  add(seg: Seg): void {
    const [from, to] = [Math.min(seg.a.x, seg.b.x), Math.max(seg.a.x, seg.b.x)]
    for (let i = Math.floor(from / COLUMN); i <= Math.floor(to / COLUMN); i++) {
      const column = this.columns.get(i)
      if (column) column.push(seg)
      else this.columns.set(i, [seg])
    }
  }

  /** Whether any near a stretch of the paper is so. */
  some(x0: number, x1: number, isSo: (seg: Seg) => boolean): boolean {
    for (let i = Math.floor(x0 / COLUMN); i <= Math.floor(x1 / COLUMN); i++) {
      const column = this.columns.get(i)
      if (!column) continue
      for (const seg of column) if (isSo(seg)) return true
    }
    return false
  }

  /** How many cross one. What runs along several columns is counted in that where both meet. */
  crossings(seg: Seg): number {
    const [x0, x1] = [Math.min(seg.a.x, seg.b.x), Math.max(seg.a.x, seg.b.x)]
    let count = 0
    const met = new Set<Seg>()
    this.some(x0, x1, (other) => {
      if (cross(seg, other) && !met.has(other)) {
        met.add(other)
        count++
      }
      return false
    })
    return count
  }
}

/** Room kept free round a label, in mm. */
const ROOM = 0.6

/** What stands on the paper so far, and whether something else has room there. */
export class Space {
  readonly labels: Plot[] = []
  private readonly outlines = new Lines()
  private readonly lines = new Lines()

  addOutline(pieces: Iterable<Piece>): void {
    for (const piece of pieces) {
      const points = pointsAlong(piece, 0.05)
      points.slice(1).forEach((b, i) => this.outlines.add({ a: points[i] ?? b, b }))
    }
  }

  addLines(segs: readonly Seg[]): void {
    for (const seg of segs) this.lines.add(seg)
  }

  addLabels(labels: readonly Plot[]): void {
    this.labels.push(...labels)
  }

  /** Whether a label covers nothing that is there. */
  hasRoom(label: Plot): boolean {
    const wide = grown(label, ROOM)
    return (
      !this.labels.some((other) => overlap(wide, other)) &&
      !crosses(this.outlines, wide) &&
      !crosses(this.lines, wide)
    )
  }

  /** Whether a line runs through no label. */
  isClear(seg: Seg): boolean {
    return !this.labels.some((label) => runsThrough(seg, grown(label, ROOM / 2)))
  }

  /** How many lines, and how many outlines, one crosses. */
  crossings(seg: Seg): { readonly lines: number; readonly outlines: number } {
    return { lines: this.lines.crossings(seg), outlines: this.outlines.crossings(seg) }
  }
}

const crosses = (lines: Lines, box: Plot): boolean =>
  lines.some(box.x0, box.x1, (seg) => runsThrough(seg, box))
