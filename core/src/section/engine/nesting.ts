import {
  areaBeside,
  boundsOf,
  pointAt,
  windingAround,
  type Box,
  type Piece,
  type Turned,
} from '../../geometry'
import type { Loop, Region } from '../types'
import { once } from '../../once'

/** The area a closed run of pieces encloses in mm², positive counter-clockwise. */
export function areaWithin(pieces: readonly Piece[]): number {
  return pieces.reduce((sum, piece) => sum + areaBeside(piece), 0)
}

/** The area a loop encloses in mm², positive counter-clockwise; reckoned once. */
export const areaOfLoop = once((loop: Loop): number => {
  let area = 0
  for (const { piece } of loop) area += areaBeside(piece)
  return area
})

/** A closed run of pieces with what containment asks of it. */
export interface Round {
  /** in mm², positive counter-clockwise */
  readonly area: number
  readonly pieces: readonly Piece[]
}

export const roundOf = (pieces: readonly Piece[]): Round => ({ area: areaWithin(pieces), pieces })

const turnedOf = once((pieces: readonly Piece[]): readonly Turned[] =>
  pieces.map((piece) => ({ piece, times: 1 })),
)

const boxOf = once((pieces: readonly Piece[]): Box => {
  const all = pieces.map(boundsOf)
  return {
    min: { x: Math.min(...all.map((b) => b.min.x)), y: Math.min(...all.map((b) => b.min.y)) },
    max: { x: Math.max(...all.map((b) => b.max.x)), y: Math.max(...all.map((b) => b.max.y)) },
  }
})

/** Whether a way round lies inside another that it does not cross; judged at an edge's middle. */
export function contains(outside: Round | undefined, inside: Round | undefined): boolean {
  const [first] = inside?.pieces ?? []
  if (!outside || !first) return false
  const p = pointAt(first, 0.5)
  const { min, max } = boxOf(outside.pieces)
  if (p.x < min.x || p.x > max.x || p.y < min.y || p.y > max.y) return false
  return windingAround(p, turnedOf(outside.pieces)) !== 0
}

/** Makes regions of loops that do not cross: every hole goes to the smallest outer loop around it. */
export function nest(loops: readonly Loop[]): Region[] {
  const outers = loops.filter((l) => areaOfLoop(l) > 0)
  if (outers.length === loops.length) return outers.map((outer) => ({ outer, holes: [] }))
  outers.sort((a, b) => areaOfLoop(a) - areaOfLoop(b))
  const roundOfLoop = (loop: Loop): Round => ({
    area: areaOfLoop(loop),
    pieces: loop.map((e) => e.piece),
  })
  const rounds = outers.map(roundOfLoop)
  const regions = outers.map((outer) => ({ outer, holes: [] as Loop[] }))
  for (const inner of loops) {
    if (areaOfLoop(inner) > 0) continue
    const round = roundOfLoop(inner)
    regions[rounds.findIndex((r) => contains(r, round))]?.holes.push(inner)
  }
  return regions
}
