import {
  add,
  arc,
  cross,
  distance,
  line,
  meetingsOf,
  parallelsTo,
  reversed,
  scale,
  simplePieces,
  stretch,
  tangentAt,
  type Piece,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { aboveAxis } from './combine'
import { turnBetween } from './corners'
import { overlay } from '../engine/overlay'
import { madeFrom, type EdgeName, type Section, type SectionEdge } from '../types'

export type WallCorners = 'sharp' | 'round' | 'bevelled'
export type WallEnds = 'flat' | 'round'

/** How an open chain becomes a wall. */
export interface WallSpec {
  readonly step: string
  /** Thickness in mm to the left and to the right of the chain's direction; not both 0. */
  readonly left: number
  readonly right: number
  readonly corners: WallCorners
  readonly ends: WallEnds
}

/** Points reach this many times the thickness at most; sharper corners are bevelled. */
const LONGEST_MITRE = 8

/**
 * The material within a thickness of an open chain: its two parallels, each cut where it meets itself
 * at a corner, closed at both ends. What is wound the right way round is the wall.
 * @param drawn edges end to end
 * @returns undefined when rounding left the outline open
 */
export function wallOf(drawn: readonly SectionEdge[], spec: WallSpec): Section | undefined {
  // Only simple pieces have parallels without surprises, and meet others in the ways that are looked for.
  const chain = drawn.flatMap((e) => simplePieces(e.piece).map((piece) => ({ ...e, piece })))
  const [start] = chain
  const end = chain.at(-1)
  if (!start || !end) return { regions: [] }
  const right = parallelTo(chain, -spec.right, spec)
  const left = parallelTo(chain, spec.left, spec)
  const outline = [
    ...right,
    ...closing(
      right.at(-1)?.piece.to,
      left.at(-1)?.piece.to,
      spec,
      madeFrom(spec.step, 'end', end.name),
    ),
    ...[...left].reverse().map((e) => ({ ...e, piece: reversed(e.piece) })),
    ...closing(
      left[0]?.piece.from,
      right[0]?.piece.from,
      spec,
      madeFrom(spec.step, 'start', start.name),
    ),
  ]
  const wall = overlay(outline, [], (a) => a > 0, true)
  return wall && aboveAxis(wall, spec.step)
}

function closing(
  from: Vec | undefined,
  to: Vec | undefined,
  { ends }: WallSpec,
  name: EdgeName,
): SectionEdge[] {
  if (!from || !to) return []
  if (ends === 'flat') return [{ piece: line(from, to), name }]
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }
  return [{ piece: arc(from, to, middle, true), name }]
}

/** The chain's parallel at a distance to its left, in mm, negative to its right. */
function parallelTo(chain: readonly SectionEdge[], by: number, spec: WallSpec): SectionEdge[] {
  if (by === 0) return chain.map((e) => ({ ...e, name: madeFrom(spec.step, 'on', e.name) }))
  const side = by > 0 ? 'left' : 'right'
  const parts = chain.flatMap(({ piece, name }) =>
    parallelsTo(piece, by).map((p) => ({ name, of: p.of, piece: p.piece })),
  )
  const pieces = parts.map((p) => p.piece)
  const out: SectionEdge[] = []
  parts.forEach(({ name, of: here }, i) => {
    const own = madeFrom(spec.step, side, name)
    const piece = pieces[i]
    const next = pieces[i + 1]
    const behind = parts[i + 1]?.of
    if (!piece) return
    if (!next || !behind) {
      out.push({ piece, name: own })
      return
    }
    const corner = here.to
    const turn = turnBetween(here, behind)
    const link = joint(piece, next, corner, turn, by, spec)
    pieces[i + 1] = stretch(next, link.to, next.to)
    out.push({ piece: stretch(piece, piece.from, link.from), name: own })
    const other = madeFrom(spec.step, side, parts[i + 1]?.name ?? name)
    const between = madeFrom(spec.step, `${side}Corner`, name, parts[i + 1]?.name ?? name)
    for (const p of link.between) {
      const named = p.of === 'one' ? own : p.of === 'two' ? other : between
      out.push({ piece: p.piece, name: named })
    }
  })
  return withoutSpecks(out)
}

/** Without edges that are shorter than a vertex; where several of them come to more than one, a line stands for them. */
function withoutSpecks(edges: readonly SectionEdge[]): SectionEdge[] {
  const kept: SectionEdge[] = []
  for (const e of edges) {
    if (distance(e.piece.from, e.piece.to) <= VERTEX_TOLERANCE) continue
    const last = kept.at(-1)
    const isOpen = last && distance(last.piece.to, e.piece.from) > VERTEX_TOLERANCE
    if (last && isOpen) kept.push({ ...last, piece: line(last.piece.to, e.piece.from) })
    kept.push(e)
  }
  return kept
}

interface Joint {
  /** Where the first parallel ends and the second begins. */
  readonly from: Vec
  readonly to: Vec
  /** What joins them, as part of the first, of the second, or by itself. */
  readonly between: readonly { readonly piece: Piece; readonly of: 'one' | 'two' | 'corner' }[]
}

function joint(
  one: Piece,
  two: Piece,
  corner: Vec,
  turn: number,
  by: number,
  { corners }: WallSpec,
): Joint {
  const [a, b] = [one.to, two.from]
  if (distance(a, b) <= VERTEX_TOLERANCE) return { from: a, to: a, between: [] }
  const direct: Joint = { from: a, to: b, between: [{ piece: line(a, b), of: 'corner' }] }
  if (turn * by > 0) {
    // The inner side of the corner: the parallels cross before they get there.
    const meeting = meetingsOf(one, two, VERTEX_TOLERANCE).sort((m, n) => n.t - m.t)[0]
    if (meeting) return { from: meeting.at, to: meeting.at, between: [] }
    return {
      from: a,
      to: b,
      between: [
        { piece: line(a, corner), of: 'corner' },
        { piece: line(corner, b), of: 'corner' },
      ],
    }
  }
  if (corners === 'bevelled') return direct
  if (corners === 'round') {
    return { from: a, to: b, between: [{ piece: arc(a, b, corner, turn > 0), of: 'corner' }] }
  }
  const [u, v] = [tangentAt(one, 1), tangentAt(two, 0)]
  const sine = cross(u, v)
  if (Math.abs(sine) < 1e-9) return direct
  const tip = add(a, scale(u, cross({ x: b.x - a.x, y: b.y - a.y }, v) / sine))
  if (distance(tip, corner) > LONGEST_MITRE * Math.abs(by)) return direct
  const runsTo = one.kind === 'line' ? tip : a
  const comesFrom = two.kind === 'line' ? tip : b
  return {
    from: runsTo,
    to: comesFrom,
    between: [
      ...(one.kind === 'line' ? [] : [{ piece: line(a, tip), of: 'one' as const }]),
      ...(two.kind === 'line' ? [] : [{ piece: line(tip, b), of: 'two' as const }]),
    ],
  }
}
