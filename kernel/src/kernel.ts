import type { Look, Seen } from '@lathica/core/drawing'
import type { LiftedProperties, SolidAsk, SolidPlan, SolidTold } from '@lathica/core/solid'
import type { ForeignSolid } from '@lathica/core/recover'
import type { SolidMesh } from '@lathica/core/mesh'
import type { BodyPlan, FileSaid } from '@lathica/core/formats'
import { Builder, type Ahead } from './build'
import { isSound } from './check'
import { KernelFault, faultOf } from './fault'
import { figuresOf } from './figures'
import { shapeOf, wayBetween } from './measure'
import { meshOf } from './mesh'
import type { OpenCascade } from './openCascade'
import { readSolids } from './read'
import { seenLines } from './seen'
import { leastWallOf } from './wall'
import { writeStepOf } from './write'

/** A body that was built: what it looks like and what it comes to. */
export interface BuiltSolid {
  readonly mesh: SolidMesh
  /** Undefined when nothing is left of the body. */
  readonly figures: LiftedProperties | undefined
  /** The kernel's own check of its faces, edges and how they meet. */
  readonly valid: boolean
}

/** What is asked of the solid kernel. All of it may throw a KernelFault. */
export interface Kernel {
  /**
   * Does one operation of a plan ahead of what will be asked of it, where one is not done yet.
   * @returns how far it has come; undefined when there was nothing to do
   */
  ahead(plan: SolidPlan): Ahead | undefined
  /** @param tolerance how far triangles may lie from the surface, in mm */
  build(plan: SolidPlan, tolerance: number): BuiltSolid
  /** The figures alone, without a picture. */
  weigh(plan: SolidPlan): LiftedProperties | undefined
  /** What a face is, how far apart two things are, or the least wall. */
  measure(ask: SolidAsk): SolidTold
  /** Edges of several bodies together that nothing hides, as a drawing sees them, and outlines of what is cut. */
  see(plans: readonly SolidPlan[], look: Look): Seen
  /** An exchange file (ISO 10303-21) of bodies, in mm. */
  writeStep(bodies: readonly BodyPlan[], name: string): string
  /**
   * The solids of an exchange file (ISO 10303-21), as points on their faces.
   * @param tell is told before each solid, by its number from 1, of how many
   * @param inFile what the file says in words, if it was read already
   */
  read(text: string, tell?: (solid: number, of: number) => void, inFile?: FileSaid): ForeignSolid[]
  /** Bytes the kernel's memory has grown to. */
  memory(): number
  /** Gives back every solid that is kept. */
  free(): void
}

/** The kernel on a loaded Open CASCADE. */
export function createKernel(oc: OpenCascade): Kernel {
  const builder = new Builder(oc)
  const safely = <T>(work: () => T): T => {
    try {
      return work()
    } catch (thrown) {
      throw faultOf(oc, thrown)
    }
  }
  return {
    ahead: (plan) => safely(() => builder.ahead(plan)),
    build: (plan, tolerance) =>
      safely(() => {
        const solid = builder.build(plan)
        const mesh = meshOf(oc, solid, tolerance)
        const figures = figuresOf(oc, solid.shape, plan.ops.length === 0, mesh)
        if (figures && figures.volume <= 0) throw turnedInsideOut
        return { mesh, figures, valid: isSound(oc, solid.shape) }
      }),
    weigh: (plan) => safely(() => figuresOf(oc, builder.build(plan).shape, plan.ops.length === 0)),
    measure: (ask) => safely(() => measured(oc, builder, ask)),
    see: (plans, look) =>
      safely(() =>
        seenLines(
          oc,
          plans.map((plan) => builder.build(plan).shape),
          look,
        ),
      ),
    writeStep: (bodies, name) =>
      safely(() =>
        writeStepOf(
          oc,
          bodies.map((b) => ({ ...b, solid: builder.build(b.plan) })),
          name,
        ),
      ),
    read: (text, tell, inFile) => safely(() => readSolids(oc, text, tell, inFile)),
    memory: () => oc.wasmMemory.buffer.byteLength,
    free: () => builder.free(),
  }
}

function measured(oc: OpenCascade, builder: Builder, ask: SolidAsk): SolidTold {
  switch (ask.kind) {
    case 'shape':
      return shapeOf(oc, builder.build(ask.plan), ask.name)
    case 'apart':
      return wayBetween(oc, ask.from, ask.to, (plan) => builder.build(plan))
    case 'wall':
      return leastWallOf(oc, builder.build(ask.plan), ask.turned)
  }
}

const turnedInsideOut = new KernelFault(
  'kernel.inside',
  'The solid came out inside out.',
  'Change a size of the last step by a little.',
)
