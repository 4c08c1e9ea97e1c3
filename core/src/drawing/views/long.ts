import { boundsOf, mapped, pointAt, vec, type Piece, type Vec } from '../../geometry'
import type { PartState } from '../../route'
import { edgesOf, greatestRadius, withLoops, type Section } from '../../section'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { cutPlace, placedShape, type Asked } from '../asked'
import type { Item } from '../items'
import type { Seen } from '../seen'
import type { View } from './turned'
import type { Shown } from './shown'
import { united, type Span } from './spans'
import { isRightOf, itemsWhere, piecesWhere, waveAt, type Wave } from './wave'

/** A plain stretch of the axis of which the middle is left out (ISO 128-3:2020, interrupted views), in mm of the part. */
export interface Break {
  readonly from: number
  readonly to: number
  /** How much nearer together its ends are on the drawing, in mm of the part. */
  readonly closer: number
}

/** Between the lines where a view is broken, in mm of paper. */
const CLEAR = 3
/** So many times longer than wide a stretch is, and so much of the whole, where it is broken. */
const SLENDER = 4
const SHARE = 0.3
/** What stays of it, of its width, and at least in mm of paper; and where in that it is broken: not where labels point. */
const KEPT = 2
const LEAST = 36
const BEFORE = 0.6

/** Where bodies can be broken at a scale. @param seen what the kernel told of them, if they are no full turns */
export function breaksOf(
  bodies: readonly Shown[],
  asked: readonly Asked[],
  seen: readonly Seen[],
  by: number,
): Break[] {
  const pieces = [
    ...bodies.flatMap((b) => edgesOf(b.section)).map((e) => e.piece),
    ...seen.flatMap((s) => [...s.lines, ...s.cuts.flat()]),
  ]
  const spans = plainSpans(
    pieces,
    asked.flatMap(({ shape }) => cutPlace(shape) ?? []),
  )
  const [left, right] = [spans.left, spans.right]
  return spans.free.flatMap(([from, to]): Break[] => {
    const long = to - from
    const middle = (from + to) / 2
    const wide = 2 * Math.max(0, ...bodies.map((b) => greatestRadius(b.section, middle, middle)))
    const kept = Math.max(KEPT * wide, LEAST / by)
    const isLong = long > SLENDER * wide && long > SHARE * (right - left) && long > 1.5 * kept
    if (wide === 0 || !isLong) return []
    const [a, b] = [from + BEFORE * kept, to - (1 - BEFORE) * kept]
    return [{ from: a, to: b, closer: b - a - CLEAR / by }]
  })
}

/** Stretches of the axis over which all there is runs along it. @param apart places at which none of them may go on */
function plainSpans(
  pieces: readonly Piece[],
  apart: readonly number[],
): { readonly free: readonly Span[]; readonly left: number; readonly right: number } {
  const isLevel = (p: Piece): boolean =>
    p.kind === 'line' && Math.abs(p.from.y - p.to.y) < VERTEX_TOLERANCE
  const taken = united(
    pieces
      .filter((p) => !isLevel(p))
      .map(boundsOf)
      .map(({ min, max }): Span => [min.x, max.x]),
    0,
  )
  const ends = [...pieces.flatMap((p) => [p.from.x, p.to.x]), ...taken.flat(), ...apart]
  const stops = ends.sort((a, b) => a - b)
  let next = 0
  const free = stops.slice(1).flatMap((to, i): Span[] => {
    const from = stops[i] ?? to
    const middle = (from + to) / 2
    while ((taken[next]?.[1] ?? Infinity) <= middle) next += 1
    const isTaken = (taken[next]?.[0] ?? Infinity) < middle
    return to - from > VERTEX_TOLERANCE && !isTaken ? [[from, to]] : []
  })
  return { free, left: stops[0] ?? 0, right: stops.at(-1) ?? 0 }
}

/** Where a place of the axis stands on a broken view, in mm of the part; of what is left out, where that begins. */
export function placeIn(breaks: readonly Break[], x: number): number {
  let off = 0
  for (const { from, to, closer } of breaks) {
    if (x >= to) off += closer
    else if (x > from) return from - off
  }
  return x - off
}

/** A piece as a broken view has it: what is not level lies on one side of each break. */
function pieceIn<P extends Piece>(breaks: readonly Break[], piece: P): P {
  if (piece.kind === 'line') return mapped(piece, (p) => pointIn(breaks, p), false) as P
  const { x } = pointAt(piece, 0.5)
  const off = placeIn(breaks, x) - x
  return mapped(piece, (p) => vec(p.x + off, p.y), false) as P
}

const pointIn = (breaks: readonly Break[], { x, y }: Vec): Vec => vec(placeIn(breaks, x), y)

const sectionIn = (breaks: readonly Break[], section: Section): Section =>
  withLoops(section, (loop) => loop.map((e) => ({ ...e, piece: pieceIn(breaks, e.piece) })))

/** The state with all its bodies as a broken view has them. */
export const stateIn = (breaks: readonly Break[], state: PartState): PartState => ({
  ...state,
  bodies: state.bodies.map((b) => ({ ...b, section: sectionIn(breaks, b.section) })),
})

export const bodiesIn = (breaks: readonly Break[], bodies: readonly Shown[]): readonly Shown[] =>
  bodies.map((b) => ({ ...b, section: sectionIn(breaks, b.section) }))

export const seenIn = (breaks: readonly Break[], seen: Seen): Seen => ({
  lines: seen.lines.map((p) => pieceIn(breaks, p)),
  cuts: seen.cuts.map((cut) => cut.map((p) => pieceIn(breaks, p))),
})

/** What is asked, where a broken view has it. */
export const askedIn = (breaks: readonly Break[], asked: Asked): Asked => ({
  ...asked,
  shape: placedShape(
    asked.shape,
    (p) => pointIn(breaks, p),
    (arc) => pieceIn(breaks, arc),
  ),
})

/** A view along the axis, and what is drawn over it, with a gap at each break. */
export interface BrokenView {
  readonly view: View
  /** Leaves out of other items what lies in the gaps. */
  readonly open: (items: readonly Item[]) => Item[]
  /** The lines at which it is broken. */
  readonly waves: readonly Piece[]
}

/** Breaks a view that was drawn of bodies as they are in it. @param by paper for part */
export function brokenView(breaks: readonly Break[], view: View, by: number): BrokenView {
  if (breaks.length === 0) return { view, open: (items) => [...items], waves: [] }
  const gaps = breaks.map(({ from }): readonly [Wave, Wave] => {
    const x = placeIn(breaks, from) * by
    const high = view.outside(x + CLEAR / 2)
    return [waveAt(x, -high, high), waveAt(x + CLEAR, -high, high)]
  })
  const waves = gaps.flat()
  const isKept = (at: Vec): boolean => gaps.every(([a, b]) => !isRightOf(a, at) || isRightOf(b, at))
  // The axis goes on.
  const open = (items: readonly Item[]): Item[] => [
    ...itemsWhere(
      items.filter((i) => !isCentre(i)),
      waves,
      isKept,
    ),
    ...items.filter(isCentre),
  ]
  const lines = waves.flatMap((w) => w.pieces)
  return {
    view: {
      ...view,
      items: [
        ...open(view.items),
        { kind: 'stroke', line: 'narrow', runs: waves.map((w) => w.pieces) },
      ],
      outlines: [...piecesWhere(view.outlines, waves, isKept), ...lines],
    },
    ...{ open, waves: lines },
  }
}

const isCentre = (item: Item): boolean => item.kind === 'stroke' && item.line === 'centre'
