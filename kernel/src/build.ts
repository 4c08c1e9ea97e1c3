import { PART_FRAME } from '@lathica/core/geometry'
import {
  planKeys,
  type FileTool,
  type SolidOp,
  type SolidPlan,
  type SolidTool,
} from '@lathica/core/solid'
import { combined } from './combine'
import { finishedEdges } from './edges'
import { KernelFault, faultOf } from './fault'
import { hollowed } from './hollow'
import { freeSolid, type NamedSolid } from './named'
import type { OpenCascade } from './openCascade'
import { fileSolid } from './read'
import { facetSolid, marked, movedBody, prismSolid, sweptSolid, turnedSolid } from './tools'

/** So many states of solids are kept; a change in a late step finds all before it. */
const MOST_KEPT = 40

/** How many operations of a plan are done. */
export interface Ahead {
  readonly done: number
  readonly of: number
}

/** Builds plans, and keeps what it built by content. What it hands out stays its own. */
export class Builder {
  private readonly kept = new Map<string, NamedSolid>()
  /** How many plans are being built, one within another. */
  private depth = 0

  constructor(private readonly oc: OpenCascade) {}

  /**
   * The solid of a plan.
   * @throws KernelFault when it cannot be built, or nothing is left
   */
  build(plan: SolidPlan): NamedSolid {
    this.depth++
    try {
      return this.run(plan)
    } finally {
      this.depth--
      this.letGo()
    }
  }

  /**
   * Does the next operation of a plan that is not kept yet, so that one can turn to something else between two.
   * @returns how far it has come; undefined when there was nothing to do
   * @throws KernelFault as `build`
   */
  ahead(plan: SolidPlan): Ahead | undefined {
    const done = this.lastKept(planKeys(plan))
    if (done >= plan.ops.length) return undefined
    this.build({ ...plan, ops: plan.ops.slice(0, done + 1) })
    return { done: done + 1, of: plan.ops.length }
  }

  /** The last state that is kept, by its number; 0, the base, where none is. */
  private lastKept(keys: readonly string[]): number {
    let at = keys.length - 1
    while (at > 0 && !this.kept.has(keys[at] ?? '')) at--
    return at
  }

  private run(plan: SolidPlan): NamedSolid {
    const keys = planKeys(plan)
    const at = this.lastKept(keys)
    let solid = this.take(keys[at] ?? '') ?? this.base(plan, keys[0] ?? '')
    for (let i = at; i < plan.ops.length; i++) {
      const [op, key] = [plan.ops[i], keys[i + 1]]
      if (!op || key === undefined) break
      try {
        solid = this.keep(key, this.apply(solid, op))
      } catch (thrown) {
        throw faultOf(this.oc, thrown, i + 1)
      }
    }
    if (!solid)
      throw new KernelFault('kernel.empty', 'Nothing is left of the body.', 'Undo a step.')
    return solid
  }

  private base({ base }: SolidPlan, key: string): NamedSolid | undefined {
    if (base.regions.length === 0) return undefined
    const tool = { kind: 'turned' as const, section: base, frame: PART_FRAME }
    return this.keep(key, turnedSolid(this.oc, tool, 'base'))
  }

  private apply(solid: NamedSolid | undefined, op: SolidOp): NamedSolid {
    if (op.kind === 'edges') {
      if (solid) return finishedEdges(this.oc, solid, op)
      throw new KernelFault('kernel.nothing', 'There are no edges yet.', 'Make a solid first.')
    }
    if (op.kind === 'shell') {
      if (solid) return hollowed(this.oc, solid, op)
      throw new KernelFault('kernel.nothing', 'There is nothing to hollow.', 'Make a solid first.')
    }
    const tools = op.tools.map((tool) => marked(this.tool(tool, op.step), tool.mark))
    try {
      const [first, ...more] = tools
      if (solid) return combined(this.oc, solid, op.effect, tools, op.step)
      if (!first || op.effect !== 'add') {
        throw new KernelFault(
          'kernel.nothing',
          'There is nothing yet to work on.',
          'Let the first step add material.',
        )
      }
      return combined(this.oc, first, 'add', more, op.step)
    } finally {
      tools.forEach(freeSolid)
    }
  }

  private tool(tool: SolidTool, step: string): NamedSolid {
    switch (tool.kind) {
      case 'turned':
        return turnedSolid(this.oc, tool, step)
      case 'prism':
        return prismSolid(this.oc, tool, step)
      case 'facets':
        return facetSolid(this.oc, tool, step)
      case 'swept':
        return sweptSolid(this.oc, tool, step)
      case 'file':
        return this.fromFile(tool, step)
      case 'body':
        return movedBody(this.oc, this.build(tool.plan), tool)
    }
  }

  private fromFile(tool: FileTool, step: string): NamedSolid {
    const solid = fileSolid(this.oc, tool, step)
    try {
      return movedBody(this.oc, solid, tool)
    } finally {
      freeSolid(solid)
    }
  }

  private take(key: string): NamedSolid | undefined {
    const found = this.kept.get(key)
    if (!found) return undefined
    // The last used goes last.
    this.kept.delete(key)
    this.kept.set(key, found)
    return found
  }

  private keep(key: string, solid: NamedSolid): NamedSolid {
    this.kept.set(key, solid)
    return solid
  }

  /** Drops the oldest states; not while a body within a body is built, which works on some of them. */
  private letGo(): void {
    if (this.depth > 0) return
    for (const [oldest, old] of this.kept) {
      if (this.kept.size <= MOST_KEPT) break
      this.kept.delete(oldest)
      this.drop(old)
    }
  }

  /** Gives back all that is kept. */
  free(): void {
    for (const solid of this.kept.values()) this.drop(solid)
    this.kept.clear()
  }

  /** Triangles are not given back with their solid, so they go first. */
  private drop(solid: NamedSolid): void {
    this.oc.BRepTools.Clean(solid.shape, true)
    freeSolid(solid)
  }
}
