import { add, distance, line, meetingsOf, scale, windingAround, type Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { edgesOf, type Section } from '../types'

/**
 * Where a straight way through the half-plane runs in material: stretches as distances from its start
 * in mm, in order.
 * @param way of length 1
 */
export function materialAlong(
  section: Section,
  from: Vec,
  way: Vec,
  reach: number,
): readonly (readonly [number, number])[] {
  const ray = line(from, add(from, scale(way, reach)))
  const turned = edgesOf(section).map(({ piece }) => ({ piece, times: 1 }))
  const stops = edgesOf(section)
    .flatMap(({ piece }) => meetingsOf(ray, piece, VERTEX_TOLERANCE))
    .map((m) => distance(m.at, from))
  const sorted = [0, ...stops, reach].sort((a, b) => a - b)
  const stretches: [number, number][] = []
  sorted.slice(1).forEach((end, i) => {
    const start = sorted[i] ?? 0
    if (end - start <= VERTEX_TOLERANCE) return
    const middle = add(from, scale(way, (start + end) / 2))
    if (windingAround(middle, turned) <= 0) return
    const last = stretches.at(-1)
    if (last && start - last[1] <= VERTEX_TOLERANCE) last[1] = end
    else stretches.push([start, end])
  })
  return stretches
}

/** The greatest radius of a section between two places along the axis, in mm. */
export function greatestRadius(section: Section, from = -Infinity, to = Infinity): number {
  const ends = edgesOf(section).flatMap(({ piece }) => [piece.from, piece.to])
  const inside = ends.filter((p) => p.x >= from - VERTEX_TOLERANCE && p.x <= to + VERTEX_TOLERANCE)
  const middle = Number.isFinite(from + to) ? [from, (from + to) / 2, to] : []
  const crossed = middle.flatMap((x) => {
    const top = 1 + Math.max(0, ...ends.map((p) => p.y))
    return materialAlong(section, { x, y: 0 }, { x: 0, y: 1 }, top).map(([, out]) => out)
  })
  return Math.max(0, ...inside.map((p) => p.y), ...crossed)
}
