import { lineEnds, type Size, type Vec } from '@lathica/core'
import type { Px } from '../view'
import { LABEL_HEIGHT } from './frame'
import { WITNESS_BEYOND, WITNESS_GAP, labelWidth, type Setting, type SizeDrawing } from './setting'

/** The length of a line that is not axial: along the line, on its outer side. */
export function alignedSize(setting: Setting, size: Size & { kind: 'length' }): SizeDrawing {
  const { lines, locate, frame } = setting
  const [p, q] = lineEnds(lines, locate, size.line)
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  const [ux, uy] = [(q.x - p.x) / length, (q.y - p.y) / length]
  // Outwards, or to the right of a radial line.
  const sign = ux === 0 || Math.abs(ux) < 1e-9 ? Math.sign(uy) || 1 : -Math.sign(ux)
  const [nx, ny] = [sign * uy, sign * -ux]
  const off = 22
  const s = frame.scale
  const pane = (v: Vec, by: number): Px => frame.toPane(v.x * s + nx * by, v.y * s + ny * by)
  const text = setting.text(size)
  const width = labelWidth(text)
  const inside = length * s >= LABEL_HEIGHT + 24
  const [a, b] = [pane(p, off), pane(q, off)]
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  const beside = frame.toPane(
    ((p.x + q.x) / 2) * s + nx * (off + 8 + frame.extent(width).along / 2),
    ((p.y + q.y) / 2) * s + ny * (off + LABEL_HEIGHT),
  )
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: inside ? middle : beside,
    width,
    lines: [[a, b]],
    witnesses: [
      [pane(p, WITNESS_GAP), pane(p, off + WITNESS_BEYOND)],
      [pane(q, WITNESS_GAP), pane(q, off + WITNESS_BEYOND)],
    ],
    arrows: [
      [a, b],
      [b, a],
    ],
  }
}

/** An angle: an arc about the place where the directions meet, from one to the other. */
export function angleSize(setting: Setting, size: Size & { kind: 'angle' }): SizeDrawing {
  const { lines, locate, frame } = setting
  const first = lineEnds(lines, locate, size.line)
  const [p, q] = size.reversed ? [first[1], first[0]] : first
  const second = lines.has(size.to) ? lineEnds(lines, locate, size.to) : undefined
  const vertex = second ? (meeting([p, q], second) ?? p) : p
  const toward = second ? direction(second[0], second[1]) : { x: 1, y: 0 }
  const s = frame.scale
  const radius = 38
  const centre = frame.toPane(vertex.x * s, vertex.y * s)
  const at = (v: Vec, reach: number): Px =>
    frame.toPane(vertex.x * s + v.x * reach, vertex.y * s + v.y * reach)
  const one = direction(p, q)
  const half = direction({ x: 0, y: 0 }, { x: one.x + toward.x, y: one.y + toward.y })
  const text = setting.text(size)
  const width = labelWidth(text)
  const ends = [at(one, radius), at(toward, radius)] as const
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: at(half, radius + 8 + width / 2),
    width,
    lines: [],
    witnesses: [[at(toward, 4), at(toward, radius + WITNESS_BEYOND)]],
    arrows: [],
    arc: { centre, radius, from: ends[0], to: ends[1] },
  }
}

function direction(p: Vec, q: Vec): Vec {
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  return { x: (q.x - p.x) / length, y: (q.y - p.y) / length }
}

/** Where two lines meet when drawn out; undefined when they are parallel. */
function meeting([p, q]: readonly [Vec, Vec], [a, b]: readonly [Vec, Vec]): Vec | undefined {
  const [dx, dy, ex, ey] = [q.x - p.x, q.y - p.y, b.x - a.x, b.y - a.y]
  const determinant = dx * ey - dy * ex
  if (Math.abs(determinant) < 1e-12) return undefined
  const t = ((a.x - p.x) * ey - (a.y - p.y) * ex) / determinant
  return { x: p.x + t * dx, y: p.y + t * dy }
}
