import { toPlane, toScreen } from '../view'
import type { Scene } from './scene'

/** Lines nearer to one another than this are left out, in pixels. */
const LEAST_APART = 7

/** The grid: hairlines, every so many of them heavier, as fine as the view can show. */
export function paintGrid(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { grid, view, width, height, colours } = scene
  if (!grid) return
  const corners = [toPlane(view, { x: 0, y: 0 }), toPlane(view, { x: width, y: height })]
  const [x0, x1] = range(corners.map((p) => p.x))
  const [y0, y1] = range(corners.map((p) => p.y))
  for (const [pitch, alpha] of [
    [grid.minor, 0.35],
    [grid.minor * grid.major, 0.8],
  ] as const) {
    if (pitch * view.scale < LEAST_APART) continue
    const lines = new Path2D()
    for (let k = Math.ceil(x0 / pitch); k * pitch <= x1; k++) {
      addLine(
        lines,
        toScreen(view, { x: k * pitch, y: y0 }),
        toScreen(view, { x: k * pitch, y: y1 }),
      )
    }
    for (let k = Math.ceil(y0 / pitch); k * pitch <= y1; k++) {
      addLine(
        lines,
        toScreen(view, { x: x0, y: k * pitch }),
        toScreen(view, { x: x1, y: k * pitch }),
      )
    }
    ctx.globalAlpha = alpha
    ctx.strokeStyle = colours.rule
    ctx.lineWidth = 1
    ctx.stroke(lines)
    ctx.globalAlpha = 1
  }
}

function range(values: readonly number[]): [number, number] {
  return [Math.min(...values), Math.max(...values)]
}

function addLine(path: Path2D, a: { x: number; y: number }, b: { x: number; y: number }): void {
  path.moveTo(a.x, a.y)
  path.lineTo(b.x, b.y)
}
