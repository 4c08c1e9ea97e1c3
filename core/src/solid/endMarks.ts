import { numbered, placeName } from '../names'
import {
  arc,
  boundsOf,
  distance,
  dotPlaces,
  inFrame,
  place,
  secondOf,
  turned,
  vec,
  type Frame,
  type Piece,
  type Place,
  type Vec,
} from '../geometry'
import { once, lastFor } from '../once'
import { EMPTY_SECTION, cornersOf, edgeKey, loopsOf, type Section } from '../section'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../tolerances'
import { placeMirrored } from './mirrored'
import type {
  BodyTool,
  FacetTool,
  PrismTool,
  SolidOp,
  SolidPlan,
  SolidTool,
  SweptTool,
  TurnedTool,
} from './plan'

/** A place of a body that an end sketch can follow, by a key that holds when sizes change. */
export interface EndMark {
  readonly key: string
  /** In the sketch's own directions, in mm. */
  readonly at: Vec
}

/** A circular edge seen from the end: its middle, and the place of its rim level with that. */
export interface EndRing {
  readonly middle: EndMark
  readonly rim: EndMark
}

/** What of a body an end sketch can build on. */
export interface EndMarks {
  readonly points: readonly EndMark[]
  readonly rings: readonly EndRing[]
  /** Straight edges, and middle lines of cross holes, between two places. */
  readonly lines: readonly (readonly [EndMark, EndMark])[]
  /** Where all of it lies by key, what lies on other things too. */
  readonly places: ReadonlyMap<string, Vec>
}

/** The key of the part's axis. */
const AXIS = 'axis'

/**
 * What of a body an end sketch can build on: the circles of its section, and what its steps that are
 * no full turn have made: holes, flats, slots, part turns, outlines drawn out.
 * @param frame the end sketch's own
 */
export const endMarks = (section: Section, plan: SolidPlan | undefined, frame: Frame): EndMarks =>
  marksIn(section)(plan ?? NO_PLAN, JSON.stringify(frame))

const NO_PLAN: SolidPlan = { base: EMPTY_SECTION, ops: [] }

/** A frame is compared by what it says: each asking makes its own. */
const marksIn = once((section: Section) =>
  lastFor((plan: SolidPlan, frame: string): EndMarks => {
    const marks = new Marks(JSON.parse(frame) as Frame)
    marks.section(section)
    marks.ops('', plan.ops)
    return marks.all()
  }),
)

/** Where a mark of a key lies, if it is still there. */
export const endMarkAt = ({ places }: EndMarks, key: string): Vec | undefined => places.get(key)

/** A ring as a full circle. */
export const ringPiece = ({ middle, rim }: EndRing): Piece => arc(rim.at, rim.at, middle.at, true)

class Marks {
  private readonly points: EndMark[] = []
  private readonly rings: EndRing[] = []
  private readonly lines: (readonly [EndMark, EndMark])[] = []
  private readonly places = new Map<string, Vec>()
  private readonly way: Place
  /** Where a place stands that is told in the space of a body which was brought to another place. */
  private put: (at: Place) => Place = (at) => at

  constructor(private readonly frame: Frame) {
    this.way = secondOf(frame)
  }

  all(): EndMarks {
    const { points, rings, lines, places } = this
    return { points, rings, lines, places }
  }

  /** Every circular edge of a full turn. */
  section(section: Section): void {
    for (const { key, at } of cornersOf(section)) {
      this.ring(this.noted({ key: AXIS, at: vec(0, 0) }), key, at.y)
    }
  }

  /** @param within what the names of what they made begin with */
  ops(within: string, ops: readonly SolidOp[]): void {
    for (const op of ops) {
      if (op.kind !== 'combine') continue
      for (const tool of op.tools) this.tool(`${within}${op.step}${tool.mark}`, tool)
    }
  }

