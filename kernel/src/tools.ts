import {
  PART_FRAME,
  addPlaces,
  crossPlaces,
  inFrame,
  line,
  place,
  scalePlace,
  secondOf,
  tangentAt,
  turnedFrame,
  type Frame,
  type Place,
  type Vec,
} from '@lathica/core/geometry'
import { copyMark, faceName } from '@lathica/core/names'
import { edgesOf, type Section } from '@lathica/core/section'
import type { BodyTool, FacetTool, PrismTool, SweptTool, TurnedTool } from '@lathica/core/solid'
import { combined } from './combine'
import { KernelFault } from './fault'
import { freeSolid, handleTo, named, type NamedFace, type NamedSolid } from './named'
import { partsOf, scoped, shapesIn, type OpenCascade, type Scope, type Shape } from './openCascade'
import { asOutline, asSection, drawnFace, drawnPath, type DrawnFace } from './outline'

/** Turns a section about the z of its frame. */
export function turnedSolid(
  oc: OpenCascade,
  tool: Omit<TurnedTool, 'mark'>,
  step: string,
): NamedSolid {
  const { section, frame, turn } = tool
  return piecewise(oc, section, step, (region, scope) => {
    const start = turn ? turnedAbout(frame, turn.from) : frame
    const drawn = drawnFace(oc, region, asSection(start), scope)
    const axis = scope.own(new oc.gp_Ax1(pointOf(oc, frame.at, scope), wayOf(oc, frame.z, scope)))
    // With a copy every edge knows the face it made, over a full turn too.
    const maker = scope.own(
      turn
        ? new oc.BRepPrimAPI_MakeRevol(drawn.face, axis, turn.by, true)
        : new oc.BRepPrimAPI_MakeRevol(drawn.face, axis, true),
    )
    const ends = turn ? endsOf(maker, step, scope) : []
    const turned = { ...drawn, edges: drawn.edges.filter((e) => !e.onAxis) }
    return { shape: maker.Shape(), faces: [...sweptFaces(oc, maker, turned, scope), ...ends] }
  })
}

/** Draws an outline out along the z of its frame. */
export function prismSolid(oc: OpenCascade, tool: PrismTool, step: string): NamedSolid {
  const { outline, frame, from, to, draft } = tool
  return piecewise(oc, outline, step, (region, scope) => {
    const drawn = drawnFace(oc, region, asOutline(frame, from), scope)
    const { x, y, z } = frame.z
    const length = to - from
    const along = scope.own(new oc.gp_Vec(x * length, y * length, z * length))
    const maker = scope.own(new oc.BRepPrimAPI_MakePrism(drawn.face, along, true, true))
    const sides = sweptFaces(oc, maker, drawn, scope)
    const ends = endsOf(maker, step, scope)
    return draft
      ? drafted(oc, { shape: scope.own(maker.Shape()), sides, ends }, frame, draft, scope)
      : { shape: maker.Shape(), faces: [...sides, ...ends] }
  })
}

/** A prism with its sides leant about where they meet a plane square to it. */
function drafted(
  oc: OpenCascade,
  prism: {
    readonly shape: Shape
    readonly sides: readonly NamedFace[]
    readonly ends: readonly NamedFace[]
  },
  frame: Frame,
  { angle, at }: NonNullable<PrismTool['draft']>,
  scope: Scope,
): { readonly shape: Shape; readonly faces: readonly NamedFace[] } {
  const refused = new KernelFault(
    'kernel.draft',
    'The sides cannot lean by this angle.',
    'Type a smaller draft, or make it less long.',
  )
  const maker = scope.own(new oc.BRepOffsetAPI_DraftAngle(prism.shape))
  const way = wayOf(oc, frame.z, scope)
  const origin = pointOf(oc, inFrame(frame, place(0, 0, at)), scope)
  const plane = scope.own(new oc.gp_Pln(origin, way))
  for (const { face } of prism.sides) {
    maker.Add(scope.own(oc.TopoDS.Face(face)), way, angle, plane, true)
    if (!maker.AddDone()) throw refused
  }
  maker.Build()
  if (!maker.IsDone()) throw refused
  const faces = [...prism.sides, ...prism.ends].map(({ face, name }) => ({
    face: scope.own(maker.ModifiedShape(face)),
    name,
  }))
  return { shape: maker.Shape(), faces }
}

