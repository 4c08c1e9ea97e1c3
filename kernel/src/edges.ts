import { faceName, isFaceOf } from '@lathica/core/names'
import {
  hangingTogether,
  stretchesInOrder,
  type EdgeOp,
  type EdgesOf,
  type StretchOrder,
} from '@lathica/core/solid'
import { isSound } from './check'
import { KernelFault } from './fault'
import { freeSolid, named, type NamedFace, type NamedSolid } from './named'
import {
  partsOf,
  scoped,
  shapesIn,
  type Edge,
  type Face,
  type OpenCascade,
  type Scope,
  type Shape,
} from './openCascade'

/** An edge where a face meets another. */
interface Rim {
  readonly edge: Edge
  /** The second of them: of a step's edges the one that is not of the step. */
  readonly beside: Face
}

/** Rounds or bevels edges: all that a step has, such as the mouths of holes, or those where two faces meet. */
export function finishedEdges(oc: OpenCascade, solid: NamedSolid, op: EdgeOp): NamedSolid {
  return op.sets.reduce<NamedSolid>((here, set, i) => {
    const done = scoped((scope) => {
      const rims = rimsOf(oc, here, set.of, scope)
      if (rims.length === 0) {
        throw new KernelFault(
          'kernel.noEdges',
          set.of.kind === 'step'
            ? 'The step has no edges on this solid any more.'
            : 'A picked edge is no longer there.',
          set.of.kind === 'step'
            ? 'Choose another step, or set this one aside.'
            : 'Pick it again in the step card.',
        )
      }
      return set.work.kind === 'round'
        ? rounded(oc, here, rims, set.work.radius, { step: op.step, mark: set.mark ?? '' }, scope)
        : bevelled(oc, here, rims, set.work, { step: op.step, mark: set.mark ?? '' }, scope)
    })
    // What lies between two sets is nobody else's.
    if (i > 0) freeSolid(here)
    return done
  }, solid)
}

export function rimsOf(
  oc: OpenCascade,
  solid: NamedSolid,
  of: EdgesOf,
  scope: Scope,
): readonly Rim[] {
  const edgesOf = ({ face }: NamedFace): Edge[] =>
    [...partsOf(oc, face, 'EDGE', scope)].map((e) => scope.own(oc.TopoDS.Edge(e)))
  const between = (own: readonly NamedFace[], beside: readonly NamedFace[]): Rim[] => {
    const others = beside.flatMap((f) => edgesOf(f).map((edge) => ({ edge, f })))
    return own.flatMap(edgesOf).flatMap((edge): Rim[] => {
      const other = others.find((o) => o.edge.IsSame(edge))
      if (!other) return []
      return [{ edge, beside: scope.own(oc.TopoDS.Face(other.f.face)) }]
    })
  }
  if (of.kind === 'step') {
    const { step, copy } = of
    const isOf = ({ name }: NamedFace): boolean =>
      copy
        ? name.endsWith(copy.mark) && [step, copy.by].some((id) => isFaceOf(id, name))
        : isFaceOf(step, name)
    return eachOnce(
      between(
        solid.faces.filter(isOf),
        solid.faces.filter((f) => !isOf(f)),
      ),
    )
  }
  const called = (name: string): NamedFace[] => solid.faces.filter((f) => f.name === name)
  const found = of.edges.map(({ faces: [a, b], stretch }) => {
    const all = eachOnce(between(called(a), called(b)))
    return stretch === undefined ? all : stretchOf(oc, all, stretch, of.order, scope)
  })
  return found.some((rim) => rim.length === 0) ? [] : eachOnce(found.flat())
}

const eachOnce = (rims: readonly Rim[]): readonly Rim[] =>
  rims.filter((r, i) => !rims.slice(0, i).some((earlier) => earlier.edge.IsSame(r.edge)))