  private tool(name: string, tool: SolidTool): void {
    switch (tool.kind) {
      case 'prism':
        return this.prism(name, tool)
      case 'facets':
        return this.facets(name, tool)
      case 'turned':
        return this.turned(name, tool)
      case 'swept':
        return this.swept(name, tool)
      case 'body':
        return this.body(name, tool)
      case 'file':
        return
    }
  }

  /** What of another body can be built on, as long as its axis still runs along the part's. */
  private body(name: string, { plan, frame, mirror }: BodyTool): void {
    if (!this.isAlong(frame.z)) return
    const outer = this.put
    this.put = (at) => outer(inFrame(frame, mirror ? placeMirrored(at, mirror) : at))
    const middle = this.mark(placeName(name, 'axis'), place(0, 0, 0))
    this.point(middle)
    for (const { key, at } of cornersOf(plan.base)) this.ring(middle, placeName(name, key), at.y)
    this.ops(`${name}:`, plan.ops)
    this.put = outer
  }

  /** Middle lines of what was carried along straight pieces, and where the pieces end. */
  private swept(name: string, { path, frame }: SweptTool): void {
    path.forEach((piece, i) => {
      const [from, to] = [piece.from, piece.to].map(({ x, y }, end) =>
        this.mark(
          placeName(name, 'path', i + 1, end === 0 ? 'from' : 'to'),
          inFrame(frame, place(x, y, 0)),
        ),
      )
      if (!from || !to) return
      if (piece.kind === 'line') this.line(from, to)
      this.point(from)
      this.point(to)
    })
  }

  /** Holes along the axis are circles, holes across it have a middle line; part turns have two ends. */
  private turned(name: string, { section, frame, turn }: TurnedTool): void {
    if (this.isAlong(frame.z)) {
      const middle = this.mark(placeName(name, 'middle'), frame.at)
      for (const { key, at } of cornersOf(section)) this.ring(middle, placeName(name, key), at.y)
      this.point(middle)
      if (!turn) return
      const corners = loopsOf(section).flat()
      const radii = corners.map(({ piece }) => piece.from.y)
      const [inner, outer] = [Math.min(...radii), Math.max(...radii)]
      for (const [end, angle] of [
        ['first', turn.from],
        ['last', turn.from + turn.by],
      ] as const) {
        const at = (radius: number): Place =>
          inFrame(frame, place(radius * Math.cos(angle), radius * Math.sin(angle), 0))
        this.line(
          this.mark(placeName(name, end, 'inner'), at(inner)),
          this.mark(placeName(name, end, 'outer'), at(outer)),
        )
      }
      return
    }
    const sideways = dotPlaces(frame.at, secondOf(frame))
    if (turn || Math.abs(frame.z.z) > DIRECTION_TOLERANCE || Math.abs(sideways) > VERTEX_TOLERANCE)
      return
    const along = loopsOf(section).flatMap((l) => l.map(({ piece }) => piece.from.x))
    const ends = [Math.min(...along), Math.max(...along)].map((z) => inFrame(frame, place(0, 0, z)))
    const [from, to] = ends
    if (from && to)
      this.line(this.mark(placeName(name, 'from'), from), this.mark(placeName(name, 'to'), to))
  }

  private prism(name: string, tool: PrismTool): void {
    const { outline, frame, draft } = tool
    // Sides that lean are as they were drawn where they lean from.
    const [from, to] = draft ? [draft.at, draft.at] : [tool.from, tool.to]
    const along = this.isAlong(frame.z)
    if (this.isAlong(frame.x)) this.silhouette(name, { ...tool, from, to })
    for (const { key, piece } of namedEdges(outline)) {
      const ends = [piece.from, piece.to].map(({ x, y }) =>
        [from, to].map((z) => inFrame(frame, place(x, y, z))),
      )
      const [[a, b] = [], [c] = []] = ends
      if (!a || !b || !c) continue
      if (piece.kind === 'arc') {
        if (!along) continue
        const { x, y } = piece.centre
        const middle = this.mark(placeName(name, key, 'middle'), inFrame(frame, place(x, y, from)))
        this.point(middle)
        this.ring(middle, placeName(name, key, 'rim'), distance(piece.centre, piece.from))
        continue
      }
      const start = this.mark(placeName(name, key, 'from'), a)
      this.line(start, this.mark(placeName(name, key, 'to'), c))
      if (!along) this.line(start, this.mark(placeName(name, key, 'out'), b))
    }
  }