/**
 * Turns a section as a regular polygon: for every side the section drawn out along it, between the
 * two planes through the axis and the side's corners.
 */
export function facetSolid(oc: OpenCascade, tool: FacetTool, step: string): NamedSolid {
  const { sides, phase, section } = tool
  const half = Math.PI / sides
  const ends = edgesOf(section).flatMap(({ piece }) => [piece.from, piece.to])
  const reach = 2 * Math.max(...ends.map((p) => p.y))
  const [from, to] = [Math.min(...ends.map((p) => p.x)) - 1, Math.max(...ends.map((p) => p.x)) + 1]
  const wedge = triangle(reach, reach * Math.tan(half))
  const sectors = Array.from({ length: sides }, (_, i) => {
    const frame = turnedFrame(PART_FRAME, phase + 2 * half * i)
    const { at, x: out, z: along } = frame
    const side = { at, x: along, z: crossPlaces(along, out) }
    const width = reach * Math.tan(half)
    const flat = prismSolid(
      oc,
      { kind: 'prism', outline: section, frame: side, from: -width, to: width },
      step,
    )
    const between = prismSolid(oc, { kind: 'prism', outline: wedge, frame, from, to }, step)
    try {
      return combined(oc, marked(flat, sides > 1 ? copyMark(i + 1) : ''), 'common', [between], step)
    } finally {
      freeSolid(flat)
      freeSolid(between)
    }
  })
  try {
    const [first, ...more] = sectors
    if (!first) throw new KernelFault('kernel.facets', 'A polygon has sides.', 'Type how many.')
    return combined(oc, first, 'add', more, step)
  } finally {
    sectors.forEach(freeSolid)
  }
}

/** The same solid with a mark behind the names of its faces. */
export const marked = (solid: NamedSolid, mark: string): NamedSolid =>
  mark === ''
    ? solid
    : { ...solid, faces: solid.faces.map((f) => ({ ...f, name: `${f.name}${mark}` })) }

/** A triangle from the axis out to a side, as wide as twice the half. */
function triangle(far: number, half: number): Section {
  const corners = [
    { x: 0, y: 0 },
    { x: far, y: -half },
    { x: far, y: half },
  ]
  const outer = corners.map((from, i) => ({
    piece: line(from, corners[(i + 1) % 3] ?? from),
    name: { step: '', entity: `wedge${i}`, role: 'made' as const },
  }))
  return { regions: [{ outer, holes: [] }] }
}

/** Carries an outline along a path, and leaves free what it says. */
export function sweptSolid(oc: OpenCascade, tool: SweptTool, step: string): NamedSolid {
  const { path, outline, frame, without } = tool
  const [first] = path
  const [region] = outline.regions
  if (!first || !region) throw new KernelFault('kernel.path', 'The path is empty.', 'Draw one.')
  const rod = scoped((scope) => {
    const spine = drawnPath(oc, path, asOutline(frame, 0), scope)
    const way = tangentAt(first, 0)
    const y = secondOf(frame)
    const along = (a: Vec): Place => addPlaces(scalePlace(frame.x, a.x), scalePlace(y, a.y))
    const start = {
      at: inFrame(frame, { ...first.from, z: 0 }),
      x: along(turnedLeft(way)),
      z: along(way),
    }
    const drawn = drawnFace(oc, region, asOutline(start, 0), scope)
    const maker = scope.own(new oc.BRepOffsetAPI_MakePipeShell(spine))
    // The path is plane: its normal keeps the outline from turning about the path.
    maker.SetMode(wayOf(oc, frame.z, scope))
    maker.SetTransitionMode(oc.BRepBuilderAPI_TransitionMode.BRepBuilderAPI_RightCorner)
    maker.Add(drawn.wire, false, false)
    maker.Build()
    if (!maker.IsDone() || !maker.MakeSolid()) {
      throw new KernelFault(
        'kernel.sweep',
        'The rod cannot follow this path.',
        'Make it thinner, or bend the path less tightly.',
      )
    }
    const shape = maker.Shape()
    const ends = endsOf(maker, step, scope)
    const rest = [...partsOf(oc, shape, 'FACE', scope)].map((face) => ({
      face,
      name: faceName(step, 'rod'),
    }))
    return named(oc, shape, [...ends, ...rest], step, scope)
  })
  if (without.regions.length === 0) return rod
  const free = turnedSolid(oc, { kind: 'turned', section: without, frame: PART_FRAME }, step)
  try {
    return combined(oc, rod, 'cut', [free], step)
  } finally {
    freeSolid(rod)
    freeSolid(free)
  }
}

