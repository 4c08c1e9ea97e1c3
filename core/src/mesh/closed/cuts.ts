import {
  chordAngle,
  mapped,
  radiusOf,
  scalePlace,
  vec,
  type ArcPiece,
  type LinePiece,
  type Place,
  type Vec,
} from '../../geometry'
import { isUpright, landOf, sidesOf, type BoredAside, type Land, type Side } from '../../solid'

export const TURN = 2 * Math.PI

/** A place of a surface square to the axis: `t` round it where a tool comes from, `w` out towards it. */
export interface Spot {
  readonly t: number
  readonly w: number
}

/** A side of a tool’s outline, and the face it leaves. */
export interface CutSide extends Side {
  readonly face: string
  /** How its face looks, along the axis and round it. @param isNear whether the tool lies on its side of greater `t` */
  readonly wayAt: (u: number, isNear: boolean) => Vec
}

/** What one tool takes from outside, told along the axis (u) and round it (t). */
export interface Cut {
  readonly number: number
  readonly from: number
  readonly to: number
  /** How far from the axis it ends, 0 where it goes through. */
  readonly floor: number
  readonly ground: string | undefined
  readonly opens: number
  readonly sides: readonly CutSide[]
  /** Walls square to the axis. */
  readonly ends: readonly {
    readonly at: number
    readonly low: number
    readonly high: number
    readonly face: string
  }[]
  /** Where its sides should be looked at, so that they keep their chords. */
  readonly samples: readonly number[]
  readonly out: Place
  /** A place square to the axis. */
  readonly put: (spot: Spot) => Vec
}

export function cutOf(aside: BoredAside, number: number, tolerance: number): Cut {
  const { outline, out, across, floor, ground, opens, walls } = aside
  // They are told along the other way round the axis.
  const pieces = outline.map((p) => mapped(p, (q) => vec(q.x, -q.y), true) as LinePiece | ArcPiece)
  const round = scalePlace(across, -1)
  const sides = pieces.flatMap((piece, i) =>
    sidesOf(piece).map((side): CutSide => {
      const isUpper = side.at((side.from + side.to) / 2) > centreOf(piece)
      return {
        ...{ ...side, face: walls[i] ?? '' },
        wayAt: (u, isNear) => wayOf(piece, vec(u, side.at(u)), isUpper === isNear, isNear),
      }
    }),
  )
  const ends = pieces.flatMap((piece, i) => {
    if (!isUpright(piece)) return []
    const [low, high] = [Math.min(piece.from.y, piece.to.y), Math.max(piece.from.y, piece.to.y)]
    return [{ at: piece.from.x, low, high, face: walls[i] ?? '' }]
  })
  const places = [...sides.flatMap((s) => [s.from, s.to]), ...ends.map((e) => e.at)]
  return {
    ...{ number, floor: ground === undefined ? 0 : floor, ground, opens, sides, ends, out },
    ...{ from: Math.min(...places), to: Math.max(...places) },
    samples: [...places, ...pieces.flatMap((p) => samplesOf(p, tolerance))],
    put: ({ t, w }) => vec(w * out.x + t * round.x, w * out.y + t * round.y),
  }
}

const centreOf = (piece: LinePiece | ArcPiece): number =>
  piece.kind === 'line' ? 0 : piece.centre.y

/** How a wall over a piece of the outline looks, into what is open. @param isBowed whether an arc bows into that */
function wayOf(piece: LinePiece | ArcPiece, at: Vec, isBowed: boolean, isNear: boolean): Vec {
  if (piece.kind === 'line') {
    const [x, y] = [piece.to.x - piece.from.x, piece.to.y - piece.from.y]
    const by = (x > 0 === isNear ? 1 : -1) / Math.hypot(x, y)
    return vec(-y * by, x * by)
  }
  const by = (isBowed ? 1 : -1) / radiusOf(piece)
  return vec((at.x - piece.centre.x) * by, (at.y - piece.centre.y) * by)
}

/** Places along the axis between which an arc is seen as round. */
function samplesOf(piece: LinePiece | ArcPiece, tolerance: number): number[] {
  if (piece.kind === 'line') return []
  const radius = radiusOf(piece)
  const steps = 2 * Math.ceil(Math.PI / 2 / chordAngle(radius, tolerance))
  const range = sidesOf(piece)
  return Array.from({ length: steps + 1 }, (_, i) => {
    return piece.centre.x - radius * Math.cos((Math.PI * i) / steps)
  }).filter((u) => range.some((s) => s.from <= u && u <= s.to))
}

