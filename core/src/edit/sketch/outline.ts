import { fail, succeed } from '../../result'
import {
  controlOf,
  pointAt,
  distance,
  joinedCubics,
  radiusOf,
  tangentAt,
  type Piece,
  type Vec,
} from '../../geometry'
import { AXIS_ID, isEndSketch, type Entity, type Role, type Sketch } from '../../sketch'
import type { NewConstraint } from '../../constraints'
import type { Command } from '../command'
import { placeDraft, type Draft } from './draft'
import type { End } from './ends'

/** Pieces end to end that are drawn in one go. */
export interface DrawnRun {
  readonly pieces: readonly Piece[]
  readonly role: Role
}

/** Ends of pieces within this are one point, in mm: drawings round their places. */
const ONE_POINT = 2e-3
/** Directions within this, in radians, are along the axis or square to it; smooth joints turn by less. */
const STRAIGHT = 1e-5
const SMOOTH = 1e-3
/** Cubics are one curve where joining them moves none of their control points by more than this, in mm. */
const AS_ONE = 1e-5
/** Of drawings of more pieces than this only what runs straight is held: the rest is left to its points. */
const MOST_HELD = 300

/**
 * Draws an outline that was drawn elsewhere: lines, arcs and free curves that share their ends. Lines that run along
 * the axis or square to it are held so, ends on the axis stay on it, and what goes on smoothly does.
 */
export function drawOutline(sketchId: string, runs: readonly DrawnRun[]): Command {
  return {
    label: 'draw an outline',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const drawn = placeDraft(part, sketchId, draftOf(runs, sketch))
      return drawn.ok ? succeed(drawn.value.part) : drawn
    },
  }
}

function draftOf(runs: readonly DrawnRun[], sketch: Sketch): Draft {
  const points: Record<string, End> = {}
  const entities: Entity[] = []
  const ties: NewConstraint[] = []
  const isHalf = !isEndSketch(sketch)
  const held = runs.reduce((sum, { pieces }) => sum + pieces.length, 0) <= MOST_HELD
  const cells = new Map<string, string[]>()
  let count = 0

  const add = (at: Vec, more: Partial<End> = {}): string => {
    const name = `~p${count++}`
    points[name] = { at, ...more }
    return name
  }
  /** The point at a place: one that is there already, or a new one. */
  const end = (at: Vec): string => {
    const [i, j] = [Math.round(at.x / ONE_POINT), Math.round(at.y / ONE_POINT)]
    for (const [u, v] of NEIGHBOURS) {
      for (const name of cells.get(`${i + u} ${j + v}`) ?? []) {
        const there = points[name]
        if (there && distance(there.at, at) <= ONE_POINT) return name
      }
    }
    const isOnAxis = isHalf && Math.abs(at.y) <= ONE_POINT
    const name = add(isOnAxis ? { x: at.x, y: 0 } : at, isOnAxis ? { on: [AXIS_ID] } : {})
    cells.set(`${i} ${j}`, [...(cells.get(`${i} ${j}`) ?? []), name])
    return name
  }
  const lineTies = (id: string, from: Vec, to: Vec): void => {
    const [dx, dy] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
    if (dy <= STRAIGHT * dx) ties.push({ kind: 'axial', line: id })
    else if (dx <= STRAIGHT * dy) ties.push({ kind: 'radial', line: id })
  }

  for (const { pieces, role } of runs) {
    const ring = ringOf(pieces)
    if (ring) {
      const { centre, radius } = ring
      const ends = { centre: add(centre), rim: add({ x: centre.x + radius, y: centre.y }) }
      entities.push({ id: `~e${count++}`, kind: 'circle', ...ends, role })
      continue
    }
    let last: { readonly id: string; readonly piece: Piece } | undefined
    const first = entities.length
    for (const stretch of stretchesOf(pieces).flatMap(opened)) {
      const [piece, behind] = [stretch[0], stretch.at(-1)]
      if (!piece || !behind) continue
      const [from, to] = [end(piece.from), end(behind.to)]
      // What has no length is nothing to draw.
      if (from === to) continue
      const id = `~e${count++}`
      const entity = entityOf(stretch, { id, from, to, role })
      if (!entity) continue
      entities.push(entity)
      if (piece.kind === 'line') lineTies(id, piece.from, piece.to)
      if (held && last && isSmooth(last.piece, piece)) {
        ties.push({ kind: 'tangent', curve: id, to: last.id })
      }
      last = { id, piece: behind }
    }
    const [opening, begun] = [pieces[0], entities[first]]
    if (held && last && opening && begun && last.id !== begun.id) {
      const meets = distance(last.piece.to, opening.from) <= ONE_POINT
      if (meets && isSmooth(last.piece, opening)) {
        ties.push({ kind: 'tangent', curve: begun.id, to: last.id })
      }
    }
  }
  return { points, entities, ties }

  function entityOf(
    stretch: readonly Piece[],
    base: { readonly id: string; readonly from: string; readonly to: string; readonly role: Role },
  ): Entity | undefined {
    const [piece] = stretch
    if (!piece) return undefined
    if (piece.kind === 'line') return { ...base, kind: 'line' }
    if (piece.kind === 'arc') {
      const { counterClockwise } = piece
      return { ...base, kind: 'arc', centre: add(piece.centre), counterClockwise }
    }
    const cubics = stretch.flatMap((p) => (p.kind === 'cubic' ? [controlOf(p)] : []))
    const [joined] = stretch.length > 1 ? joinedCubics(cubics, AS_ONE) : []
    if (joined) {
      const { places, spans } = joined.frame
      const by = places.slice(1, -1).map((at) => add(at))
      return { ...base, kind: 'spline', way: 'frame', by, fromHandle: '', toHandle: '', spans }
    }
    const [, b, c] = controlOf(piece)
    return { ...base, kind: 'curve', fromHandle: add(b), toHandle: add(c) }
  }
}

