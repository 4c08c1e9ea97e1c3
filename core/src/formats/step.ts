import {
  controlOf,
  distance,
  joinedCubics,
  place,
  radiusOf,
  unit,
  type ArcPiece,
  type CubicPiece,
  type LinePiece,
  type Piece,
  type Spline,
  type Vec,
} from '../geometry'
import { materialOf } from '../inspect'
import type { PartState } from '../route'
import { edgeKey, liesOnAxis, type Region, type SectionEdge } from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { StepData } from './exchange/data'
import { headOf, quoted, writeProducts, type Product } from './exchange/products'
import { realText } from './exchange/text'
import { withValidation, type Bulk } from './exchange/validation'

/**
 * A part as an exchange file (ISO 10303-21, schema of ISO 10303-242): every body as a boundary
 * representation with its true surfaces — planes, cylinders, cones, spheres, tori — in mm, with
 * names and colours, a product each under that of the part. The part's axis is Z. Nothing is approximated.
 * @param at the time that is written into the file's head
 * @returns undefined while no body has any material
 */
export function writeStep(state: PartState, at: Date): string | undefined {
  const { part } = state
  const file = new StepData()
  const bulks = new Map<string, Bulk>()
  const bodies = state.bodies.filter((b) => !b.reference && b.section.regions.length > 0)
  const products = bodies.map((state): Product => {
    const body = part.bodies.find((b) => b.id === state.bodyId)
    const own = body?.name ?? state.bodyId
    const name = bodies.length > 1 ? own : part.name
    const { regions } = state.section
    const solids = regions.map((region, i) =>
      writeSolid(file, regions.length > 1 ? `${own} ${i + 1}` : own, region),
    )
    if (state.solid) {
      const { volume, area, centreX } = state.solid
      bulks.set(name, { volume, area, centre: place(0, 0, centreX) })
    }
    return {
      name,
      solids,
      colour: body?.colour || (materialOf(part, state.bodyId)?.colour ?? '#8d979d'),
    }
  })
  if (products.length === 0) return undefined
  writeProducts(file, part.name, products)
  const text = `${headOf(part.name, at)}DATA;\n${file.lines.join('\n')}\nENDSEC;\nEND-ISO-10303-21;\n`
  return withValidation(text, (name) => bulks.get(name))
}

/**
 * One connected area as a solid. Runs of its outline from the axis to the axis, and loops that keep
 * off it, are closed shells: the one that reaches furthest is the outside, the others are voids.
 */
function writeSolid(file: StepData, name: string, region: Region): string {
  const runs = [region.outer, ...region.holes].flatMap((loop, i) =>
    runsOf(asSwept(loop.filter((e) => !liesOnAxis(e)))).map((run) => ({ ...run, i })),
  )
  const reach = (run: { readonly pieces: readonly Swept[] }): number =>
    Math.min(...run.pieces.map((p) => Math.min(p.from.x, p.to.x)))
  const outside = runs
    .filter((r) => r.i === 0)
    .reduce<(typeof runs)[number] | undefined>(
      (best, run) => (best && reach(best) <= reach(run) ? best : run),
      undefined,
    )
  const shells = runs.map((run) => ({ run, id: writeShell(file, run) }))
  const outer = shells.find((s) => s.run === outside)?.id ?? ''
  const voids = shells
    .filter((s) => s.run !== outside)
    .map((s) => file.add(`ORIENTED_CLOSED_SHELL('',*,${s.id},.T.)`))
  return voids.length === 0
    ? file.add(`MANIFOLD_SOLID_BREP(${quoted(name)},${outer})`)
    : file.add(`BREP_WITH_VOIDS(${quoted(name)},${outer},(${voids.join(',')}))`)
}

/** A free curve as one: cubics that go on from one another without a jump of curvature. */
interface FramePiece {
  readonly kind: 'frame'
  readonly from: Vec
  readonly to: Vec
  readonly frame: Spline
}

/** What sweeps a face. */
type Swept = Piece | FramePiece

/** Cubics are joined where that changes none of their control points by more than this, in mm. */
const AS_ONE = 1e-9