/** The angle of a place about the axis, within the first turn. */
export function angleOf({ out }: Cut, { t, w }: Spot): number {
  const angle = Math.atan2(out.y, out.x) + Math.atan2(t, w)
  return ((angle % TURN) + TURN) % TURN
}

/** What a tool has opened in a surface along a stretch of the axis; a side that is none is where its floor comes out. */
export interface Opening {
  readonly cut: Cut
  readonly one: CutSide | undefined
  readonly other: CutSide | undefined
}

/** Sides of a tool over a place along the axis, in pairs that hold what is cut between them. */
export function pairsAt({ sides }: Cut, u: number): (readonly [CutSide, CutSide])[] {
  const met = sides.filter((s) => s.from < u && u < s.to).sort((a, b) => a.at(u) - b.at(u))
  return met.flatMap((s, i) => {
    const next = met[i + 1]
    return i % 2 === 0 && next ? [[s, next] as const] : []
  })
}

/** Places nearer than this are one, in mm: a picture’s numbers are no finer. */
export const SAME = 1e-6

/** Half of how wide a floor is under a radius; nothing where it but touches, which a root would make much of. */
export const chordOf = (floor: number, radius: number): number =>
  radius - Math.abs(floor) < TOUCHES ? 0 : Math.sqrt(radius * radius - floor * floor)
const TOUCHES = 1e-9

/** What tools have opened at a place along the axis in a surface of a radius there. */
export function openingsAt(cuts: readonly Cut[], u: number, radius: number): Opening[] {
  return cuts.flatMap((cut) => {
    const chord = radius > cut.floor ? chordOf(cut.floor, radius) : 0
    return pairsAt(cut, u).flatMap(([one, other]): Opening[] => {
      const [low, high] = [one.at(u), other.at(u)]
      if (low >= chord || high <= -chord) return []
      return [
        {
          cut,
          one: low > -chord ? one : undefined,
          other: high < chord ? other : undefined,
        },
      ]
    })
  })
}

/** Where an opening begins and ends at a place along the axis, in a surface of a radius there. */
export function endsOf({ cut, one, other }: Opening, u: number, radius: number): [Spot, Spot] {
  const chord = chordOf(cut.floor, radius)
  const spot = (side: CutSide | undefined, bare: number): Spot => {
    if (!side) return { t: bare, w: Math.min(cut.floor, radius) }
    const t = Math.max(-radius, Math.min(radius, side.at(u)))
    return { t, w: chordOf(t, radius) }
  }
  const [begin, end] = [spot(one, -chord), spot(other, chord)]
  if (end.t - begin.t >= SAME) return [begin, end]
  const [t, w] = [(begin.t + end.t) / 2, (begin.w + end.w) / 2]
  return [
    { t, w },
    { t, w },
  ]
}

/** A surface of the full turn that runs steadily along the axis. */
export interface Surface extends Land {
  readonly strip: number
  readonly face: string
  readonly isInside: boolean
  /** What is cut into it. */
  readonly cuts: readonly Cut[]
  /** How it looks: along the axis, and out from it. */
  readonly wayAt: (u: number) => Vec
}

export function surfaceOf(
  piece: LinePiece | ArcPiece,
  about: Pick<Surface, 'strip' | 'face' | 'isInside' | 'cuts'>,
): Surface {
  const land = landOf(piece)
  const wayAt = (u: number): Vec => {
    if (piece.kind === 'line') {
      const [x, y] = [piece.to.x - piece.from.x, piece.to.y - piece.from.y]
      return vec(y / Math.hypot(x, y), -x / Math.hypot(x, y))
    }
    const by = (piece.counterClockwise ? 1 : -1) / radiusOf(piece)
    return vec((u - piece.centre.x) * by, (land.radiusAt(u) - piece.centre.y) * by)
  }
  // At its ends it is where its neighbours are, to the last digit.
  const radiusAt = (u: number): number =>
    u === piece.from.x ? piece.from.y : u === piece.to.x ? piece.to.y : land.radiusAt(u)
  return { ...land, ...about, radiusAt, wayAt }
}
