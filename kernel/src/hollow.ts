import { faceName, withoutCopy } from '@lathica/core/names'
import type { ShellOp } from '@lathica/core/solid'
import { isSound } from './check'
import { combined } from './combine'
import { KernelFault } from './fault'
import { freeSolid, named, type NamedFace, type NamedSolid } from './named'
import { scoped, shapesIn, type OpenCascade } from './openCascade'

/** Parallel faces meet within this, in mm. */
const TOLERANCE = 1e-4

/** Hollows a solid out to a wall; faces of the names told are left open. */
export function hollowed(oc: OpenCascade, solid: NamedSolid, op: ShellOp): NamedSolid {
  const open = solid.faces.filter(({ name }) => op.open.includes(withoutCopy(name)))
  const inner = offset(oc, solid, op, open)
  if (open.length > 0) return inner
  // With nothing open what came is the hollow itself.
  try {
    return combined(oc, solid, 'cut', [inner], op.step)
  } finally {
    freeSolid(inner)
  }
}

function offset(
  oc: OpenCascade,
  solid: NamedSolid,
  { step, thickness }: ShellOp,
  open: readonly NamedFace[],
): NamedSolid {
  const refused = new KernelFault(
    'kernel.shell',
    'A wall of this thickness cannot follow the whole solid.',
    'Type a smaller one, or let it follow the turned shape.',
  )
  return scoped((scope) => {
    const closing = scope.own(new oc.NCollection_List_TopoDS_Shape(open.map((f) => f.face)))
    const maker = scope.own(new oc.BRepOffsetAPI_MakeThickSolid())
    const { BRepOffset_Skin } = oc.BRepOffset_Mode
    const { GeomAbs_Intersection } = oc.GeomAbs_JoinType
    try {
      maker.MakeThickSolidByJoin(
        ...([solid.shape, closing, -thickness, TOLERANCE, BRepOffset_Skin] as const),
        ...([false, false, GeomAbs_Intersection, false] as const),
      )
    } catch {
      throw refused
    }
    if (!maker.IsDone()) throw refused
    const shape = maker.Shape()
    const inside = scope.own(new oc.GProp_GProps())
    oc.BRepGProp.VolumeProperties(shape, inside, false, false, false)
    if (!isSound(oc, shape) || inside.Mass() <= 0) {
      scope.own(shape)
      throw refused
    }
    const made = solid.faces.flatMap((f): NamedFace[] =>
      [...shapesIn(oc, scope.own(maker.Generated(f.face)), scope)].map((face) => ({
        face,
        name: faceName(step, 'wall'),
      })),
    )
    const kept = solid.faces.flatMap((f): NamedFace[] => {
      const images = [...shapesIn(oc, scope.own(maker.Modified(f.face)), scope)]
      return images.length > 0 ? images.map((face) => ({ face, name: f.name })) : [f]
    })
    return named(oc, shape, [...made, ...kept], step, scope)
  })
}