/** The edges of a loop off the axis as what sweeps faces: parts of one free curve are one. */
function asSwept(edges: readonly SectionEdge[]): Swept[] {
  // A loop begins where a curve does.
  const cut = edges.findIndex((e, i) => !areOneCurve(edges.at(i - 1), e))
  const ordered = cut > 0 ? [...edges.slice(cut), ...edges.slice(0, cut)] : edges
  const swept: Swept[] = []
  for (let i = 0; i < ordered.length;) {
    const run = [ordered[i]]
    while (areOneCurve(run.at(-1), ordered[i + run.length])) run.push(ordered[i + run.length])
    i += run.length
    const pieces = run.flatMap((e) => (e ? [e.piece] : []))
    const cubics = pieces.flatMap((p) => (p.kind === 'cubic' ? [p] : []))
    if (cubics.length === 0) {
      swept.push(...pieces)
      continue
    }
    let first = 0
    for (const { frame, count } of joinedCubics(cubics.map(controlOf), AS_ONE)) {
      const [from, to] = [cubics[first]?.from, cubics[first + count - 1]?.to]
      if (from && to) swept.push({ kind: 'frame', from, to, frame })
      first += count
    }
    swept.push(...cubics.slice(first))
  }
  return swept
}

/** Whether one edge is the next part of another's free curve, off the axis. */
function areOneCurve(a: SectionEdge | undefined, b: SectionEdge | undefined): boolean {
  if (a?.piece.kind !== 'cubic' || b?.piece.kind !== 'cubic' || a === b) return false
  const isMet = distance(a.piece.to, b.piece.from) <= VERTEX_TOLERANCE
  return isMet && !isPole(b.piece.from.y) && edgeKey(a.name) === edgeKey(b.name)
}

interface Run {
  readonly pieces: readonly Swept[]
  /** True for a loop off the axis, whose end is its beginning. */
  readonly closed: boolean
}

/** Pieces of a loop without those along the axis, parted where it comes to the axis. */
function runsOf(pieces: readonly Swept[]): Run[] {
  const start = pieces.findIndex((p) => isPole(p.from.y))
  if (start < 0) return pieces.length > 0 ? [{ pieces, closed: true }] : []
  const ordered = [...pieces.slice(start), ...pieces.slice(0, start)]
  const runs: Swept[][] = []
  for (const piece of ordered) {
    if (isPole(piece.from.y)) runs.push([])
    runs.at(-1)?.push(piece)
  }
  return runs.map((run) => ({ pieces: run, closed: false }))
}

const isPole = (radius: number): boolean => radius <= VERTEX_TOLERANCE

/** A circle of the surface, or the pole it shrinks to, with the vertex that seams meet it in. */
interface Ring {
  readonly vertex: string
  /** The edge once round, counter-clockwise about the axis; none for a pole. */
  readonly edge: string | undefined
}

function writeShell(file: StepData, { pieces, closed }: Run): string {
  const places = pieces.map((p) => p.from)
  const last = pieces.at(-1)
  if (!closed && last) places.push(last.to)
  const rings = places.map(({ x, y }) => writeRing(file, x, isPole(y) ? 0 : y))
  const faces = pieces.map((piece, i) => {
    const [from, to] = [rings[i], rings[(i + 1) % rings.length]]
    if (!from || !to) throw new Error('every piece has two rings')
    return writeFace(file, piece, from, to)
  })
  return file.add(`CLOSED_SHELL('',(${faces.join(',')}))`)
}

function writeRing(file: StepData, axial: number, radius: number): Ring {
  const vertex = file.add(`VERTEX_POINT('',${file.point(radius, 0, axial)})`)
  if (radius === 0) return { vertex, edge: undefined }
  const circle = file.add(`CIRCLE('',${file.placement(axial)},${realText(radius)})`)
  return { vertex, edge: file.add(`EDGE_CURVE('',${vertex},${vertex},${circle},.T.)`) }
}

