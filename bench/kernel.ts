import { pointAt } from '@lathica/core/geometry'
import { edgesOf, loopsOf, solidProperties, type Loop, type Section } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import initKernel from 'replicad-opencascadejs'
import { atLeast, atMost, medianTime, type Row } from './row'
import { grooved } from './route'

type Kernel = Awaited<ReturnType<typeof initKernel>>
type Shape = InstanceType<Kernel['TopoDS_Shape']>

/** Rounds of the kernel, which takes its time, and one before them to warm it up. */
const ROUNDS = 3

/**
 * The same part twice in one run: on the half-section, and as solids that are revolved and cut from
 * one another. Volume and area have to be the same.
 */
export async function kernelRows(): Promise<Row[]> {
  const kernel = await initKernel({ print() {} })
  const part = grooved(12)
  const ours = medianTime(21, () => afresh(part), solidProps, 10)
  const solids = solidsOf(part)
  let made = { volume: 0, area: 0 }
  const theirs = medianTime(
    ROUNDS,
    () => undefined,
    () => {
      made = builtBy(kernel, solids)
    },
    1,
  )
  const { volume, area } = solidProps(part)
  const steps = `${part.route.length} steps, ${edgesOf(sectionOf(part)).length} edges`
  return [
    atLeast(`solid kernel, same part: ${steps}`, theirs / ours, '× our time', 100),
    atMost('difference of volume', Math.abs(made.volume / volume - 1), 'of it', 1e-9),
    atMost('difference of area', Math.abs(made.area / area - 1), 'of it', 1e-9),
  ]
}

const afresh = (part: Part): Part => ({ ...part, route: part.route.map((s) => ({ ...s })) })

const sectionOf = (part: Part): Section => evaluate(part).bodies[0]?.section ?? { regions: [] }

function solidProps(part: Part): { volume: number; area: number } {
  const props = solidProperties(sectionOf(part))
  if (!props) throw new Error('the bench part has no material')
  return props
}

/** The first step's section, and the tool of every step after it. */
function solidsOf(part: Part): readonly Section[] {
  const { steps } = evaluate(part)
  return steps.flatMap((s) => s.tool ?? [])
}

function builtBy(
  kernel: Kernel,
  [blank, ...tools]: readonly Section[],
): { volume: number; area: number } {
  if (!blank) throw new Error('the bench part has no first step')
  let solid = revolved(kernel, blank)
  for (const tool of tools) {
    const cutter = revolved(kernel, tool)
    const cut = new kernel.BRepAlgoAPI_Cut(solid, cutter)
    const next = cut.Shape()
    for (const done of [solid, cutter, cut]) done.delete()
    solid = next
  }
  const inside = new kernel.GProp_GProps()
  const surface = new kernel.GProp_GProps()
  kernel.BRepGProp.VolumeProperties(solid, inside, false, false, false)
  kernel.BRepGProp.SurfaceProperties(solid, surface, false, false)
  const measured = { volume: inside.Mass(), area: surface.Mass() }
  for (const done of [solid, inside, surface]) done.delete()
  return measured
}

/** A section turned about the axis, which is the kernel's z. */
function revolved(kernel: Kernel, section: Section): Shape {
  const [outer] = loopsOf(section)
  if (!outer) throw new Error('the section is empty')
  const wire = wireOf(kernel, outer)
  const face = new kernel.BRepBuilderAPI_MakeFace(wire, true)
  const axis = new kernel.gp_Ax1(new kernel.gp_Pnt(0, 0, 0), new kernel.gp_Dir(0, 0, 1))
  const turn = new kernel.BRepPrimAPI_MakeRevol(face.Face(), axis, true)
  const solid = turn.Shape()
  for (const done of [wire, face, axis, turn]) done.delete()
  return solid
}

function wireOf(kernel: Kernel, loop: Loop): InstanceType<Kernel['TopoDS_Wire']> {
  const wire = new kernel.BRepBuilderAPI_MakeWire()
  const point = (t: number, { piece }: Loop[number]): InstanceType<Kernel['gp_Pnt']> => {
    const { x, y } = pointAt(piece, t)
    return new kernel.gp_Pnt(y, 0, x)
  }
  for (const edge of loop) {
    const [a, b] = [point(0, edge), point(1, edge)]
    if (edge.piece.kind === 'line') wire.Add(new kernel.BRepBuilderAPI_MakeEdge(a, b).Edge())
    else {
      const arc = new kernel.GC_MakeArcOfCircle(a, point(0.5, edge), b)
      wire.Add(new kernel.BRepBuilderAPI_MakeEdge(arc.Value()).Edge())
    }
  }
  const made = wire.Wire()
  wire.delete()
  return made
}
