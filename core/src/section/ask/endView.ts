import { boundsOf, pointsAlong, tangentAt, type Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { loopsOf, type Loop, type Section } from '../types'

/** A circular edge of a part as it is seen along the axis. */
export interface EndCircle {
  /** in mm */
  readonly radius: number
  /** True when material lies before it. */
  readonly hidden: boolean
}

/** Outlines are looked through by chords this close to the curve, in mm. */
const CHORD = 1e-2

/**
 * The circular edges of a section seen from one end: its corners, each radius once, the widest
 * turns of rounded edges, and the cylinders that rounds run into. An edge shows when no material lies between it and the eye.
 * @param from the end one looks from: the greatest axial position or the least
 */
export function endCircles(section: Section, from: 'right' | 'left'): EndCircle[] {
  const loops = loopsOf(section)
  const covers = coverOf(loops)
  const sign = from === 'right' ? 1 : -1
  const visible = new Map<number, boolean>()
  for (const { x, y } of loops.flatMap(edgesInView)) {
    if (y <= VERTEX_TOLERANCE) continue
    const radius = Math.round(y / VERTEX_TOLERANCE) * VERTEX_TOLERANCE
    if (visible.get(radius)) continue
    // Looked at from just outside and inside the edge: it shows when either way is free.
    const isCovered = (height: number): boolean => covers(x * sign, height, sign)
    const beside = 10 * VERTEX_TOLERANCE
    visible.set(radius, !isCovered(y + beside) || !isCovered(y - beside))
  }
  return [...visible]
    .map(([radius, free]) => ({ radius, hidden: !free }))
    .sort((a, b) => a.radius - b.radius)
}

/** Corners where the outline bends, and the extremes of arcs. */
function edgesInView(loop: Loop): { x: number; y: number }[] {
  return loop.flatMap((edge, i) => {
    const next = loop[(i + 1) % loop.length] ?? edge
    const u = tangentAt(edge.piece, 1)
    const v = tangentAt(next.piece, 0)
    const bends = Math.abs(u.x * v.y - u.y * v.x) > 1e-3 || u.x * v.x + u.y * v.y < 0
    // A cylinder that a round runs into without a bend is seen on end: as one circle.
    const runsIn = Math.abs(u.y) < 1e-6 && edge.piece.kind !== next.piece.kind
    const corner = bends || runsIn ? [edge.piece.to] : []
    if (edge.piece.kind === 'cubic') {
      // A cubic turns back only where one of its parts ends.
      const top = edge.piece.to
      const turnsBack = edge.piece.from.y < top.y && next.piece.to.y < top.y
      return corner.length === 0 && turnsBack ? [top] : corner
    }
    if (edge.piece.kind === 'line') return corner
    const { max } = boundsOf(edge.piece)
    const widest = Math.max(edge.piece.from.y, edge.piece.to.y) < max.y - VERTEX_TOLERANCE
    return widest ? [...corner, { x: edge.piece.centre.x, y: max.y }] : corner
  })
}

/** Stretches of the radius by which chords are found. */
const BINS = 256

/**
 * Tells whether outlines are met at a height beyond an axial position, both reckoned towards the eye.
 * Chords are found by their heights.
 */
function coverOf(loops: readonly Loop[]): (start: number, height: number, sign: number) => boolean {
  /** Both ends of each chord that is not level: four numbers. */
  const chords: number[] = []
  let top = 0
  for (const loop of loops) {
    for (const { piece } of loop) {
      const along = piece.kind === 'line' ? [piece.from, piece.to] : pointsAlong(piece, CHORD)
      let before: Vec | undefined
      for (const p of along) {
        if (before && before.y !== p.y) chords.push(before.x, before.y, p.x, p.y)
        top = Math.max(top, p.y)
        before = p
      }
    }
  }
  const end = (chord: number, of: 0 | 1 | 2 | 3): number => chords[chord + of] ?? 0
  const binOf = (y: number): number =>
    Math.max(0, Math.min(BINS - 1, Math.floor((y / top) * BINS) || 0))
  const eachBin = (chord: number, visit: (bin: number) => void): void => {
    const [one, other] = [binOf(end(chord, 1)), binOf(end(chord, 3))]
    for (let bin = Math.min(one, other); bin <= Math.max(one, other); bin++) visit(bin)
  }
  /** Where the chords of each bin begin in one list of all. */
  const starts = new Uint32Array(BINS + 1)
  for (let chord = 0; chord < chords.length; chord += 4) {
    eachBin(chord, (bin) => (starts[bin + 1] = (starts[bin + 1] ?? 0) + 1))
  }
  for (let bin = 0; bin < BINS; bin++) starts[bin + 1] = (starts[bin + 1] ?? 0) + (starts[bin] ?? 0)
  const listed = new Uint32Array(starts[BINS] ?? 0)
  const next = starts.slice()
  for (let chord = 0; chord < chords.length; chord += 4) {
    eachBin(chord, (bin) => {
      const at = next[bin] ?? 0
      listed[at] = chord
      next[bin] = at + 1
    })
  }
  return (start, height, sign) => {
    const bin = binOf(height)
    for (let i = starts[bin] ?? 0; i < (starts[bin + 1] ?? 0); i++) {
      const chord = listed[i] ?? 0
      const [y, toY] = [end(chord, 1), end(chord, 3)]
      if (y > height === toY > height) continue
      const x = end(chord, 0)
      const at = sign * (x + ((height - y) * (end(chord, 2) - x)) / (toY - y))
      if (at > start + 10 * VERTEX_TOLERANCE) return true
    }
    return false
  }
}