const oriented = (file: StepData, edge: string, forward: boolean): string =>
  file.add(`ORIENTED_EDGE('',*,*,${edge},${forward ? '.T.' : '.F.'})`)

const loopOf = (file: StepData, edges: readonly string[]): string =>
  file.add(`EDGE_LOOP('',(${edges.join(',')}))`)

/**
 * The face a piece sweeps. Seen from outside the material, once along the piece, round with its end,
 * back along it and against its start runs counter-clockwise.
 */
function writeFace(file: StepData, piece: Swept, from: Ring, to: Ring): string {
  const { surface, agrees } = surfaceOf(file, piece)
  const sense = agrees ? '.T.' : '.F.'
  if (piece.kind === 'line' && isFlat(piece)) {
    const loops = [
      { ring: to, forward: true, radius: piece.to.y },
      { ring: from, forward: false, radius: piece.from.y },
    ].sort((a, b) => b.radius - a.radius)
    const bounds = loops.flatMap(({ ring, forward }, i) => {
      if (ring.edge === undefined) return []
      const loop = loopOf(file, [oriented(file, ring.edge, forward)])
      return [file.add(`${i === 0 ? 'FACE_OUTER_BOUND' : 'FACE_BOUND'}('',${loop},.T.)`)]
    })
    return file.add(`ADVANCED_FACE('',(${bounds.join(',')}),${surface},${sense})`)
  }
  const seam = writeSeam(file, piece, from, to)
  const edges = [
    oriented(file, seam, true),
    ...(to.edge === undefined ? [] : [oriented(file, to.edge, true)]),
    oriented(file, seam, false),
    ...(from.edge === undefined ? [] : [oriented(file, from.edge, false)]),
  ]
  const bound = file.add(`FACE_OUTER_BOUND('',${loopOf(file, edges)},.T.)`)
  return file.add(`ADVANCED_FACE('',(${bound}),${surface},${sense})`)
}

/** The piece itself as an edge, in the half-plane of angle nought. */
function writeSeam(file: StepData, piece: Swept, from: Ring, to: Ring): string {
  if (piece.kind === 'arc') {
    const sense = piece.counterClockwise ? '.T.' : '.F.'
    return file.add(`EDGE_CURVE('',${from.vertex},${to.vertex},${circleOf(file, piece)},${sense})`)
  }
  if (piece.kind === 'cubic' || piece.kind === 'frame') {
    return file.add(`EDGE_CURVE('',${from.vertex},${to.vertex},${curveOf(file, piece)},.T.)`)
  }
  const along = unit({ x: piece.to.x - piece.from.x, y: piece.to.y - piece.from.y })
  const direction = file.direction(along.y, 0, along.x)
  const vector = file.add(`VECTOR('',${direction},1.)`)
  const line = file.add(`LINE('',${file.point(piece.from.y, 0, piece.from.x)},${vector})`)
  return file.add(`EDGE_CURVE('',${from.vertex},${to.vertex},${line},.T.)`)
}

/** An arc's circle in the half-plane, running from the axial to the radial direction. */
function circleOf(file: StepData, { centre, ...arc }: ArcPiece): string {
  const place = [
    file.point(centre.y, 0, centre.x),
    file.direction(0, 1, 0),
    file.direction(0, 0, 1),
  ]
  const placement = file.add(`AXIS2_PLACEMENT_3D('',${place.join(',')})`)
  return file.add(`CIRCLE('',${placement},${realText(radiusOf({ ...arc, centre }))})`)
}

const isFlat = (piece: LinePiece): boolean =>
  Math.abs(piece.to.x - piece.from.x) <= 1e-9 * Math.abs(piece.to.y - piece.from.y)

/** A surface, and whether its own normal leads out of the material. */
interface Surface {
  readonly surface: string
  readonly agrees: boolean
}

function surfaceOf(file: StepData, piece: Swept): Surface {
  switch (piece.kind) {
    case 'line':
      return straightSurface(file, piece)
    case 'arc':
      return roundSurface(file, piece)
    case 'cubic':
    case 'frame': {
      const surface = file.add(`SURFACE_OF_REVOLUTION('',${curveOf(file, piece)},${axisOf(file)})`)
      // The way round crossed with the way along the piece leads to its left, into the material.
      return { surface, agrees: false }
    }
  }
}

