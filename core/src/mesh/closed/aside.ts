import { boundsOf, vec, type Vec } from '../../geometry'
import { edgeKey, type SectionEdge } from '../../section'
import { landOf, type BoredAside, type Land } from '../../solid'
import type { Strip } from '../lathe'
import type { FacePiece } from '../pieces'
import {
  angleOf,
  chordOf,
  cutOf,
  endsOf,
  openingsAt,
  pairsAt,
  SAME,
  surfaceOf,
  TURN,
  type Cut,
  type CutSide,
  type Opening,
  type Spot,
  type Surface,
} from './cuts'
import { Meetings } from './meetings'
import { PlaneFaces, type Round } from './planes'
import type { Ring } from './rings'
import { Shell, type OnLine } from './shell'
import { NEAR, stationsOf } from './stations'

/** Faces round the axis where something is taken from outside, and what it leaves there. */
export interface Aside {
  readonly pieces: readonly FacePiece[]
  /** Strips of the full turn that are among them, by number. */
  readonly done: ReadonlySet<number>
  /** The rings of a plane face, the one around each part of it first. Undefined where it is as the full turn left it. */
  readonly ringsOf: (strip: number) => readonly (readonly Round[])[] | undefined
}

/**
 * What is milled and drilled from outside, put together between circles about the axis: at each the faces on both sides
 * share their points, and between two of them everything begins and ends at the same sides.
 */
export function asideFaces(
  edges: readonly SectionEdge[],
  strips: readonly Strip[],
  taken: readonly BoredAside[],
  circle: Float64Array,
  tolerance: number,
): Aside {
  const cuts = taken.map((one, i) => cutOf(one, i, tolerance))
  const surfaces = strips.flatMap((strip, i) => touched(edges[strip.edge], i, cuts) ?? [])
  const stations = stationsOf(surfaces, strips, cuts, tolerance)
  const meet = new Meetings(stations, outsideOf(edges), circle)
  const [builder, planes] = [new Builder(surfaces, cuts, meet), new PlaneFaces(meet)]
  builder.mark()
  strips.forEach((strip, i) => {
    if (isPlane(strip)) planes.mark(i, strip, cuts)
  })
  builder.fillAll()
  const done = new Set(surfaces.map((s) => s.strip))
  strips.forEach((strip, i) => {
    const edge = edges[strip.edge]
    if (!edge || done.has(i) || isPlane(strip) || !builder.hasMarked(strip)) return
    builder.fillRows(edgeKey(edge.name), strip)
    done.add(i)
  })
  const { pieces } = builder
  return { pieces, done, ringsOf: (i) => strips[i] && planes.ringsOf(i, strips[i]) }
}

const isPlane = ({ points }: Strip): boolean => {
  const [one, other] = [points[0], points.at(-1)]
  return points.length === 2 && !!one && !!other && Math.abs(one.x - other.x) < NEAR
}

/** A surface with what is cut into it; undefined where nothing is. */
function touched(
  edge: SectionEdge | undefined,
  strip: number,
  cuts: readonly Cut[],
): Surface | undefined {
  if (!edge || edge.piece.kind === 'cubic') return undefined
  const { piece } = edge
  const { min, max } = boundsOf(piece)
  if (max.x - min.x < NEAR) return undefined
  const isInside = piece.from.x < piece.to.x
  const own = cuts.filter(
    (c) =>
      c.from < max.x - NEAR &&
      c.to > min.x + NEAR &&
      (isInside ? c.opens > 0 && Math.abs(c.opens - max.y) < NEAR : max.y > c.floor),
  )
  if (own.length === 0) return undefined
  return surfaceOf(piece, { strip, face: edgeKey(edge.name), isInside, cuts: own })
}

/** What looks outwards of the full turn. */
const outsideOf = (edges: readonly SectionEdge[]): Land[] =>
  edges.flatMap(({ piece }) =>
    piece.kind !== 'cubic' && piece.from.x > piece.to.x + NEAR ? [landOf(piece)] : [],
  )

/** Something open in a stretch between two stations. */
interface Stretch {
  readonly surface: Surface
  /** The number of the station it begins at. */
  readonly first: number
  readonly openings: readonly Opening[]
}

/** Fills the faces between stations, once all points are down in which they meet. */
class Builder {
  private readonly shells = new Map<string, Shell>()
  private readonly stretches: Stretch[] = []
  private readonly endWalls: ReturnType<Builder['findEndWalls']>

  constructor(
    surfaces: readonly Surface[],
    private readonly cuts: readonly Cut[],
    private readonly meet: Meetings,
  ) {
    const { stations } = meet
    this.endWalls = this.findEndWalls()
    for (const surface of surfaces) {
      stations.slice(1).forEach((to, first) => {
        const from = stations[first] ?? to
        const middle = (from + to) / 2
        if (middle < surface.from || middle > surface.to) return
        const openings = openingsAt(surface.cuts, middle, surface.radiusAt(middle))
        this.stretches.push({
          surface,
          first,
          openings: surface.isInside ? through(openings) : openings,
        })
      })
    }
  }

