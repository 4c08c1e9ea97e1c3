import { addStep, nextStepId } from '../edit'
import { inFrame, place, type Frame, type Place } from '../geometry'
import type { Part } from '../part'
import { evaluate } from '../route'
import type { LiftedProperties, SolidPlan } from '../solid'
import { areaOf, reachOf } from './axis'
import { done } from './changes'
import { distanceTo } from './distance'
import { featuresOf, type Feature, type RestFace } from './features'
import { nodeAt } from './nodes'
import type { ForeignFace, ForeignSolid, Line } from './types'

/** What the kernel makes of a plan; it throws where it can make nothing. */
export type Weigh = (plan: SolidPlan) => LiftedProperties | undefined

/** How a body that was rebuilt from a turned outline and steps compares with the solid that came. */
export interface Comparison {
  /** Shares of the solid's volume and area that it has too much; negative where it has too little. */
  readonly volume: number
  readonly area: number
  /** How far the farthest of the solid's points lies from its surfaces, in mm. */
  readonly distance: number
  /** The share of the solid's surface that neither the outline nor a step makes. */
  readonly surface: number
}

/** A part with steps for what its turned body does not have. */
export interface Rebuilt {
  readonly part: Part
  readonly steps: readonly (Pick<Feature, 'kind' | 'count'> & { readonly step: string })[]
  readonly comparison: Comparison
}

/** Places are on what they belong to within this share of the size. */
const ON = 2e-5

/**
 * The part whose last body is a turned one, with steps for those faces of the solid that are not turned about its axis.
 * @param rest the numbers of these faces in the solid
 * @param frame takes places of the file to those of the part
 * @returns undefined where no step is known for any of them, or the kernel cannot build it
 */
export function rebuilt(
  part: Part,
  solid: ForeignSolid,
  rest: readonly number[],
  frame: Frame,
  weigh: Weigh,
): Rebuilt | undefined {
  const body = part.bodies.at(-1)?.id ?? ''
  const section = evaluate(part).bodies.at(-1)?.section
  if (!section || rest.length === 0) return undefined
  const size = reachOf(solid)
  const faces = rest.flatMap((number): RestFace[] => {
    const face = solid.faces[number]
    return face ? [{ ...placed(face, frame), number }] : []
  })
  const found = featuresOf(faces, { body, section, near: ON * size, size, units: part.units })
  let here = part
  const steps: Rebuilt['steps'][number][] = []
  const made = new Set<number>()
  for (const { kind, count, step, faces: own } of found) {
    const id = nextStepId(here)
    const next = done(here, addStep(step))
    if (!next || evaluate(next).steps.at(-1)?.status !== 'done') continue
    here = next
    steps.push({ kind, count, step: id })
    own.forEach((f) => made.add(f))
  }
  const plan = steps.length > 0 ? evaluate(here).bodies.at(-1)?.plan : undefined
  const figures = plan && weighed(plan, weigh)
  if (!figures) return undefined
  const area = (numbers: readonly number[]): number =>
    numbers.reduce((sum, n) => sum + (solid.faces[n] ? areaOf(solid.faces[n]) : 0), 0)
  const far = distanceTo(plan)
  const distance = solid.faces
    .flatMap(({ nodes }) => placesOf(nodes, frame))
    .reduce((most, p) => Math.max(most, far(p)), 0)
  const comparison = {
    ...{ volume: figures.volume / solid.volume - 1, area: figures.area / solid.area - 1, distance },
    surface: area(rest.filter((n) => !made.has(n))) / area([...solid.faces.keys()]),
  }
  return { part: here, steps, comparison }
}

/** Figures of a plan; undefined where it cannot be built, and so is not the solid, whatever the reason. */
function weighed(plan: SolidPlan, weigh: Weigh): LiftedProperties | undefined {
  try {
    return weigh(plan)
  } catch {
    return undefined
  }
}

/** Volumes and areas that differ by less than this share are one. */
const SAME = 1e-6

/** Whether what was rebuilt is what came. */
export const isSameSolid = ({ volume, area, distance }: Comparison, solid: ForeignSolid): boolean =>
  Math.abs(volume) <= SAME && Math.abs(area) <= SAME && distance <= ON * reachOf(solid)

const placesOf = (nodes: Float64Array, frame: Frame): Place[] =>
  Array.from({ length: nodes.length / 3 }, (_, i) => inFrame(frame, nodeAt(nodes, i)))

/** A face as it lies in the part. */
function placed(face: ForeignFace, frame: Frame): ForeignFace {
  const nodes = new Float64Array(face.nodes.length)
  placesOf(face.nodes, frame).forEach((p, i) => nodes.set([p.x, p.y, p.z], 3 * i))
  return {
    kind: face.kind,
    axis: face.axis && placedLine(face.axis, frame),
    nodes,
    triangles: face.triangles,
  }
}

const placedLine = ({ at, along }: Line, frame: Frame): Line => ({
  at: inFrame(frame, at),
  along: inFrame({ ...frame, at: place(0, 0, 0) }, along),
})
