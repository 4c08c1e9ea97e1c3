import { cornersOf, edgeKey, type Corner, type Section, type SectionEdge } from '../section'

/** A cylinder of the part: a land outside or a bore inside. */
export interface Land {
  readonly side: 'outside' | 'inside'
  /** In mm. */
  readonly radius: number
  readonly from: number
  readonly to: number
}

/** The cylinder that pieces of a face are, end to end; undefined where they are none. */
export function landOf(edges: readonly SectionEdge[]): Land | undefined {
  const [first] = edges
  if (first?.piece.kind !== 'line') return undefined
  const radius = first.piece.from.y
  const isLevel = edges.every(
    ({ piece }) =>
      piece.kind === 'line' &&
      Math.abs(piece.from.y - radius) < 1e-6 &&
      Math.abs(piece.to.y - radius) < 1e-6,
  )
  if (!isLevel || radius <= 0) return undefined
  const places = edges.flatMap(({ piece }) => [piece.from.x, piece.to.x])
  // Material lies left of an edge: below one that runs to the left.
  const side = first.piece.to.x < first.piece.from.x ? 'outside' : 'inside'
  return { side, radius, from: Math.min(...places), to: Math.max(...places) }
}

/** Whether a face is square to the axis. */
export const isSquare = (edges: readonly SectionEdge[]): boolean =>
  edges.length > 0 &&
  edges.every(({ piece }) => piece.kind === 'line' && Math.abs(piece.from.x - piece.to.x) < 1e-6)

/** The corners in which a face meets others. */
export const cornersOn = (section: Section, on: string): readonly Corner[] =>
  cornersOf(section).filter(({ arriving, leaving }) =>
    [arriving, leaving].some((e) => edgeKey(e.name) === on),
  )
