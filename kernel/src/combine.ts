import { KernelFault } from './fault'
import { handleTo, named, sameSolid, type NamedFace, type NamedSolid } from './named'
import { partsOf, scoped, shapesIn, type OpenCascade, type Scope, type Shape } from './openCascade'

export type Effect = 'add' | 'cut' | 'common'

/** Joins tools to a solid, takes them from it, or keeps what it has in common with any of them. */
export function combined(
  oc: OpenCascade,
  base: NamedSolid,
  effect: Effect,
  tools: readonly NamedSolid[],
  step: string,
): NamedSolid {
  if (tools.length === 0) return sameSolid(base)
  return scoped((scope) => {
    const builder = scope.own(builderFor(oc, effect))
    // Its own end does not let go of what it worked with.
    scope.own({ delete: () => builder.Clear() })
    builder.SetArguments(scope.own(new oc.NCollection_List_TopoDS_Shape([base.shape])))
    builder.SetTools(scope.own(new oc.NCollection_List_TopoDS_Shape(tools.map((t) => t.shape))))
    builder.SetRunParallel(false)
    builder.Build()
    if (builder.HasErrors()) {
      throw new KernelFault(
        'kernel.combine',
        'The shapes could not be combined.',
        'Move or resize one of them by a little: they touch in a way that cannot be told apart.',
      )
    }
    const all = [base, ...tools]
    // What is taken away goes as a whole; what it is taken from goes only where it lies within.
    const stays = effect === 'add' ? all : effect === 'cut' ? [base] : []
    if (losesAny(oc, builder, stays, all, scope)) throw effect === 'cut' ? lostInCut : lostInJoining
    // Faces in one plane, one cylinder … become one face where material is joined.
    if (effect === 'add') builder.SimplifyResult(true, true)
    const origins = [base, ...tools].flatMap((solid) =>
      solid.faces.flatMap(({ face, name }): NamedFace[] => {
        if (builder.IsDeleted(face)) return []
        const images = [...shapesIn(oc, scope.own(builder.Modified(face)), scope)]
        return images.length > 0 ? images.map((f) => ({ face: f, name })) : [{ face, name }]
      }),
    )
    return named(oc, onlySolids(oc, builder.Shape(), scope), origins, step, scope)
  })
}

const lostInJoining = new KernelFault(
  'kernel.lost',
  'The shapes could not be joined: one of them would be lost.',
  'Move or resize one of them by a little: they touch in a way that cannot be told apart.',
)

const lostInCut = new KernelFault(
  'kernel.lost',
  'The shape could not be cut: all of it would be lost.',
  'Move or resize what is cut away by a little: they touch in a way that cannot be told apart.',
)

type Joiner = InstanceType<OpenCascade['BRepAlgoAPI_BooleanOperation']>

/**
 * Whether a solid that should stay leaves nothing of its outside, though it does not lie within the others: where every
 * place of its outside is taken, the others reach as far as it does.
 */
function losesAny(
  oc: OpenCascade,
  builder: Joiner,
  stays: readonly NamedSolid[],
  all: readonly NamedSolid[],
  scope: Scope,
): boolean {
  return stays.some(({ shape }) =>
    [...partsOf(oc, shape, 'SOLID', scope)].some((solid) => {
      for (const face of partsOf(oc, solid, 'FACE', scope)) {
        if (!builder.IsDeleted(face)) return false
      }
      const others = all.filter((other) => other.shape !== shape).map((other) => other.shape)
      return !isWithin(boxOf(oc, [solid], scope), boxOf(oc, others, scope))
    }),
  )
}

type Box = InstanceType<OpenCascade['Bnd_Box']>

export function boxOf(oc: OpenCascade, shapes: readonly Shape[], scope: Scope): Box {
  const box = scope.own(new oc.Bnd_Box())
  for (const shape of shapes) oc.BRepBndLib.Add(shape, box, false)
  return box
}

const isWithin = (inner: Box, outer: Box): boolean =>
  inner.GetXMin() >= outer.GetXMin() &&
  inner.GetYMin() >= outer.GetYMin() &&
  inner.GetZMin() >= outer.GetZMin() &&
  inner.GetXMax() <= outer.GetXMax() &&
  inner.GetYMax() <= outer.GetYMax() &&
  inner.GetZMax() <= outer.GetZMax()

function builderFor(
  oc: OpenCascade,
  effect: Effect,
): InstanceType<OpenCascade['BRepAlgoAPI_BooleanOperation']> {
  switch (effect) {
    case 'add':
      return new oc.BRepAlgoAPI_Fuse()
    case 'cut':
      return new oc.BRepAlgoAPI_Cut()
    case 'common':
      return new oc.BRepAlgoAPI_Common()
  }
}

/** The one solid of a result, or a compound of its solids; loose faces and edges are left behind. */
function onlySolids(oc: OpenCascade, result: Shape, scope: Scope): Shape {
  scope.own(result)
  const solids = [...partsOf(oc, result, 'SOLID', scope)]
  const [only] = solids
  if (only && solids.length === 1) return handleTo(only)
  const compound = new oc.TopoDS_Compound()
  const builder = scope.own(new oc.TopoDS_Builder())
  builder.MakeCompound(compound)
  for (const solid of solids) builder.Add(compound, solid)
  return compound
}
