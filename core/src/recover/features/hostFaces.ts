import { leftNormal } from '../../geometry'
import { edgeKey, edgesOf } from '../../section'
import type { Host } from './types'

/** A turned face square to the axis. */
export interface SquareEdge {
  readonly key: string
  readonly at: number
}

/**
 * The turned faces square to the axis.
 * @param way 1 where their material lies to the right of them, −1 to the left
 * @param reach the radii between which something begins on them
 */
function squareEdges(
  { section, near }: Host,
  way: 1 | -1,
  [low, high]: readonly [number, number],
): SquareEdge[] {
  return edgesOf(section).flatMap(({ piece, name }) => {
    const { from, to } = piece
    if (piece.kind !== 'line' || Math.abs(from.x - to.x) > near) return []
    const [inner, outer] = [Math.min(from.y, to.y), Math.max(from.y, to.y)]
    const isOver = leftNormal(piece, 0.5).x * way > 0 && low < outer && high > inner
    return isOver ? [{ key: edgeKey(name), at: from.x }] : []
  })
}

/** The key of the turned face square to the axis at a place along it. */
export const squareFaceAt = (
  host: Host,
  at: number,
  way: 1 | -1,
  reach: readonly [number, number],
): string | undefined =>
  squareEdges(host, way, reach).find((e) => Math.abs(e.at - at) <= host.near)?.key

/**
 * The first turned face square to the axis that something which goes in along it from a place comes to.
 * @param end how far it goes, counted along its way
 */
export function squareFaceFrom(
  host: Host,
  from: number,
  way: 1 | -1,
  end: number,
  reach: readonly [number, number],
): SquareEdge | undefined {
  const passed = squareEdges(host, way, reach).filter(
    (e) => way * e.at >= way * from - host.near && way * e.at < end,
  )
  return passed.sort((a, b) => way * (a.at - b.at))[0]
}

/** An outer cylinder of the body. */
export interface OuterCylinder {
  readonly key: string
  readonly radius: number
  /** Where all of its stretches begin along the axis. */
  readonly from: number
}

/** The outer cylinder over a place along the axis. */
export function outerCylinderAt({ section, near }: Host, at: number): OuterCylinder | undefined {
  const edges = edgesOf(section)
  const level = edges.filter(
    ({ piece: { kind, from, to } }) => kind === 'line' && Math.abs(from.y - to.y) <= near,
  )
  const over = level.filter(
    ({ piece: { from, to } }) => Math.min(from.x, to.x) <= at && Math.max(from.x, to.x) >= at,
  )
  const [first, ...more] = over.filter(({ piece }) => leftNormal(piece, 0.5).y < 0)
  if (!first) return undefined
  const outermost = more.reduce((a, b) => (b.piece.from.y > a.piece.from.y ? b : a), first)
  const key = edgeKey(outermost.name)
  const own = edges.filter((e) => edgeKey(e.name) === key)
  return {
    ...{ key, radius: outermost.piece.from.y },
    from: Math.min(...own.flatMap(({ piece }) => [piece.from.x, piece.to.x])),
  }
}
