import { boundsOf, distance, stretch, type Piece, type Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { loopsOf, type Loop, type Section, type SectionEdge } from '../types'

/** An edge in a ring of edges, which can be cut and joined without moving the others. */
export interface Link {
  edge: SectionEdge
  next: Link
  /** True when nothing of it is left. */
  gone: boolean
}

/** What replaces a corner: where the two edges are left, and the piece between. */
export interface Cut {
  readonly from: Vec
  readonly to: Vec
  readonly piece: Piece
}

/** A section's loops while corner after corner of it is worked on. */
export interface Rings {
  readonly linkOf: (edge: SectionEdge) => Link | undefined
  /** Links whose edges may come near a piece. */
  readonly near: (piece: Piece) => Iterable<Link>
  /** Cuts two edges that follow one another back, and puts a piece between them. */
  readonly insert: (arriving: Link, leaving: Link, cut: Cut, name: SectionEdge['name']) => void
  readonly section: () => Section
}

/** Stretches of the axis by which edges are found; more make no difference for parts of a metre. */
const MOST_BINS = 256

/** With fewer corners than this to work on, edges are looked through one by one. */
const FEW = 6

/** @param corners how many corners will be worked on */
export function ringsOf(section: Section, corners: number): Rings {
  const links = new Map<SectionEdge, Link>()
  const starts = new Map<Loop, Link>()
  for (const loop of loopsOf(section)) {
    const ring = loop.map((edge) => ({ edge, gone: false }) as Link)
    ring.forEach((link, i) => {
      link.next = ring[(i + 1) % ring.length] ?? link
      links.set(link.edge, link)
    })
    if (ring[0]) starts.set(loop, ring[0])
  }
  const all = [...links.values()]
  const { near, add } = corners < FEW ? listOf(all) : binsFor(all)
  const walked = (loop: Loop): Loop => {
    const start = starts.get(loop)
    if (!start) return loop
    const edges: SectionEdge[] = []
    let here = start
    do {
      if (!here.gone) edges.push(here.edge)
      here = here.next
    } while (here !== start)
    return edges
  }
  return {
    linkOf: (edge) => links.get(edge),
    near,
    insert(arriving, leaving, { from, to, piece }, name) {
      const made: Link = { edge: { piece, name }, next: leaving, gone: false }
      arriving.edge = trimmed(arriving.edge, arriving.edge.piece.from, from)
      leaving.edge = trimmed(leaving.edge, to, leaving.edge.piece.to)
      arriving.next = made
      for (const link of [arriving, leaving]) {
        const { piece: left } = link.edge
        link.gone = distance(left.from, left.to) <= VERTEX_TOLERANCE
      }
      add(made)
    },
    section: () => ({
      regions: section.regions.map((r) => ({ outer: walked(r.outer), holes: r.holes.map(walked) })),
    }),
  }
}

const trimmed = (edge: SectionEdge, from: Vec, to: Vec): SectionEdge => ({
  piece: stretch(edge.piece, from, to),
  name: edge.name,
})

interface Found {
  readonly near: (piece: Piece) => Iterable<Link>
  readonly add: (link: Link) => void
}

function listOf(all: Link[]): Found {
  return { near: () => all, add: (link) => all.push(link) }
}

/** Finds links by where their edges lie along the axis; trimmed edges only become shorter. */
function binsFor(all: readonly Link[]): Found {
  const boxes = all.map((l) => boundsOf(l.edge.piece))
  const from = Math.min(...boxes.map((b) => b.min.x))
  const width = Math.max(1e-9, Math.max(...boxes.map((b) => b.max.x)) - from)
  const count = Math.max(1, Math.min(MOST_BINS, all.length))
  const bins: Link[][] = Array.from({ length: count }, () => [])
  const binAt = (x: number): number =>
    Math.max(0, Math.min(count - 1, Math.floor(((x - from) / width) * count)))
  const reach = (piece: Piece): readonly [number, number] => {
    const { min, max } = boundsOf(piece)
    return [binAt(min.x - VERTEX_TOLERANCE), binAt(max.x + VERTEX_TOLERANCE)]
  }
  const add = (link: Link): void => {
    const [first, last] = reach(link.edge.piece)
    for (let i = first; i <= last; i++) bins[i]?.push(link)
  }
  all.forEach(add)
  return {
    add,
    near(piece) {
      const [first, last] = reach(piece)
      if (first === last) return bins[first] ?? []
      return new Set(bins.slice(first, last + 1).flat())
    },
  }
}
