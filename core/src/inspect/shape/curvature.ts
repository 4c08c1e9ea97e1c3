import {
  curvatureAt,
  dot,
  leftNormal,
  pointAt,
  scale,
  simplePieces,
  tangentAt,
  type Piece,
  type Vec,
} from '../../geometry'
import {
  endsOf,
  isFree,
  locator,
  piecesOf,
  type Ended,
  type Entity,
  type Sketch,
} from '../../sketch'
import { partsOf } from './places'

/** A place of an outline, with what is told there. */
export interface Told {
  readonly at: Vec
  /** To the left of the way in which the outline runs, of length 1. */
  readonly left: Vec
  /** The curvature in 1/mm, positive where it turns to the left. */
  readonly value: number
}

/** Into so many parts a comb divides a piece at least and at most. */
const PLACES = [4, 80] as const

/** The curvature along pieces, a run of places for each of them. @param spacing in mm */
export function curvatureComb(
  pieces: readonly Piece[],
  spacing: number,
): readonly (readonly Told[])[] {
  return pieces.flatMap((piece): Told[][] => {
    if (piece.kind === 'line') return []
    const count = partsOf(piece, spacing, PLACES)
    const run = Array.from({ length: count + 1 }, (_, i): Told => {
      const t = i / count
      return { at: pointAt(piece, t), left: leftNormal(piece, t), value: curvatureAt(piece, t) }
    })
    return [run.filter(({ value }) => Number.isFinite(value))]
  })
}

/** Where a curve changes the side to which it turns, between its ends. */
export function inflectionsOf(pieces: readonly Piece[]): readonly Vec[] {
  const turns = pieces.flatMap(simplePieces).map((piece) => {
    const [start, end] = [tangentAt(piece, 0), tangentAt(piece, 1)]
    const turn = start.x * end.y - start.y * end.x
    const straight = piece.kind === 'line' || Math.abs(turn) < 1e-12
    return { from: piece.from, side: straight ? 0 : Math.sign(turn) }
  })
  const found: Vec[] = []
  let last = 0
  for (const { from, side } of turns) {
    if (side !== 0 && last !== 0 && side !== last) found.push(from)
    if (side !== 0) last = side
  }
  return found
}

/** Where two pieces of an outline meet, at least one of them a free curve. */
export interface Joint {
  readonly point: string
  readonly at: Vec
  readonly entities: readonly [string, string]
  /** The angle of the corner there in radians; nought where they go on from one another. */
  readonly turn: number
  /** By how much the curvature jumps, in 1/mm. */
  readonly jump: number
}

/** Angles below this are no corner, in radians. */
const NO_TURN = 1e-4
/** A jump of curvature below this share of the greater of both is none. */
const NO_JUMP = 1e-3

/** Sharper corners than this are edges that are meant, in radians. */
const MEANT = (35 * Math.PI) / 180

/** The joints of free curves with what they meet, where direction or curvature jumps, but edges that are meant. */
export function jumpsOf(sketch: Sketch): readonly Joint[] {
  const locate = locator(sketch)
  const drawn = sketch.entities.filter((e) => e.role === 'outline' && e.kind !== 'circle')
  const meeting = new Map<string, Entity[]>()
  for (const e of drawn) {
    for (const p of endsOf(e)) meeting.set(p, [...(meeting.get(p) ?? []), e])
  }
  return [...meeting].flatMap(([point, here]): Joint[] => {
    const [a, b, ...more] = here
    if (!a || !b || more.length > 0 || ![a, b].some(isFree)) return []
    const [one, two] = [leaving(a as Ended, point), leaving(b as Ended, point)]
    if (!one || !two) return []
    const turn = Math.acos(Math.min(1, Math.max(-1, -dot(one.way, two.way))))
    const jump = Math.hypot(one.bend.x - two.bend.x, one.bend.y - two.bend.y)
    const greater = Math.max(Math.hypot(one.bend.x, one.bend.y), Math.hypot(two.bend.x, two.bend.y))
    if (turn > MEANT || (turn < NO_TURN && jump <= NO_JUMP * greater)) return []
    return [{ point, at: locate(point), entities: [a.id, b.id], turn, jump }]
  })

  /** The way in which a piece leaves one of its ends, and its curvature there as a vector to its centre's side. */
  function leaving(e: Ended, point: string): { readonly way: Vec; readonly bend: Vec } | undefined {
    const atStart = e.from === point
    const pieces = piecesOf(e, locate)
    const piece = atStart ? pieces[0] : pieces.at(-1)
    if (!piece) return undefined
    const t = atStart ? 0 : 1
    const way = scale(tangentAt(piece, t), atStart ? 1 : -1)
    const curvature = curvatureAt(piece, t)
    const bend = scale(leftNormal(piece, t), Number.isFinite(curvature) ? curvature : 0)
    return { way, bend }
  }
}