  get pieces(): FacePiece[] {
    return [...this.shells.values()].flatMap((s) => s.pieces(this.meet.places))
  }

  private ringOf({ surface }: Stretch, station: number): Ring {
    const x = this.meet.at(station)
    return this.meet.ringAt(x, surface.radiusAt(Math.min(surface.to, Math.max(surface.from, x))))
  }

  private shell(name: string): Shell {
    const known = this.shells.get(name)
    if (known) return known
    const shell = new Shell(name)
    this.shells.set(name, shell)
    return shell
  }

  private endsAt(stretch: Stretch, opening: Opening, station: number): [Spot, Spot] {
    return endsOf(opening, this.meet.at(station), this.ringOf(stretch, station).radius)
  }

  /** Puts down every point that faces meet in, before any face is filled. */
  mark(): void {
    for (const stretch of this.stretches) {
      for (const opening of stretch.openings) {
        for (const station of [stretch.first, stretch.first + 1]) {
          const ring = this.ringOf(stretch, station)
          for (const end of this.endsAt(stretch, opening, station)) {
            this.markEnd(station, ring, opening.cut, end, stretch.surface.isInside)
          }
        }
      }
    }
    for (const { cut, station, ring, low, high } of this.endWalls) {
      for (const t of [low, high]) {
        this.markEnd(station, ring, cut, { t, w: chordOf(t, ring.radius) }, false)
      }
    }
  }

  private markEnd(station: number, ring: Ring, cut: Cut, end: Spot, isInside: boolean): void {
    const id = this.meet.spotOn(ring, cut, end)
    // Where a floor comes out, its point is the circle’s.
    if (!isInside)
      this.meet.markFloor(station, cut, end.t, end.w - cut.floor < SAME ? id : undefined)
  }

  /** Walls square to the axis, as far as there is material behind them. */
  private findEndWalls() {
    return this.cuts.flatMap((cut) =>
      cut.ends.flatMap(({ at, low, high, face }) => {
        const station = this.meet.stationAt(at)
        if (station < 0) return []
        const radius = Math.min(
          this.meet.radiusBeside(station, -1),
          this.meet.radiusBeside(station, 1),
        )
        const chord = chordOf(cut.floor, radius)
        const ends = { low: Math.max(low, -chord), high: Math.min(high, chord) }
        if (radius <= cut.floor || ends.high <= ends.low) return []
        return [
          { cut, face, station, ring: this.meet.ringAt(this.meet.at(station), radius), ...ends },
        ]
      }),
    )
  }

  /** Fills the surfaces, and the floors and walls under what is open in them. */
  fillAll(): void {
    for (const stretch of this.stretches) {
      this.fillSurface(stretch)
      if (stretch.surface.isInside) continue
      for (const opening of stretch.openings) {
        this.fillFloor(stretch, opening)
        for (const isNear of [true, false]) this.fillWall(stretch, opening, isNear)
      }
    }
    for (const { cut, face, station, ring, low, high } of this.endWalls) {
      const shell = this.shell(face)
      const x = this.meet.at(station)
      const middle = (low + high) / 2
      const isBehind = pairsAt(cut, (x + (this.meet.stations[station + 1] ?? x)) / 2).some(
        ([one, other]) => one.at(x) < middle && middle < other.at(x),
      )
      const first = this.meet.floorBetween(station, cut, low, high)
      const ids = [low, high].map((t) =>
        this.meet.spotOn(ring, cut, { t, w: chordOf(t, ring.radius) }),
      )
      const top = ring.from(ids[0] ?? 0, ids[1] ?? 0, false)
      const second = top.map((p) => ({ at: this.meet.across(cut, p.id), id: p.id }))
      for (const { id } of [...first, ...second]) shell.faces(id, () => [0, 0, isBehind ? 1 : -1])
      // Round × out looks against the axis.
      shell.between(first, second, isBehind)
    }
  }

  private fillSurface(stretch: Stretch): void {
    const { surface, first, openings } = stretch
    const shell = this.shell(surface.face)
    const rings = [this.ringOf(stretch, first), this.ringOf(stretch, first + 1)] as const
    const bands = openings.length === 0 ? [rings.map((r) => r.whole)] : this.kept(stretch, rings)
    for (const [one = [], other = []] of bands) {
      rings.forEach((ring, n) => {
        const way = surface.wayAt(ring.x)
        for (const { id } of n === 0 ? one : other)
          shell.faces(id, () => this.roundWay(id, ring, way))
      })
      shell.between(one, broughtNear(other, one), surface.isInside)
    }
  }

  private roundWay(id: number, { radius }: Ring, way: Vec): readonly [number, number, number] {
    const { x, y } = this.meet.flatAt(id)
    return [(x * way.y) / radius, (y * way.y) / radius, way.x]
  }