const axisOf = (file: StepData): string =>
  file.shared(`AXIS1_PLACEMENT('',${file.point(0, 0, 0)},${file.direction(0, 0, 1)})`)

/** A free curve in the half-plane, exact, run through as its piece is. */
function curveOf(file: StepData, piece: CubicPiece | FramePiece): string {
  const [places, spans] =
    piece.kind === 'frame' ? [piece.frame.places, piece.frame.spans] : [controlOf(piece), [1]]
  const points = places.map((p) => file.point(isPole(p.y) ? 0 : p.y, 0, p.x))
  const knots = [0]
  for (const span of spans) knots.push((knots.at(-1) ?? 0) + span)
  const often = knots.map((_, i) => (i === 0 || i === knots.length - 1 ? 4 : 1))
  const told = `(${often.join(',')}),(${knots.map(realText).join(',')})`
  return file.add(
    `B_SPLINE_CURVE_WITH_KNOTS('',3,(${points.join(',')}),.UNSPECIFIED.,.F.,.F.,${told},.UNSPECIFIED.)`,
  )
}

/** Material lies left of a piece: what runs to the right has it above, and the void below. */
function straightSurface(file: StepData, piece: LinePiece): Surface {
  const { from, to } = piece
  if (isFlat(piece)) {
    // Running outwards the material lies on the side of smaller x, and the way out is to the right.
    const way = to.y > from.y ? 1 : -1
    return { surface: file.add(`PLANE('',${file.placement(from.x, way)})`), agrees: true }
  }
  const agrees = to.x < from.x
  const rise = to.y - from.y
  if (Math.abs(rise) <= 1e-9 * Math.abs(to.x - from.x)) {
    const surface = file.add(
      `CYLINDRICAL_SURFACE('',${file.placement(0)},${realText((from.y + to.y) / 2)})`,
    )
    return { surface, agrees }
  }
  // A cone opens along its axis: that is placed the way the radius grows, at the smaller end.
  const small = from.y < to.y ? from : to
  const large = small === from ? to : from
  const half = Math.atan2(Math.abs(rise), Math.abs(to.x - from.x))
  const placement = file.placement(small.x, large.x > small.x ? 1 : -1)
  const radius = isPole(small.y) ? 0 : small.y
  return {
    surface: file.add(`CONICAL_SURFACE('',${placement},${realText(radius)},${realText(half)})`),
    agrees,
  }
}

/** A sphere, a torus, or, where a torus would cut itself, the surface of the turning arc. */
function roundSurface(file: StepData, piece: ArcPiece): Surface {
  const { centre, counterClockwise } = piece
  const radius = radiusOf(piece)
  const placement = file.placement(centre.x)
  if (Math.abs(centre.y) <= VERTEX_TOLERANCE) {
    const surface = file.add(`SPHERICAL_SURFACE('',${placement},${realText(radius)})`)
    return { surface, agrees: counterClockwise }
  }
  if (centre.y > radius * (1 + 1e-9)) {
    const surface = file.add(
      `TOROIDAL_SURFACE('',${placement},${realText(centre.y)},${realText(radius)})`,
    )
    return { surface, agrees: counterClockwise }
  }
  // Only the arc itself is turned: the rest of its circle may lie across the axis.
  const [start, end] = counterClockwise ? [piece.from, piece.to] : [piece.to, piece.from]
  const trims = [start, end].map((p) => `(${file.point(isPole(p.y) ? 0 : p.y, 0, p.x)})`).join(',')
  const turned = file.add(`TRIMMED_CURVE('',${circleOf(file, piece)},${trims},.T.,.CARTESIAN.)`)
  const surface = file.add(`SURFACE_OF_REVOLUTION('',${turned},${axisOf(file)})`)
  // Its own normal is the way round crossed with the way along the circle, which runs from the
  // axial to the radial direction: into the circle.
  return { surface, agrees: !counterClockwise }
}
