import { distance, line, reversed } from '../geometry'
import { AXIS_ID, type SketchPlane } from '../sketch'
import { VERTEX_TOLERANCE } from '../tolerances'
import { arrange, leavingFrom, traceLoops, twin, type Arrangement } from './arrangement'
import { axisFaults, crossingFaults, zeroLengthFaults } from './health'
import { contains, nest, roundOf, type Round } from './nesting'
import { EMPTY_SECTION, type ProfileFault, type Section, type SectionEdge } from './types'

/** What drawn edges enclose, and what keeps them from enclosing it. */
export interface Profile {
  readonly section: Section
  readonly faults: readonly ProfileFault[]
}

/**
 * Finds the material that drawn edges enclose. Ends on the axis are joined along it, two and two
 * from the left. A closed outline inside another is a hole; lines that only divide material leave
 * no edge. With crossings or edges below the axis there is no material, but faults that say so.
 * @param step the step whose name the edges carry
 * @param plane of a sketch square to the axis nothing is joined along it, and all of it counts
 */
export function profileOf(
  drawn: readonly SectionEdge[],
  step: string,
  plane: SketchPlane = 'half',
): Profile {
  const zero = zeroLengthFaults(drawn)
  const useless = new Set(zero.flatMap((f) => f.entities))
  const usable = drawn.filter((e) => !useless.has(e.name.entity))
  const isHalf = plane === 'half'
  const broken = [...(isHalf ? axisFaults(usable) : []), ...crossingFaults(usable)]
  if (broken.length > 0) return { section: EMPTY_SECTION, faults: [...zero, ...broken] }
  const closed = isHalf ? [...usable, ...closingEdges(usable, step)] : usable
  const arrangement = arrange(closed)
  const { kept, faults } = withoutLooseEnds(arrangement)
  const whole = kept.length === closed.length
  const section = kept.length > 0 ? enclosed(whole ? arrangement : arrange(kept)) : EMPTY_SECTION
  return { section, faults: [...zero, ...faults] }
}

/** Edges along the axis between ends that lie on it with nothing else there. */
function closingEdges(edges: readonly SectionEdge[], step: string): SectionEdge[] {
  const touching = edges.filter(({ piece }) =>
    [piece.from, piece.to].some((p) => Math.abs(p.y) <= VERTEX_TOLERANCE),
  )
  const arrangement = arrange(touching)
  const ends = arrangement.vertices
    .filter(
      (v, i) => Math.abs(v.y) <= VERTEX_TOLERANCE && leavingFrom(arrangement, i).length % 2 === 1,
    )
    .sort((a, b) => a.x - b.x)
  const closing: SectionEdge[] = []
  for (let i = 0; i + 1 < ends.length; i += 2) {
    const [a, b] = [ends[i], ends[i + 1]]
    if (a && b) closing.push({ piece: line(a, b), name: { step, entity: AXIS_ID, role: 'axis' } })
  }
  return closing
}

/** Takes off edges that hang by one end, again and again, and reports where they began. */
function withoutLooseEnds(arrangement: Arrangement): {
  kept: SectionEdge[]
  faults: ProfileFault[]
} {
  const { edges, vertices, startOf } = arrangement
  const degree = vertices.map((_, v) => leavingFrom(arrangement, v).length)
  const gone = new Uint8Array(edges.length)
  const loose = [...degree.keys()].filter((v) => degree[v] === 1)
  const faults = loose.map((v): ProfileFault => {
    const at = vertices[v] ?? { x: 0, y: 0 }
    const others = loose.flatMap((w) => (w === v ? [] : (vertices[w] ?? [])))
    const edge = edges[(leavingFrom(arrangement, v)[0] ?? 0) >> 1]
    const entities = edge ? [edge.name.entity] : []
    const gaps = others.map((p) => distance(p, at))
    return { kind: 'open', at, entities, ...(gaps.length > 0 ? { gap: Math.min(...gaps) } : {}) }
  })
  for (let v = loose.pop(); v !== undefined; v = loose.pop()) {
    const halfEdge = leavingFrom(arrangement, v).find((h) => gone[h >> 1] === 0)
    if (halfEdge === undefined) continue
    gone[halfEdge >> 1] = 1
    const other = startOf[twin(halfEdge)] ?? 0
    degree[other] = (degree[other] ?? 1) - 1
    if (degree[other] === 1) loose.push(other)
  }
  return { kept: edges.filter((_, i) => gone[i] === 0), faults }
}

function enclosed(arrangement: Arrangement): Section {
  const faceOf = new Int32Array(arrangement.startOf.length)
  const traced = traceLoops(arrangement)
  traced.forEach((loop, face) => loop.forEach((h) => (faceOf[h] = face)))
  const rounds = traced.map((loop) => wayRound(arrangement, loop))
  const areas = rounds.map((r) => r.area)
  const networkOf = networks(arrangement)
  const network = (face: number): number =>
    networkOf[arrangement.startOf[traced[face]?.[0] ?? 0] ?? 0] ?? -1
  const apart = (a: number, b: number): boolean => network(a) !== network(b)
  /** A face with area is material when an even number of other networks lie around it. */
  const isSolid = (face: number): boolean => {
    const around = rounds.filter(
      (round, i) => round.area < 0 && apart(i, face) && contains(round, rounds[face]),
    )
    return around.length % 2 === 0
  }
  /** The loop round a network bounds the smallest face it lies in, if it lies in any. */
  const isMaterial = traced.map((_, loop) => {
    if ((areas[loop] ?? 0) > 0) return isSolid(loop)
    const around = [...rounds.keys()].filter(
      (i) => (areas[i] ?? 0) > 0 && apart(i, loop) && contains(rounds[i], rounds[loop]),
    )
    around.sort((a, b) => (areas[a] ?? 0) - (areas[b] ?? 0))
    return around[0] !== undefined && isSolid(around[0])
  })
  const material = (h: number): boolean => isMaterial[faceOf[h] ?? 0] === true
  const boundary = traceLoops(arrangement, (h) => material(h) && !material(twin(h)))
  const loops = boundary.map((halfEdges) =>
    halfEdges.flatMap((h): SectionEdge[] => {
      const edge = arrangement.edges[h >> 1]
      if (!edge) return []
      return [(h & 1) === 0 ? edge : { ...edge, piece: reversed(edge.piece) }]
    }),
  )
  return { regions: nest(loops) }
}

/** For each vertex the number of the connected network of edges it belongs to. */
function networks(arrangement: Arrangement): Int32Array {
  const { vertices, startOf } = arrangement
  const numbers = new Int32Array(vertices.length).fill(-1)
  vertices.forEach((_, first) => {
    if ((numbers[first] ?? -1) >= 0) return
    numbers[first] = first
    const queue = [first]
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      for (const h of leavingFrom(arrangement, v)) {
        const other = startOf[twin(h)] ?? 0
        if ((numbers[other] ?? -1) >= 0) continue
        numbers[other] = first
        queue.push(other)
      }
    }
  })
  return numbers
}

function wayRound(arrangement: Arrangement, loop: readonly number[]): Round {
  return roundOf(
    loop.flatMap((h) => {
      const edge = arrangement.edges[h >> 1]
      return edge ? [(h & 1) === 0 ? edge.piece : reversed(edge.piece)] : []
    }),
  )
}