  /** What is left of a surface between what is open in it. */
  private kept(stretch: Stretch, rings: readonly [Ring, Ring]): (readonly OnLine[])[][] {
    const middle = (this.meet.at(stretch.first) + this.meet.at(stretch.first + 1)) / 2
    const open = stretch.openings
      .map((opening) => {
        const [one] = endsOf(opening, middle, stretch.surface.radiusAt(middle))
        return { opening, at: angleOf(opening.cut, one) }
      })
      .sort((a, b) => a.at - b.at)
    return open.map(({ opening }, i) => {
      const next = open[(i + 1) % open.length]?.opening ?? opening
      return rings.map((ring, n) => {
        const [, end] = this.endsAt(stretch, opening, stretch.first + n)
        const [begin] = this.endsAt(stretch, next, stretch.first + n)
        return ring.from(
          this.meet.spotOn(ring, opening.cut, end),
          this.meet.spotOn(ring, next.cut, begin),
          open.length === 1,
        )
      })
    })
  }

  private fillFloor(stretch: Stretch, opening: Opening): void {
    const { cut } = opening
    if (cut.ground === undefined) return
    const shell = this.shell(cut.ground)
    const [first, second] = [stretch.first, stretch.first + 1].map((station) => {
      const [one, other] = this.endsAt(stretch, opening, station)
      return this.meet.floorBetween(station, cut, one.t, other.t)
    })
    const { out } = cut
    for (const { id } of [...(first ?? []), ...(second ?? [])]) {
      shell.faces(id, () => [out.x, out.y, 0])
    }
    shell.between(first ?? [], second ?? [], false)
  }

  private fillWall(stretch: Stretch, opening: Opening, isNear: boolean): void {
    const { cut } = opening
    const side = isNear ? opening.one : opening.other
    if (!side) return
    const shell = this.shell(side.face)
    const [first = [], second = []] = [stretch.first, stretch.first + 1].map((station) => {
      const { t, w } = this.endsAt(stretch, opening, station)[isNear ? 0 : 1]
      const line = this.upLine(stretch, cut, station, t, w)
      const way = wayIn(cut, side, this.meet.at(station), isNear)
      for (const { id } of line) shell.faces(id, () => way)
      return line
    })
    // Out × along looks against the way round.
    shell.between(first, second, isNear)
  }

  /** The points of a wall at a station, from its foot out to the surface. */
  private upLine(stretch: Stretch, cut: Cut, station: number, t: number, top: number): OnLine[] {
    const foot = cut.ground !== undefined ? cut.floor : cut.opens > 0 ? chordOf(t, cut.opens) : 0
    const radii = ([-1, 1] as const).map((side) => this.meet.radiusBeside(station, side))
    // Where the full turn steps, both its circles are met.
    const steps = radii
      .filter((r) => r > Math.hypot(t, foot) + NEAR)
      .map((r) => ({ at: chordOf(t, r), ring: this.meet.ringAt(this.meet.at(station), r) }))
      .filter((s) => s.at < top - NEAR)
    const own = this.ringOf(stretch, station)
    return [
      { at: foot, id: this.meet.footAt(station, cut, t, foot) },
      ...steps
        .slice(0, 1)
        .map(({ at, ring }) => ({ at, id: this.meet.spotOn(ring, cut, { t, w: at }) })),
      { at: top, id: this.meet.spotOn(own, cut, { t, w: top }) },
    ]
  }

  /** Whether a strip ends at a circle where something comes out. */
  hasMarked({ points }: Strip): boolean {
    return [points[0], points.at(-1)].some((p) => p && this.meet.markedAt(p) !== undefined)
  }

  /** Fills a strip in which nothing is open, but which others meet in points of their own. */
  fillRows(name: string, { points, normals }: Strip): void {
    const shell = this.shell(name)
    const rows = points.map((p, i) => {
      const way = normals[i] ?? vec(0, 1)
      if (p.y === 0) {
        const id = this.meet.places.numberOf(0, 0, p.x)
        shell.faces(id, () => [0, 0, way.x])
        return [{ at: 0, id }]
      }
      const ring = this.meet.ringAt(p.x, p.y)
      for (const { id } of ring.points) shell.faces(id, () => this.roundWay(id, ring, way))
      return ring.whole
    })
    rows.slice(1).forEach((row, i) => shell.between(rows[i] ?? [], row, true))
  }
}

/** Only tools that open a bore are seen in it. */
const through = (openings: readonly Opening[]): Opening[] =>
  openings.filter((o) => o.one && o.other)

function wayIn(cut: Cut, side: CutSide, u: number, isNear: boolean) {
  const way = side.wayAt(u, isNear)
  const { x, y } = cut.put({ t: way.y, w: 0 })
  return [x, y, way.x] as const
}

/** A line round the axis told so that it begins within half a turn of where another does. */
function broughtNear(line: readonly OnLine[], other: readonly OnLine[]): readonly OnLine[] {
  const [a, b] = [line[0], other[0]]
  if (!a || !b) return line
  const by = TURN * Math.round((b.at - a.at) / TURN)
  return by === 0 ? line : line.map((p) => ({ at: p.at + by, id: p.id }))
}