const turnedLeft = ({ x, y }: Vec): Vec => ({ x: -y, y: x })

/** A body as it is, mirrored where the tool says so, and moved into its frame. */
export function movedBody(
  oc: OpenCascade,
  solid: NamedSolid,
  { mirror, frame }: Pick<BodyTool, 'mirror' | 'frame'>,
): NamedSolid {
  return scoped((scope) => {
    const { at, x, z } = frame
    const y = secondOf(frame)
    const move = scope.own(new oc.gp_Trsf())
    move.SetValues(x.x, y.x, z.x, at.x, x.y, y.y, z.y, at.y, x.z, y.z, z.z, at.z)
    if (mirror) {
      const image = scope.own(new oc.gp_Trsf())
      const plane = new oc.gp_Ax2(pointOf(oc, mirror.at, scope), wayOf(oc, mirror.normal, scope))
      image.SetMirror(scope.own(plane))
      move.Multiply(image)
    }
    const maker = scope.own(new oc.BRepBuilderAPI_Transform(solid.shape, move, true, false))
    const shape = maker.Shape()
    // The images stand in the order of what they are of, and know which way round they are.
    const images = partsOf(oc, shape, 'FACE', scope)
    const names = solid.faces.map((f) => f.name)
    const faces = [...images].map((face, i) => ({ face: handleTo(face), name: names[i] ?? '' }))
    return { shape, faces }
  })
}

/** Every region built by itself, as one solid with all their names. */
function piecewise(
  oc: OpenCascade,
  section: Section,
  step: string,
  build: (
    region: Section['regions'][number],
    scope: Scope,
  ) => { readonly shape: Shape; readonly faces: readonly NamedFace[] },
): NamedSolid {
  return scoped((scope) => {
    const built = section.regions.map((region) => build(region, scope))
    const faces = built.flatMap((b) => b.faces)
    const [only, ...more] = built
    if (!only)
      throw new KernelFault('kernel.empty', 'There is nothing to build.', 'Draw a profile.')
    if (more.length === 0) return named(oc, only.shape, faces, step, scope)
    const compound = new oc.TopoDS_Compound()
    const builder = scope.own(new oc.TopoDS_Builder())
    builder.MakeCompound(compound)
    for (const { shape } of built) builder.Add(compound, scope.own(shape))
    return named(oc, compound, faces, step, scope)
  })
}

type Swept = InstanceType<OpenCascade['BRepPrimAPI_MakeRevol']>

/** The faces that the edges of a face made as it was swept, by the names of the edges. */
function sweptFaces(
  oc: OpenCascade,
  maker: Pick<Swept, 'Generated'>,
  drawn: DrawnFace,
  scope: Scope,
): NamedFace[] {
  return drawn.edges.flatMap(({ edge, name }) =>
    [...shapesIn(oc, scope.own(maker.Generated(edge)), scope)].map((face) => ({ face, name })),
  )
}

/** What the two ends of something drawn out or turned by a part are called. */
const [FIRST, LAST] = ['first', 'last']

function endsOf(
  maker: Pick<Swept, 'FirstShape' | 'LastShape'>,
  step: string,
  scope: Scope,
): NamedFace[] {
  return [
    { face: scope.own(maker.FirstShape()), name: faceName(step, FIRST) },
    { face: scope.own(maker.LastShape()), name: faceName(step, LAST) },
  ]
}

/** A frame turned about its own third direction. */
function turnedAbout(frame: Frame, angle: number): Frame {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const y = secondOf(frame)
  const x = place(c * frame.x.x + s * y.x, c * frame.x.y + s * y.y, c * frame.x.z + s * y.z)
  return { ...frame, x }
}

const pointOf = (
  oc: OpenCascade,
  { x, y, z }: Place,
  scope: Scope,
): InstanceType<OpenCascade['gp_Pnt']> => scope.own(new oc.gp_Pnt(x, y, z))
const wayOf = (
  oc: OpenCascade,
  { x, y, z }: Place,
  scope: Scope,
): InstanceType<OpenCascade['gp_Dir']> => scope.own(new oc.gp_Dir(x, y, z))
