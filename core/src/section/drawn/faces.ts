import { line, reversed, type Vec } from '../../geometry'
import { AXIS_ID } from '../../sketch'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { arrange, degreeOf, traceLoops, twin, type Arrangement } from '../engine/arrangement'
import { joined } from '../engine/joined'
import { contains, nest, roundOf, type Round } from '../engine/nesting'
import type { Section, SectionEdge } from '../types'

/** What an arrangement parts the plane into: its ways round, and which of them bound one face. */
export interface Faces {
  readonly arrangement: Arrangement
  /** Ways round by half-edges: those with a positive area go round a face, others round a network. */
  readonly traced: readonly (readonly number[])[]
  readonly rounds: readonly Round[]
  /** Per way round, the one round the face it bounds: its own, or of the face a network lies in. */
  readonly faceOf: readonly (number | undefined)[]
}

export function facesOf(arrangement: Arrangement): Faces {
  const traced = traceLoops(arrangement)
  const rounds = traced.map((loop) => wayRound(arrangement, loop))
  const networks = networksOf(arrangement, traced)
  const faceOf = rounds.map((round, i) => {
    if (round.area > 0) return i
    // A network lies in the smallest face around it, if it lies in any.
    const around = [...rounds.keys()].filter(
      (j) =>
        (rounds[j]?.area ?? 0) > 0 && networks[j] !== networks[i] && contains(rounds[j], round),
    )
    around.sort((a, b) => (rounds[a]?.area ?? 0) - (rounds[b]?.area ?? 0))
    return around[0]
  })
  return { arrangement, traced, rounds, faceOf }
}

/**
 * Which faces are material: those that an odd number of networks enclose. What joins lines along the
 * axis makes no network of them, so that a hollow on the axis is one as a hollow off it is.
 */
export function solidFaces(faces: Faces): ReadonlySet<number> {
  const { arrangement, traced, rounds } = faces
  const all = [...rounds.keys()].filter((i) => (rounds[i]?.area ?? 0) > 0)
  const networks = drawnNetworks(arrangement)
  if (networks.length < 2) return new Set(all)
  const contours = networks.map(contourOf)
  return new Set(
    all.filter((face) => {
      const loop = traced[face] ?? []
      return contours.filter((c) => encloses(c, arrangement, loop)).length % 2 === 1
    }),
  )
}

/** The way round a network from outside. */
interface Contour {
  readonly round: Round
  /** The edges of the network, and which of their sides lie outside: 1 left, 2 right, 3 both. */
  readonly outside: ReadonlyMap<SectionEdge, number>
}

function contourOf(network: readonly SectionEdge[]): Contour {
  const own = arrange(network)
  const ends = singleEnds(own)
  const [first, last] = [ends[0], ends.at(-1)]
  const axis = { step: '', entity: AXIS_ID, role: 'axis' } as const
  const closed =
    first && last && first !== last
      ? arrange([...network, { piece: line(first, last), name: axis }])
      : own
  const loops = traceLoops(closed).map((loop) => ({ loop, round: wayRound(closed, loop) }))
  const outer = loops.reduce((a, b) => (b.round.area < a.round.area ? b : a))
  const outside = new Map(network.map((edge) => [edge, 0]))
  for (const h of outer.loop) {
    const edge = closed.edges[h >> 1]
    if (edge && outside.has(edge)) outside.set(edge, (outside.get(edge) ?? 0) | (1 << (h & 1)))
  }
  return { round: outer.round, outside }
}

function encloses(
  { round, outside }: Contour,
  { edges }: Arrangement,
  loop: readonly number[],
): boolean {
  for (const h of loop) {
    const edge = edges[h >> 1]
    const sides = edge && outside.get(edge)
    if (sides !== undefined) return (sides & (1 << (h & 1))) === 0
  }
  const drawn = loop.flatMap((h) => {
    const edge = edges[h >> 1]
    return edge && edge.name.role !== 'axis' ? [edge.piece] : []
  })
  return contains(round, { area: 0, pieces: drawn })
}

/** Edges that hang together by more than the axis. */
function drawnNetworks(arrangement: Arrangement): readonly (readonly SectionEdge[])[] {
  const { edges, startOf } = arrangement
  const numbers = connected(arrangement, (edge) => edge.name.role !== 'axis')
  const networks = new Map<number, SectionEdge[]>()
  edges.forEach((edge, i) => {
    if (edge.name.role === 'axis') return
    const number = numbers[startOf[2 * i] ?? 0] ?? -1
    const known = networks.get(number)
    if (known) known.push(edge)
    else networks.set(number, [edge])
  })
  return [...networks.values()]
}

/** Where an odd number of edges ends on the axis, from the left. */
export function singleEnds(arrangement: Arrangement): readonly Vec[] {
  return arrangement.vertices
    .filter((p, v) => isOnAxis(p) && degreeOf(arrangement, v) % 2 === 1)
    .sort((a, b) => a.x - b.x)
}

export const isOnAxis = (p: Vec): boolean => Math.abs(p.y) <= VERTEX_TOLERANCE

/** Faces made one: what lies between them leaves no edge. */
export function together(
  { arrangement, traced, faceOf }: Faces,
  chosen: ReadonlySet<number>,
): Section {
  const material = new Uint8Array(arrangement.startOf.length)
  traced.forEach((loop, i) => {
    const face = faceOf[i]
    if (face !== undefined && chosen.has(face)) for (const h of loop) material[h] = 1
  })
  const boundary = traceLoops(arrangement, (h) => material[h] === 1 && material[twin(h)] === 0)
  return {
    regions: nest(boundary.map((loop) => joined(loop.flatMap((h) => edgeAlong(arrangement, h))))),
  }
}

function edgeAlong({ edges }: Arrangement, halfEdge: number): SectionEdge[] {
  const edge = edges[halfEdge >> 1]
  if (!edge) return []
  return [(halfEdge & 1) === 0 ? edge : { ...edge, piece: reversed(edge.piece) }]
}

const wayRound = (arrangement: Arrangement, loop: readonly number[]): Round =>
  roundOf(loop.flatMap((h) => edgeAlong(arrangement, h).map((e) => e.piece)))

/** For each way round the number of the connected network of edges it belongs to. */
function networksOf(
  arrangement: Arrangement,
  traced: readonly (readonly number[])[],
): readonly number[] {
  const numbers = connected(arrangement, () => true)
  return traced.map(([h = 0]) => numbers[arrangement.startOf[h] ?? 0] ?? -1)
}

/** For each vertex the number of what it is connected with by edges of a kind. */
function connected(
  { edges, vertices, startOf, around, firstAt }: Arrangement,
  by: (edge: SectionEdge) => boolean,
): Int32Array {
  const numbers = new Int32Array(vertices.length).fill(-1)
  for (let first = 0; first < vertices.length; first++) {
    if ((numbers[first] ?? -1) >= 0) continue
    numbers[first] = first
    const queue = [first]
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      for (let k = firstAt[v] ?? 0; k < (firstAt[v + 1] ?? 0); k++) {
        const h = around[k] ?? 0
        const edge = edges[h >> 1]
        const other = startOf[twin(h)] ?? 0
        if (!edge || !by(edge) || (numbers[other] ?? -1) >= 0) continue
        numbers[other] = first
        queue.push(other)
      }
    }
  }
  return numbers
}
