import { cross, distance, subtract, unit, type Vec } from '../geometry'
import { isFaceOf } from '../names'
import { edgeKey, edgesOf, liesOnAxis, type SectionEdge } from '../section'
import { formatLength } from '../units'
import { saidText, type Asked } from './asked'
import type { SheetContent } from './content'

/** Places nearer to each other than this are one, in mm; directions likewise, as sines. */
const NEAR = 1e-5

/** Places along one way, joined by the sizes between them. */
class Chains {
  private readonly places: number[] = []
  private readonly parents: number[] = []

  /** The chain that a place is in. */
  of(place: number): number {
    const known = this.places.findIndex((p) => Math.abs(p - place) < NEAR)
    if (known >= 0) return this.root(known)
    this.places.push(place)
    return this.parents.push(this.parents.length) - 1
  }

  /** Joins two places. @returns whether they were joined already */
  join(a: number, b: number): boolean {
    const [p, q] = [this.of(a), this.of(b)]
    this.parents[p] = q
    return p === q
  }

  private root(i: number): number {
    const parent = this.parents[i] ?? i
    return parent === i ? i : this.root(parent)
  }
}

/**
 * What the workshop could not measure from a sheet, and what it tells twice: faces square to the axis that no chain of
 * lengths reaches, lands of profiles without a diameter. Faces that other steps made have those steps’ own sizes.
 */
export function toldOfGaps(content: SheetContent): string[] {
  const { state, bodies, asked } = content
  const { units } = state.part
  const profiles = state.part.route.flatMap((s) => (s.kind === 'revolve' ? [s.id] : []))
  const isDrawn = (e: SectionEdge): boolean =>
    !liesOnAxis(e) && profiles.some((id) => isFaceOf(id, edgeKey(e.name)))
  const sections = bodies.map((b) => b.section)
  const edges = sections.flatMap(edgesOf).filter(isDrawn)
  if (edges.length === 0) return []
  const left = Math.min(...edges.flatMap(({ piece }) => [piece.from.x, piece.to.x]))
  const [along, across] = [new Chains(), new Chains()]
  const twice: string[] = []
  for (const one of asked) {
    for (const [chains, a, b] of linksOf(one, edges)) {
      const isClosed = (chains === 'along' ? along : across).join(a, b)
      const isPlain = one.shape.kind === 'along' && one.shows.length > 0 && Math.abs(a - b) > NEAR
      if (isClosed && isPlain && chains === 'along') twice.push(one.lines.map(saidText).join(', '))
    }
  }
  for (const [a, b] of asked.flatMap((one) => one.alike ?? [])) {
    along.join(a.x, b.x)
    across.join(a.y, b.y)
  }
  const flat = (a: number, b: number): boolean => Math.abs(a - b) < NEAR
  const faces = edges.filter(({ piece: { from, to } }) => flat(from.x, to.x))
  const lands = edges.filter(
    ({ piece: { kind, from, to } }) => kind === 'line' && flat(from.y, to.y),
  )
  const chains = faces.map((f) => along.of(f.piece.from.x))
  const most = mostCommon(chains)
  const lost = faces.filter((_, i) => chains[i] !== most)
  const open = lands.filter((l) => across.of(l.piece.from.y) !== across.of(0))
  const places = unique(lost.map((f) => formatLength(f.piece.from.x - left, units)))
  const diameters = unique(open.map((l) => `⌀${formatLength(2 * l.piece.from.y, units)}`))
  return [
    ...(places.length === 0
      ? []
      : [
          `No size tells where ${places.length === 1 ? 'the face stands that is' : 'the faces stand that are'} ${places.join(', ')} from the left end: draw one there, or give the profile one.`,
        ]),
    ...(diameters.length === 0
      ? []
      : [`No size tells ${diameters.join(', ')}: draw one there, or give the profile one.`]),
    ...unique(twice).map((said) => `“${said}” closes a chain: other sizes tell it already.`),
  ]
}

const unique = (all: readonly string[]): string[] => [...new Set(all)]

function mostCommon(all: readonly number[]): number | undefined {
  const counts = new Map<number, number>()
  for (const one of all) counts.set(one, (counts.get(one) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0]
}

/** Which places a size joins, along the axis and from the axis out. */
function linksOf(
  { shape }: Asked,
  edges: readonly SectionEdge[],
): (readonly ['along' | 'across', number, number])[] {
  switch (shape.kind) {
    case 'along':
      return [['along', shape.from.x, shape.to.x]]
    case 'across':
      return [['across', 0, shape.at.y]]
    case 'radial':
      return [['across', shape.from.y, shape.to.y]]
    case 'slant':
      return both(shape.from, shape.to)
    // Of a cone with its angle, and of a rounded edge with its radius, one end tells the other.
    case 'angle':
      return edges
        .filter(({ piece }) => piece.kind === 'line' && isAlong(piece.from, piece.to, shape))
        .flatMap(({ piece }) => both(piece.from, piece.to))
    case 'radius': {
      const { centre } = shape.arc
      return edges
        .filter(({ piece }) => piece.kind === 'arc' && distance(piece.centre, centre) < NEAR)
        .flatMap(({ piece }) => both(piece.from, piece.to))
    }
    case 'place':
      return edges
        .filter(({ piece }) => piece.kind !== 'line' && touches(piece, shape.at))
        .flatMap(({ piece }) => both(piece.from, piece.to))
    case 'end':
    case 'onEnd':
    case 'section':
    case 'onSection':
      return []
  }
}

const both = (a: Vec, b: Vec): (readonly ['along' | 'across', number, number])[] => [
  ['along', a.x, b.x],
  ['across', a.y, b.y],
]

const touches = ({ from, to }: SectionEdge['piece'], at: Vec): boolean =>
  distance(from, at) + distance(to, at) < 2 * distance(from, to)

/** Whether a line lies in one of the directions of an angle, through its corner. */
function isAlong(
  from: Vec,
  to: Vec,
  { at, one, other }: Extract<Asked['shape'], { readonly kind: 'angle' }>,
): boolean {
  const way = unit(subtract(to, from))
  const isThrough = Math.abs(cross(way, subtract(at, from))) < 1e-3
  return isThrough && [one, other].some((d) => Math.abs(cross(way, d)) < NEAR)
}
