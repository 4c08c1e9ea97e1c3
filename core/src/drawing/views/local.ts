import { boundsOf, vec, type Piece, type Vec } from '../../geometry'
import { edgesOf, liesOnAxis } from '../../section'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { Item } from '../items'
import type { Seen } from '../seen'
import { outsideOf, type Outside } from './outside'
import type { Shown } from './shown'
import { united, type Span } from './spans'
import { isRightOf, itemsWhere, piecesWhere, waveAt, type Wave } from './wave'

/** Round what is hollow, and how near to an end or a shoulder no line is drawn by hand, in mm of paper. */
const ROUND = 5
const CLEAR = 2.5
/** What is inside by more than this is hidden, in mm. */
const INSIDE = 1e-4

/** Where something of bodies is hidden from outside, in mm of the part. @param seen the cut as the kernel told it */
export function hollowSpans(bodies: readonly Shown[], outside: Outside, seen?: Seen): Span[] {
  const pieces = seen
    ? seen.cuts.flat()
    : bodies.flatMap((b) => edgesOf(b.section).filter((e) => !liesOnAxis(e))).map((e) => e.piece)
  const isHidden = ({ x, y }: Vec): boolean =>
    Math.abs(y) > INSIDE &&
    [x - INSIDE, x + INSIDE].every((at) => {
      const high = outside.radiusAt(at)
      return high === 0 || Math.abs(y) < high - 10 * INSIDE
    })
  const spans = pieces.flatMap((piece): Span[] => {
    const ends = [piece.from, piece.to]
    if (!ends.some(isHidden)) return []
    const { min, max } = boundsOf(piece)
    return [[min.x, max.x]]
  })
  return united(spans, VERTEX_TOLERANCE)
}

/** Of the length of bodies, how much is hollow. */
export function hollowShare(bodies: readonly Shown[]): number {
  const outside = outsideOf(bodies.map((b) => b.section))
  const long = hollowSpans(bodies, outside).reduce((sum, [a, b]) => sum + b - a, 0)
  const xs = bodies
    .flatMap((b) => edgesOf(b.section))
    .flatMap((e) => [e.piece.from.x, e.piece.to.x])
  return long / (Math.max(...xs) - Math.min(...xs))
}

/** Half a view of which parts are cut open. */
export interface LocalHalf {
  readonly items: readonly Item[]
  readonly outlines: readonly Piece[]
  /** Whether a place along the axis is cut open, in mm of paper. */
  readonly isOpen: (x: number) => boolean
}

/** The half above the axis, cut open over spans. */
export function localHalf(
  spans: readonly Span[],
  outer: Pick<LocalHalf, 'items' | 'outlines'>,
  cut: Pick<LocalHalf, 'items' | 'outlines'>,
  { by, left, right, heightAt }: LocalSetting,
): LocalHalf {
  const corners = outer.outlines.flatMap((p) => [p.from.x, p.to.x])
  const open = united(
    spans.map(([a, b]): Span => [
      clearOf(corners, a * by - ROUND, -1, left, right),
      clearOf(corners, b * by + ROUND, 1, left, right),
    ]),
    2 * ROUND,
  )
  const waves = new Map<number, Wave>()
  for (const x of open.flat()) {
    if (x > left && x < right) waves.set(x, waveAt(x, 0, heightAt(x)))
  }
  const all = [...waves.values()]
  const isRight = (x: number, at: Vec): boolean => {
    const wave = waves.get(x)
    return wave ? isRightOf(wave, at) : x <= left
  }
  const isOpen = (at: Vec): boolean => open.some(([a, b]) => isRight(a, at) && !isRight(b, at))
  const lines = all.flatMap((w) => w.pieces)
  return {
    items: [
      ...itemsWhere(outer.items, all, (at) => !isOpen(at)),
      ...itemsWhere(cut.items, all, isOpen),
      { kind: 'stroke', line: 'narrow', runs: all.map((w) => w.pieces) },
    ],
    outlines: [
      ...piecesWhere(outer.outlines, all, (at) => !isOpen(at)),
      ...piecesWhere(cut.outlines, all, isOpen),
      ...lines,
    ],
    isOpen: (x) => isOpen(vec(x, 0.001)),
  }
}

export interface LocalSetting {
  readonly by: number
  /** Ends of the view, and how high it is over a place, in mm of paper. */
  readonly left: number
  readonly right: number
  readonly heightAt: (x: number) => number
}

/** A place that is near to no corner: farther on, or at the end of the view. */
function clearOf(
  corners: readonly number[],
  from: number,
  way: 1 | -1,
  left: number,
  right: number,
): number {
  let x = from
  for (let i = 0; i < 20; i++) {
    if (x <= left + CLEAR) return left
    if (x >= right - CLEAR) return right
    const near = corners.filter((c) => Math.abs(c - x) < CLEAR)
    if (near.length === 0) return x
    x = (way > 0 ? Math.max(...near) : Math.min(...near)) + way * CLEAR * 1.01
  }
  return x
}
