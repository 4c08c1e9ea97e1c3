import {
  controlOf,
  place,
  radiusOf,
  unit,
  type ArcPiece,
  type CubicPiece,
  type LinePiece,
  type Piece,
} from '../geometry'
import { materialOf } from '../inspect'
import type { Part } from '../part'
import { evaluate } from '../route'
import { liesOnAxis, type Region } from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { tonesOf } from './colours'
import { encodeExchangeText, realText } from './exchange/text'
import { withValidation, type Bulk } from './exchange/validation'

/**
 * A part as an exchange file (ISO 10303-21, schema of ISO 10303-242): every body as a boundary
 * representation with its true surfaces — planes, cylinders, cones, spheres, tori — in mm, with
 * names and colours, a product each under that of the part. The part's axis is Z. Nothing is approximated.
 * @param at the time that is written into the file's head
 * @returns undefined while no body has any material
 */
export function writeStep(part: Part, at: Date): string | undefined {
  const file = new StepData()
  const bulks = new Map<string, Bulk>()
  const bodies = evaluate(part).bodies.filter((b) => !b.reference && b.section.regions.length > 0)
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

/** The numbered instances of an exchange file. */
class StepData {
  readonly lines: string[] = []
  private readonly known = new Map<string, string>()

  /** Adds an instance and returns the reference to it. */
  add(text: string): string {
    const id = `#${this.lines.length + 1}`
    this.lines.push(`${id}=${text};`)
    return id
  }

  /** The same for what many refer to: equal ones are written once. */
  shared(text: string): string {
    const known = this.known.get(text)
    if (known !== undefined) return known
    const id = this.add(text)
    this.known.set(text, id)
    return id
  }

  point(x: number, y: number, z: number): string {
    return this.shared(`CARTESIAN_POINT('',(${[x, y, z].map(realText).join(',')}))`)
  }

  direction(x: number, y: number, z: number): string {
    return this.shared(`DIRECTION('',(${[x, y, z].map(realText).join(',')}))`)
  }

  /** A place on the axis with Z along the axis, or against it. */
  placement(axial: number, way: 1 | -1 = 1): string {
    const parts = [this.point(0, 0, axial), this.direction(0, 0, way), this.direction(1, 0, 0)]
    return this.shared(`AXIS2_PLACEMENT_3D('',${parts.join(',')})`)
  }
}

const quoted = (text: string): string => `'${encodeExchangeText(text)}'`

function headOf(name: string, at: Date): string {
  const time = quoted(at.toISOString().slice(0, 19))
  return [
    'ISO-10303-21;',
    'HEADER;',
    "FILE_DESCRIPTION(('turned part'),'2;1');",
    `FILE_NAME(${quoted(name)},${time},(''),(''),'Lathica','Lathica','');`,
    "FILE_SCHEMA(('AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF { 1 0 10303 442 1 1 4 }'));",
    'ENDSEC;\n',
  ].join('\n')
}

/** A body as it goes out: its solids, and their colour as #rrggbb. */
interface Product {
  readonly name: string
  readonly solids: readonly string[]
  readonly colour: string
}

/** A product with its definition and the shape it has. */
interface Defined {
  readonly definition: string
  readonly representation: string
  readonly placement: string
}

/** What the solids are: one product, or several under one that puts them together, each in its colour. */
function writeProducts(file: StepData, name: string, products: readonly Product[]): void {
  const context = file.add("APPLICATION_CONTEXT('managed model based 3d engineering')")
  file.add(
    `APPLICATION_PROTOCOL_DEFINITION('international standard','ap242_managed_model_based_3d_engineering',2014,${context})`,
  )
  const contexts = {
    product: file.add(`PRODUCT_CONTEXT('',${context},'mechanical')`),
    design: file.add(`PRODUCT_DEFINITION_CONTEXT('part definition',${context},'design')`),
  }
  const space = spaceOf(file)
  const placement = file.placement(0)
  const defined = (own: string, items: readonly string[], kind: string): Defined => {
    const product = file.add(`PRODUCT(${quoted(own)},${quoted(own)},'',(${contexts.product}))`)
    file.add(`PRODUCT_RELATED_PRODUCT_CATEGORY('part','',(${product}))`)
    const formation = file.add(`PRODUCT_DEFINITION_FORMATION('','',${product})`)
    const definition = file.add(`PRODUCT_DEFINITION('','',${formation},${contexts.design})`)
    const shape = file.add(`PRODUCT_DEFINITION_SHAPE('','',${definition})`)
    const all = [placement, ...items].join(',')
    const representation = file.add(`${kind}(${quoted(own)},(${all}),${space})`)
    file.add(`SHAPE_DEFINITION_REPRESENTATION(${shape},${representation})`)
    return { definition, representation, placement }
  }
  const bodies = products.map((p) =>
    defined(p.name, p.solids, 'ADVANCED_BREP_SHAPE_REPRESENTATION'),
  )
  if (bodies.length > 1) {
    const whole = defined(name, [], 'SHAPE_REPRESENTATION')
    bodies.forEach((body, i) => writeOccurrence(file, whole, body, products[i]?.name ?? '', i + 1))
  }
  const styled = products.flatMap(({ solids, colour }) =>
    solids.map((solid) => file.add(`STYLED_ITEM('',(${styleOf(file, colour)}),${solid})`)),
  )
  file.add(
    `MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',(${styled.join(',')}),${space})`,
  )
}

/** A product where it stands in another: as it is, since all bodies are told in the part's own space. */
function writeOccurrence(
  file: StepData,
  whole: Defined,
  own: Defined,
  name: string,
  number: number,
): void {
  const used = file.add(
    `NEXT_ASSEMBLY_USAGE_OCCURRENCE('${number}',${quoted(name)},'',${whole.definition},${own.definition},$)`,
  )
  const placed = file.add(`PRODUCT_DEFINITION_SHAPE('','',${used})`)
  const moved = file.add(`ITEM_DEFINED_TRANSFORMATION('','',${own.placement},${whole.placement})`)
  const related = file.add(
    `(REPRESENTATION_RELATIONSHIP('','',${own.representation},${whole.representation})` +
      `REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(${moved})SHAPE_REPRESENTATION_RELATIONSHIP())`,
  )
  file.add(`CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(${related},${placed})`)
}

/** Space in mm and radians, with how near places must be to be one. */
function spaceOf(file: StepData): string {
  const length = file.add('(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))')
  const angle = file.add('(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))')
  const solid = file.add('(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())')
  const near = file.add(
    `UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(${realText(VERTEX_TOLERANCE)}),${length},'distance_accuracy_value','')`,
  )
  return file.add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${near}))` +
      `GLOBAL_UNIT_ASSIGNED_CONTEXT((${length},${angle},${solid}))REPRESENTATION_CONTEXT('',''))`,
  )
}

function styleOf(file: StepData, colour: string): string {
  const [r, g, b] = tonesOf(colour).map(realText)
  const tone = file.shared(`COLOUR_RGB('',${r},${g},${b})`)
  const fill = file.shared(`FILL_AREA_STYLE_COLOUR('',${tone})`)
  const area = file.shared(`FILL_AREA_STYLE('',(${fill}))`)
  const surface = file.shared(`SURFACE_STYLE_FILL_AREA(${area})`)
  const side = file.shared(`SURFACE_SIDE_STYLE('',(${surface}))`)
  const usage = file.shared(`SURFACE_STYLE_USAGE(.BOTH.,${side})`)
  return file.shared(`PRESENTATION_STYLE_ASSIGNMENT((${usage}))`)
}

/**
 * One connected area as a solid. Runs of its outline from the axis to the axis, and loops that keep
 * off it, are closed shells: the one that reaches furthest is the outside, the others are voids.
 */
function writeSolid(file: StepData, name: string, region: Region): string {
  const runs = [region.outer, ...region.holes].flatMap((loop, i) =>
    runsOf(loop.filter((e) => !liesOnAxis(e)).map((e) => e.piece)).map((run) => ({ ...run, i })),
  )
  const reach = (run: { readonly pieces: readonly Piece[] }): number =>
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

interface Run {
  readonly pieces: readonly Piece[]
  /** True for a loop off the axis, whose end is its beginning. */
  readonly closed: boolean
}

/** Pieces of a loop without those along the axis, parted where it comes to the axis. */
function runsOf(pieces: readonly Piece[]): Run[] {
  const start = pieces.findIndex((p) => isPole(p.from.y))
  if (start < 0) return pieces.length > 0 ? [{ pieces, closed: true }] : []
  const ordered = [...pieces.slice(start), ...pieces.slice(0, start)]
  const runs: Piece[][] = []
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
function writeFace(file: StepData, piece: Piece, from: Ring, to: Ring): string {
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
function writeSeam(file: StepData, piece: Piece, from: Ring, to: Ring): string {
  if (piece.kind === 'arc') {
    const sense = piece.counterClockwise ? '.T.' : '.F.'
    return file.add(`EDGE_CURVE('',${from.vertex},${to.vertex},${circleOf(file, piece)},${sense})`)
  }
  if (piece.kind === 'cubic') {
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

function surfaceOf(file: StepData, piece: Piece): Surface {
  switch (piece.kind) {
    case 'line':
      return straightSurface(file, piece)
    case 'arc':
      return roundSurface(file, piece)
    case 'cubic': {
      const surface = file.add(`SURFACE_OF_REVOLUTION('',${curveOf(file, piece)},${axisOf(file)})`)
      // The way round crossed with the way along the piece leads to its left, into the material.
      return { surface, agrees: false }
    }
  }
}

const axisOf = (file: StepData): string =>
  file.shared(`AXIS1_PLACEMENT('',${file.point(0, 0, 0)},${file.direction(0, 0, 1)})`)

/** A cubic in the half-plane, exact, run through as its piece is. */
function curveOf(file: StepData, piece: CubicPiece): string {
  const points = controlOf(piece).map((p) => file.point(isPole(p.y) ? 0 : p.y, 0, p.x))
  const ends = '.UNSPECIFIED.,.F.,.F.,(4,4),(0.,1.),.UNSPECIFIED.'
  return file.add(`B_SPLINE_CURVE_WITH_KNOTS('',3,(${points.join(',')}),${ends})`)
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