/** Those that make up one stretch of an edge; none where it has fewer. */
function stretchOf(
  oc: OpenCascade,
  rims: readonly Rim[],
  stretch: number,
  order: StretchOrder | undefined,
  scope: Scope,
): readonly Rim[] {
  const known: Shape[] = []
  const numberOf = (vertex: Shape): number => {
    const at = known.findIndex((v) => v.IsSame(vertex))
    return at < 0 ? known.push(vertex) - 1 : at
  }
  const stretches = hangingTogether(rims, ({ edge }) =>
    [...partsOf(oc, edge, 'VERTEX', scope)].map(numberOf),
  )
  const places = stretches.map((own) => own.flatMap(({ edge }) => placesAlong(oc, edge)))
  return stretches[stretchesInOrder(places, order)[stretch - 1] ?? -1] ?? []
}

/** Places along an edge, close enough to one another to tell where its middle is. */
const ALONG = 32

function placesAlong(oc: OpenCascade, edge: Edge): number[] {
  return scoped((scope) => {
    const curve = scope.own(new oc.BRepAdaptor_Curve(edge))
    const [from, to] = [curve.FirstParameter(), curve.LastParameter()]
    return Array.from({ length: ALONG + 1 }, (_, i) => {
      const p = scope.own(curve.Value(from + ((to - from) * i) / ALONG))
      return [p.X(), p.Y(), p.Z()]
    }).flat()
  })
}

/** What the faces that are made are named by: the step, and how copies are told apart. */
interface Made {
  readonly step: string
  readonly mark: string
}

function rounded(
  oc: OpenCascade,
  solid: NamedSolid,
  rims: readonly Rim[],
  radius: number,
  of: Made,
  scope: Scope,
): NamedSolid {
  const maker = scope.own(
    new oc.BRepFilletAPI_MakeFillet(solid.shape, oc.ChFi3d_FilletShape.ChFi3d_Rational),
  )
  for (const { edge } of rims) maker.Add(radius, edge)
  return finishedBy(oc, maker, solid, rims, { ...of, name: 'round' }, 'radius', scope)
}

function bevelled(
  oc: OpenCascade,
  solid: NamedSolid,
  rims: readonly Rim[],
  { along, across }: { readonly along: number; readonly across: number },
  of: Made,
  scope: Scope,
): NamedSolid {
  const maker = scope.own(new oc.BRepFilletAPI_MakeChamfer(solid.shape))
  for (const { edge, beside } of rims) maker.Add(along, across, edge, beside)
  return finishedBy(oc, maker, solid, rims, { ...of, name: 'bevel' }, 'leg', scope)
}

type Maker = InstanceType<OpenCascade['BRepFilletAPI_MakeFillet' | 'BRepFilletAPI_MakeChamfer']>

function finishedBy(
  oc: OpenCascade,
  maker: Maker,
  solid: NamedSolid,
  rims: readonly Rim[],
  of: Made & { readonly name: string },
  what: string,
  scope: Scope,
): NamedSolid {
  const tooLarge = new KernelFault(
    'kernel.edges',
    `This ${what} does not fit these edges.`,
    'Type a smaller one.',
  )
  const { step } = of
  const name = `${faceName(step, of.name)}${of.mark}`
  try {
    maker.Build()
  } catch {
    throw tooLarge
  }
  if (!maker.IsDone()) throw tooLarge
  const made = rims.flatMap(({ edge }) =>
    [...shapesIn(oc, scope.own(maker.Generated(edge)), scope)].map((face) => ({ face, name })),
  )
  const kept = solid.faces.flatMap((f): NamedFace[] => {
    if (maker.IsDeleted(f.face)) return []
    const images = [...shapesIn(oc, scope.own(maker.Modified(f.face)), scope)]
    return images.length > 0 ? images.map((face) => ({ face, name: f.name })) : [f]
  })
  const result = named(oc, maker.Shape(), [...made, ...kept], step, scope)
  if (!isSound(oc, result.shape)) throw tooLarge
  return result
}