const NEIGHBOURS = [-1, 0, 1].flatMap((u) => [-1, 0, 1].map((v) => [u, v] as const))

/** Pieces by what each is drawn as: cubics that are one curve without a jump of curvature together, others alone. */
function stretchesOf(pieces: readonly Piece[]): readonly (readonly Piece[])[] {
  const found: Piece[][] = []
  for (let i = 0; i < pieces.length;) {
    const run: Piece[] = []
    while (pieces[i + run.length]?.kind === 'cubic') {
      const next = pieces[i + run.length]
      if (next) run.push(next)
    }
    if (run.length < 2) {
      found.push(pieces.slice(i, i + 1))
      i++
      continue
    }
    const cubics = run.flatMap((p) => (p.kind === 'cubic' ? [controlOf(p)] : []))
    let at = 0
    for (const { count } of joinedCubics(cubics, AS_ONE)) {
      found.push(run.slice(at, at + count))
      at += count
    }
    // What could not be joined is drawn piece by piece.
    found.push(...run.slice(at).map((piece) => [piece]))
    i += run.length
  }
  return found
}

/** A curve that ends where it began, as two: a piece is drawn between two ends. */
function opened(stretch: readonly Piece[]): readonly (readonly Piece[])[] {
  const [piece, behind] = [stretch[0], stretch.at(-1)]
  if (piece?.kind !== 'cubic' || !behind || distance(piece.from, behind.to) > ONE_POINT) {
    return [stretch]
  }
  if (stretch.length > 1) return [stretch.slice(0, 1), stretch.slice(1)]
  const middle = (piece.start + piece.end) / 2
  const at = pointAt(piece, 0.5)
  return [[{ ...piece, end: middle, to: at }], [{ ...piece, start: middle, from: at }]]
}

/** Two arcs that are one circle. */
function ringOf(
  pieces: readonly Piece[],
): { readonly centre: Vec; readonly radius: number } | undefined {
  const [one, two, more] = pieces
  if (more || one?.kind !== 'arc' || two?.kind !== 'arc') return undefined
  const isRound =
    distance(one.centre, two.centre) <= ONE_POINT &&
    one.counterClockwise === two.counterClockwise &&
    distance(one.from, two.to) <= ONE_POINT &&
    distance(one.to, two.from) <= ONE_POINT
  return isRound ? { centre: one.centre, radius: radiusOf(one) } : undefined
}

/** Whether a piece goes on from another without a corner; lines from lines are left to what they are. */
function isSmooth(before: Piece, piece: Piece): boolean {
  if (before.kind === 'line' && piece.kind === 'line') return false
  const [u, v] = [tangentAt(before, 1), tangentAt(piece, 0)]
  return u.x * v.x + u.y * v.y > 0 && Math.abs(u.x * v.y - u.y * v.x) < SMOOTH
}
