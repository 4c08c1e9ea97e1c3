import { line, stretch, tangentAt, vec, type Piece, type Vec } from '../../geometry'
import { loopsOf, type Section } from '../../section'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { columnsOf, type Columns } from './columns'
import { united, type Span as Stretch } from './spans'

/** How turned material looks from beside it, above the axis, in mm of the part. */
export interface Outside {
  /** The silhouette from left to right, in runs. */
  readonly runs: readonly (readonly Piece[])[]
  /** Edges round the part, as lines from the axis out. */
  readonly rings: readonly Piece[]
  /** The greatest radius over a place; at an edge that of the higher side. */
  readonly radiusAt: (x: number) => number
}

/** Directions that differ by more than this, in radians, make an edge. */
const BEND = 1e-3

export function outsideOf(sections: readonly Section[]): Outside {
  const all = sections.map(columnsOf)
  const places = [
    ...new Set(all.flatMap((c) => c.courses.flatMap((course) => [course.low, course.high]))),
  ].sort((a, b) => a - b)
  const spans = places
    .slice(1)
    .flatMap((to, i): { from: number; to: number; top: Piece | undefined }[] => {
      const from = places[i] ?? to
      // Places nearer than a vertex are one.
      if (to - from < VERTEX_TOLERANCE) return []
      return [{ from, to, top: topBetween(all, from, to) }]
    })
  return { runs: closed(spans), rings: ringsOf(spans), radiusAt: radiusIn(spans) }
}

type Span = { readonly from: number; readonly to: number; readonly top: Piece | undefined }

const near = (a: Vec, b: Vec): boolean => Math.hypot(a.x - b.x, a.y - b.y) < 10 * VERTEX_TOLERANCE

/** The outermost piece between two places, from left to right; nothing begins or ends between them. */
function topBetween(all: readonly Columns[], from: number, to: number): Piece | undefined {
  const middle = (from + to) / 2
  const over = all.flatMap((c) => c.over(middle))
  if (over.length === 0) return undefined
  const top = over.reduce((a, b) => (b.at(middle) > a.at(middle) ? b : a))
  const [a, b] = [vec(from, top.at(from)), vec(to, top.at(to))]
  return top.way > 0 ? stretch(top.piece, a, b) : backwards(stretch(top.piece, b, a))
}

function backwards(piece: Piece): Piece {
  if (piece.kind === 'line') return line(piece.to, piece.from)
  if (piece.kind === 'arc') {
    return { ...piece, from: piece.to, to: piece.from, counterClockwise: !piece.counterClockwise }
  }
  return { ...piece, from: piece.to, to: piece.from, start: piece.end, end: piece.start }
}

/** The tops joined by the faces between them, down to the axis where nothing is. */
function closed(spans: readonly Span[]): Piece[][] {
  const runs: Piece[][] = []
  let run: Piece[] = []
  for (const { from, top } of [...spans, { from: spans.at(-1)?.to ?? 0, to: 0, top: undefined }]) {
    const end = run.at(-1)?.to
    if (!top) {
      if (end) runs.push([...run, line(end, vec(end.x, 0))])
      run = []
      continue
    }
    const start = end ?? vec(from, 0)
    run = near(start, top.from) ? [...run, top] : [...run, line(start, top.from), top]
  }
  return runs
}

/** Where the silhouette bends, the edge is seen as a line across. */
function ringsOf(spans: readonly Span[]): Piece[] {
  return spans.slice(1).flatMap(({ from: x, top }, i) => {
    const before = spans[i]?.top
    if (!before || !top) return []
    if (!near(before.to, top.from))
      return [line(vec(x, 0), vec(x, Math.max(before.to.y, top.from.y)))]
    const [u, v] = [tangentAt(before, 1), tangentAt(top, 0)]
    const bends = Math.abs(u.x * v.y - u.y * v.x) > BEND
    return bends ? [line(vec(x, 0), vec(x, top.from.y))] : []
  })
}

function radiusIn(spans: readonly Span[]): (x: number) => number {
  return (x) => {
    let most = 0
    for (const { from, to, top } of spans) {
      if (!top || x < from - VERTEX_TOLERANCE || x > to + VERTEX_TOLERANCE) continue
      most = Math.max(most, heightOf(top, x))
    }
    return most
  }
}

/** How high a piece that only runs to the right is over a place, or at its nearer end. */
function heightOf(piece: Piece, x: number): number {
  const { from, to } = piece
  if (x <= from.x) return from.y
  if (x >= to.x) return to.y
  if (piece.kind === 'line') return from.y + ((to.y - from.y) * (x - from.x)) / (to.x - from.x)
  if (piece.kind === 'arc') {
    const r = Math.hypot(from.x - piece.centre.x, from.y - piece.centre.y)
    const rise = Math.sqrt(Math.max(0, r * r - (x - piece.centre.x) ** 2))
    return piece.centre.y + (piece.counterClockwise ? -rise : rise)
  }
  return Math.max(from.y, to.y)
}

/**
 * Edges behind a section, seen through what is hollow: lines across above the axis, in mm of the part.
 * @param before what stands before them and is not cut
 */
export function edgesBehind(sections: readonly Section[], before: readonly Section[]): Piece[] {
  const all = [...sections, ...before].map(columnsOf)
  const stretches = new Map<number, [number, number][]>()
  const faces = new Map<number, [number, number][]>()
  const put = (into: typeof faces, x: number, low: number, high: number): void => {
    const key = Math.round(x / VERTEX_TOLERANCE) * VERTEX_TOLERANCE
    into.set(key, [...(into.get(key) ?? []), [low, high]])
  }
  const beside = 20 * VERTEX_TOLERANCE
  for (const loop of sections.flatMap(loopsOf)) {
    loop.forEach((edge, i) => {
      const next = loop[(i + 1) % loop.length] ?? edge
      const { x, y } = edge.piece.to
      const { from, to } = edge.piece
      if (edge.piece.kind === 'line' && Math.abs(from.x - to.x) < VERTEX_TOLERANCE) {
        put(faces, x, Math.min(from.y, to.y), Math.max(from.y, to.y))
      }
      const [u, v] = [tangentAt(edge.piece, 1), tangentAt(next.piece, 0)]
      if (y < VERTEX_TOLERANCE || Math.abs(u.x * v.y - u.y * v.x) <= BEND) return
      const free = [x - beside, x + beside].map((at) => {
        const under = all.flatMap((c) => c.stackAt(at)).filter(([low]) => low < y - beside)
        // What is under it begins at the highest material there, which may be right at it.
        return under.reduce((most, [, high]) => Math.max(most, Math.min(high, y)), 0)
      })
      const low = Math.min(...free)
      if (y - low > 2 * beside) put(stretches, x, low, y)
    })
  }
  return [...stretches].flatMap(([x, parts]) => {
    const drawn = faces.get(x) ?? []
    return without(united(parts, VERTEX_TOLERANCE), united(drawn, VERTEX_TOLERANCE)).map(
      ([low, high]) => line(vec(x, low), vec(x, high)),
    )
  })
}

function without(parts: readonly Stretch[], taken: readonly Stretch[]): readonly Stretch[] {
  return taken.reduce<readonly Stretch[]>(
    (left, [from, to]) =>
      left.flatMap(([low, high]): Stretch[] =>
        to <= low || from >= high
          ? [[low, high]]
          : [
              ...(from - low > VERTEX_TOLERANCE ? [[low, from] as const] : []),
              ...(high - to > VERTEX_TOLERANCE ? [[to, high] as const] : []),
            ],
      ),
    parts,
  )
}
