import type { Px } from '../view'
import type { Plate } from './plate'

/** The side of a cell in pixels: what lies nearer than this to an outline may count as on it. */
const CELL = 5

/**
 * Which parts of the pane outlines cover, their insides too: asked for many plates, it is found once and told by sums
 * of cells.
 */
export class Covered {
  private readonly wide: number
  private readonly high: number
  /** How many cells are covered above and to the left of each corner of a cell. */
  private readonly sums: Uint32Array

  constructor(width: number, height: number, outlines: readonly (readonly Px[])[]) {
    this.wide = Math.max(1, Math.ceil(width / CELL))
    this.high = Math.max(1, Math.ceil(height / CELL))
    const cells = new Uint8Array(this.wide * this.high)
    for (const outline of outlines) this.mark(cells, outline)
    const row = this.wide + 1
    this.sums = new Uint32Array(row * (this.high + 1))
    for (let y = 0; y < this.high; y++) {
      let line = 0
      for (let x = 0; x < this.wide; x++) {
        line += cells[y * this.wide + x] ?? 0
        this.sums[(y + 1) * row + x + 1] = (this.sums[y * row + x + 1] ?? 0) + line
      }
    }
  }

  /** Whether any of a plate is covered. */
  has({ x, y, width, height }: Plate): boolean {
    const row = this.wide + 1
    const column = (at: number): number => Math.max(0, Math.min(this.wide, at))
    const line = (at: number): number => Math.max(0, Math.min(this.high, at))
    const [left, right] = [column(Math.floor(x / CELL)), column(Math.ceil((x + width) / CELL))]
    const [top, low] = [line(Math.floor(y / CELL)), line(Math.ceil((y + height) / CELL))]
    const at = (r: number, c: number): number => this.sums[r * row + c] ?? 0
    return at(low, right) - at(top, right) - at(low, left) + at(top, left) > 0
  }

  /** Marks the cells that an outline runs through, and those within it. */
  private mark(cells: Uint8Array, outline: readonly Px[]): void {
    for (let i = 0; i < outline.length; i++) {
      const [p, q] = [outline[i], outline[(i + 1) % outline.length]]
      if (p && q) this.markLine(cells, p, q)
    }
    if (outline.length < 3) return
    for (let r = 0; r < this.high; r++) {
      const y = (r + 0.5) * CELL
      const crossings: number[] = []
      for (let i = 0; i < outline.length; i++) {
        const [p, q] = [outline[i], outline[(i + 1) % outline.length]]
        if (!p || !q || p.y > y === q.y > y) continue
        crossings.push(p.x + ((y - p.y) / (q.y - p.y)) * (q.x - p.x))
      }
      crossings.sort((a, b) => a - b)
      for (let k = 0; k + 1 < crossings.length; k += 2) {
        const from = Math.max(0, Math.floor((crossings[k] ?? 0) / CELL))
        const to = Math.min(this.wide - 1, Math.floor((crossings[k + 1] ?? 0) / CELL))
        for (let c = from; c <= to; c++) cells[r * this.wide + c] = 1
      }
    }
  }

  private markLine(cells: Uint8Array, p: Px, q: Px): void {
    const steps = Math.ceil((2 * Math.hypot(q.x - p.x, q.y - p.y)) / CELL)
    // A line that runs far out of the pane needs no cells there.
    if (steps > 20_000) return
    for (let i = 0; i <= steps; i++) {
      const t = steps === 0 ? 0 : i / steps
      const c = Math.floor((p.x + (q.x - p.x) * t) / CELL)
      const r = Math.floor((p.y + (q.y - p.y) * t) / CELL)
      if (c >= 0 && r >= 0 && c < this.wide && r < this.high) cells[r * this.wide + c] = 1
    }
  }
}