  /** An outline that is drawn out across the axis is a rectangle from the end. */
  private silhouette(name: string, { outline, frame, from, to }: PrismTool): void {
    const boxes = loopsOf(outline).flatMap((l) => l.map(({ piece }) => boundsOf(piece)))
    const low = Math.min(...boxes.map((b) => b.min.y))
    const high = Math.max(...boxes.map((b) => b.max.y))
    const corners = [
      [low, from],
      [high, from],
      [high, to],
      [low, to],
    ].map(([y = 0, z = 0], i) =>
      this.mark(placeName(name, 'corner', i + 1), inFrame(frame, place(0, y, z))),
    )
    corners.forEach((corner, i) => {
      this.line(corner, corners[(i + 1) % 4] ?? corner)
    })
  }

  private facets(name: string, { section, sides, phase }: FacetTool): void {
    for (const { key, at } of cornersOf(section)) {
      const out = at.y / Math.cos(Math.PI / sides)
      const corners = Array.from({ length: sides }, (_, i) =>
        this.mark(
          placeName(name, key, i + 1),
          turned(place(out, 0, at.x), phase + ((2 * i + 1) * Math.PI) / sides),
        ),
      )
      corners.forEach((corner, i) => {
        this.line(corner, corners[(i + 1) % sides] ?? corner)
      })
    }
  }

  private mark(key: string, at: Place): EndMark {
    const stands = this.put(at)
    return this.noted({
      key,
      at: vec(dotPlaces(stands, this.frame.x), dotPlaces(stands, this.way)),
    })
  }

  private noted(mark: EndMark): EndMark {
    this.places.set(mark.key, mark.at)
    return mark
  }

  private point(mark: EndMark): void {
    if (!this.points.some((p) => distance(p.at, mark.at) < VERTEX_TOLERANCE)) {
      this.points.push(mark)
    }
  }

  /** What lies on another, seen along the axis, is left out. */
  private ring(middle: EndMark, key: string, radius: number): void {
    const rim = this.noted({ key, at: vec(middle.at.x + radius, middle.at.y) })
    const known = this.rings.some(
      (r) =>
        distance(r.middle.at, middle.at) < VERTEX_TOLERANCE &&
        distance(r.rim.at, rim.at) < VERTEX_TOLERANCE,
    )
    if (!known) this.rings.push({ middle, rim })
  }

  private line(from: EndMark, to: EndMark): void {
    if (distance(from.at, to.at) < VERTEX_TOLERANCE) return
    const near = (a: EndMark, b: EndMark): boolean => distance(a.at, b.at) < VERTEX_TOLERANCE
    const known = this.lines.some(
      ([a, b]) => (near(a, from) && near(b, to)) || (near(a, to) && near(b, from)),
    )
    if (known) return
    this.lines.push([from, to])
    this.point(from)
    this.point(to)
  }

  private isAlong(way: Place): boolean {
    return Math.abs(Math.abs(way.z) - 1) < DIRECTION_TOLERANCE
  }
}

/** The edges of an outline by keys of their own; those of one name are counted. */
function namedEdges(outline: Section): readonly { readonly key: string; readonly piece: Piece }[] {
  const counts = new Map<string, number>()
  return loopsOf(outline)
    .flat()
    .map(({ name, piece }) => {
      const key = edgeKey(name)
      const n = (counts.get(key) ?? 0) + 1
      counts.set(key, n)
      return { key: numbered(key, n), piece }
    })
}
