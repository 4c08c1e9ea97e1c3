import type { Vec } from '@lathica/core/geometry'
import type { Size } from '@lathica/core/sketch'
import type { Px } from '../view'
import type { Frame, Place } from './frame'
import { WITNESS_BEYOND, WITNESS_GAP, labelWidth, type Setting, type SizeDrawing } from './setting'

/** A dimension line in a direction, with its witness lines, through the place of its label. */
export function linearDrawing(
  { frame, text: textOf }: Setting,
  size: Size,
  [p, q]: readonly [Place, Place],
  direction: Place,
  label: Place,
): SizeDrawing {
  const text = textOf(size)
  const width = labelWidth(text)
  const normal = { a: -direction.r, r: direction.a }
  const level = dot(label, normal)
  const onLevel = (end: Place): Place => ({
    a: end.a + normal.a * (level - dot(end, normal)),
    r: end.r + normal.r * (level - dot(end, normal)),
  })
  const [from, to] = dot(p, direction) <= dot(q, direction) ? [p, q] : [q, p]
  const [start, end] = [onLevel(from), onLevel(to)]
  const [s, t, m] = [start, end, label].map((v) => dot(v, direction))
  const reach = reachAlong(frame, width, direction)
  const [low = 0, high = 0, middle = 0] = [s, t, m]
  const roomy = high - low >= reach + 22
  const between = middle - reach / 2 > low && middle + reach / 2 < high
  const at = (along: number): Px =>
    pane(frame, {
      a: start.a + direction.a * (along - low),
      r: start.r + direction.r * (along - low),
    })
  const inside = roomy && between
  const witness = (foot: Place, tip: Place): [Px, Px] => {
    const way = Math.sign(level - dot(foot, normal)) || 1
    const off = (v: Place, by: number): Px =>
      pane(frame, { a: v.a + normal.a * way * by, r: v.r + normal.r * way * by })
    return [off(foot, WITNESS_GAP), off(tip, WITNESS_BEYOND)]
  }
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: pane(frame, label),
    width,
    lines: [
      [
        at(Math.min(inside ? low : low - 12, middle)),
        at(Math.max(inside ? high : high + 12, middle)),
      ],
    ],
    witnesses: [witness(from, start), witness(to, end)],
    arrows: inside
      ? [
          [at(low), at(high)],
          [at(high), at(low)],
        ]
      : [
          [at(low), at(low - 12)],
          [at(high), at(high + 12)],
        ],
  }
}

const dot = (p: Place, q: Place): number => p.a * q.a + p.r * q.r
const pane = (frame: Frame, p: Place): Px => frame.toPane(p.a, p.r)

/** How far a label reaches in a direction. */
function reachAlong(frame: Frame, width: number, direction: Place): number {
  const { along, across } = frame.extent(width)
  return Math.abs(direction.a) * along + Math.abs(direction.r) * across
}

/** Places to try for a label, the nearest first: beside what is measured, on either side. */
export function linearPlaces(
  { frame }: Setting,
  [p, q]: readonly [Place, Place],
  direction: Place,
  width: number,
  outwards: 1 | -1,
): Place[] {
  const normal = { a: -direction.r, r: direction.a }
  const middle = { a: (p.a + q.a) / 2, r: (p.r + q.r) / 2 }
  const length = Math.abs(dot(q, direction) - dot(p, direction))
  const reach = reachAlong(frame, width, direction)
  const beyond = length >= reach + 4 ? 0 : length / 2 + 14 + reach / 2
  const across = reachAlong(frame, width, normal)
  const spread = Math.abs(dot(q, normal) - dot(p, normal)) / 2
  const offs = [1, 2, 3, -1, 4, -2, 5, -3].map(
    (k) => outwards * Math.sign(k) * (spread + 22 + (Math.abs(k) - 1) * (across + 6)),
  )
  return offs.map((off) => ({
    a: middle.a + normal.a * off + direction.a * beyond,
    r: middle.r + normal.r * off + direction.r * beyond,
  }))
}

/** The direction of a straight distance; towards greater x, or outwards when radial. */
export function directionOf(
  way: 'axial' | 'radial' | 'straight',
  [p, q]: readonly [Vec, Vec],
): Place {
  if (way === 'axial') return { a: 1, r: 0 }
  if (way === 'radial') return { a: 0, r: 1 }
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  const sign = q.x - p.x < 0 ? -1 : 1
  return { a: (sign * (q.x - p.x)) / length, r: (sign * (q.y - p.y)) / length }
}
