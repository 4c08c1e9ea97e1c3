import { disagreementProblem, faultProblem, type PartState, type SketchState } from '../route'
import { valuesOf, type Part } from '../part'
import type { Problem } from '../result'
import { solidProperties } from '../section'
import type { Sketch } from '../sketch'

/** Mass properties of one body, in the units their names say. */
export interface BodyReport {
  readonly name: string
  readonly material: string
  readonly mass_g: number
  readonly volume_mm3: number
  readonly area_mm2: number
  /** Axial position of the centre of mass; it lies on the axis. */
  readonly centroid_mm: number
  /** About the axis, and about any line through the centre square to it. */
  readonly inertia_g_mm2: { readonly axis: number; readonly across: number }
  readonly bounds_mm: { readonly from: number; readonly to: number; readonly diameter: number }
}

export interface SketchReport {
  readonly name: string
  readonly freedoms: number
  readonly conflicts: readonly string[]
  readonly regions: number
  /** Places where its outline is not sound, as sentences. */
  readonly faults: readonly string[]
}

export interface StepReport {
  readonly number: number
  readonly kind: string
  readonly status: 'done' | 'failed' | 'aside'
  readonly message: string
}

/** A named value in mm, rad, g or g/mm³; null, with the reason, when its formula has no result. */
export interface ValueReport {
  readonly name: string
  readonly value: number | null
  readonly problem: string
}

export interface PartReport {
  readonly name: string
  readonly bodies: readonly BodyReport[]
  readonly sketches: readonly SketchReport[]
  readonly steps: readonly StepReport[]
  readonly values: readonly ValueReport[]
}

/** Everything that can be told of a part in figures and sentences. */
export function reportOf(state: PartState): PartReport {
  const { part } = state
  return {
    name: part.name,
    bodies: bodyReports(part, state),
    sketches: part.sketches.flatMap((sketch) => {
      const found = state.sketches.get(sketch.id)
      return found ? [sketchReport(part, sketch, found)] : []
    }),
    steps: part.route.map((step, i) => {
      const found = state.steps[i]
      const problem = found?.problem
      const kind = step.kind === 'unknown' ? String(step.kept['kind']) : step.kind
      const message = problem ? `${problem.message} ${problem.mend}` : ''
      return { number: step.number, kind, status: found?.status ?? 'failed', message }
    }),
    values: valueReports(part),
  }
}

/** Named values and driving sizes alike: formulas read both. */
function valueReports(part: Part): ValueReport[] {
  const { table, problems, sizesOf } = valuesOf(part)
  const read = (name: string, found: Problem | undefined): ValueReport => {
    const result = table.get(name)
    const problem = found?.message ?? ''
    return { name, value: problem === '' && result?.ok ? result.value : null, problem }
  }
  const driving = part.sketches.flatMap(({ id, sizes }) =>
    sizes.filter((s) => !s.reference).map((s) => read(s.name, sizesOf(id).problems.get(s.id))),
  )
  return [...part.values.map((v) => read(v.name, problems.get(v.name))), ...driving]
}

function bodyReports(part: Part, state: PartState): BodyReport[] {
  return state.bodies.flatMap((body): BodyReport[] => {
    const { solid } = body
    const meta = part.bodies.find((b) => b.id === body.bodyId)
    const material = part.materials.find((m) => m.id === meta?.material)
    if (!solid || !meta) return []
    const density = material?.density ?? 0
    return [
      {
        name: meta.name,
        material: material?.name ?? 'none',
        mass_g: body.mass,
        volume_mm3: solid.volume,
        area_mm2: solid.area,
        centroid_mm: solid.centreX,
        inertia_g_mm2: {
          axis: density * solid.inertiaAxis,
          across: density * solid.inertiaAcross,
        },
        bounds_mm: { from: solid.from, to: solid.to, diameter: 2 * solid.radius },
      },
    ]
  })
}

function sketchReport(part: Part, sketch: Sketch, state: SketchState): SketchReport {
  const { solution, profile } = state
  return {
    name: sketch.name,
    freedoms: solution.freedoms,
    conflicts: solution.disagreements
      .filter((d) => d.kind === 'conflict')
      .map((d) => disagreementProblem(sketch, d).message),
    regions: profile.section.regions.length,
    faults: profile.faults.map((f) => faultProblem(f, sketch, part).message),
  }
}

/** Greatest diameter, overall length and total mass; undefined while nothing is turned. */
export function overallOf(
  state: Pick<PartState, 'bodies'>,
): { readonly diameter: number; readonly length: number; readonly mass: number } | undefined {
  // Until the kernel tells, a body is as large as it would be as a full turn.
  const own = state.bodies.filter((b) => !b.reference)
  const solids = own.flatMap((b) => b.solid ?? solidProperties(b.section) ?? [])
  if (solids.length === 0) return undefined
  const from = Math.min(...solids.map((s) => s.from))
  const to = Math.max(...solids.map((s) => s.to))
  return {
    diameter: 2 * Math.max(...solids.map((s) => s.radius)),
    length: to - from,
    mass: own.reduce((sum, b) => sum + b.mass, 0),
  }
}
