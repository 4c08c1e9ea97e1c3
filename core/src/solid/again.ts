import { faceOfOtherStep, isFaceOf, withoutCopy } from '../names'
import { movedFrame, turnedFrame, type Frame } from '../geometry'
import { edgeKey, edgesOf, movedAlong, type SectionEdge } from '../section'
import type { EdgeCalled } from '../names'
import type { EdgeOp, EdgesOf, FacetTool, SolidOp, SolidTool } from './plan'
import { AS_IT_STANDS, orderTurned, type StretchOrder } from './stretches'

/** How what a step does again is told from what it is again. */
export interface Again {
  /** The step that does it again. */
  readonly step: string
  /** What the names of its faces end with. */
  readonly mark: string
  /** What is done again by the same step, by the steps it is from. */
  readonly sources: ReadonlyMap<string, readonly SolidOp[]>
}

/** How tools are moved, which keeps the part's axis. */
export interface Moves {
  readonly frame: (frame: Frame) => Frame
  readonly facets: (tool: FacetTool) => FacetTool
  readonly stretches: (order: StretchOrder) => StretchOrder
}

export const byAngle = (angle: number): Moves => ({
  frame: (f) => turnedFrame(f, angle),
  facets: (tool) => ({ ...tool, phase: tool.phase + angle }),
  stretches: (order) => orderTurned(order, angle),
})

export const byLength = (along: number): Moves => ({
  frame: (f) => movedFrame(f, along),
  facets: (tool) => ({ ...tool, section: movedAlong(tool.section, along, (name) => name) }),
  stretches: (order) => order,
})

/** The same operation once more, its tools moved; undefined where it cannot be done again. */
export function repeatedOp(op: SolidOp, again: Again, motion: Moves): SolidOp | undefined {
  if (op.kind === 'edges') return edgesAgain(op, again, motion.stretches)
  if (op.kind !== 'combine') return undefined
  const tools = op.tools.map((tool): SolidTool => {
    const mark = `${tool.mark}${again.mark}`
    return tool.kind === 'facets'
      ? { ...motion.facets(tool), mark }
      : { ...tool, frame: motion.frame(tool.frame), mark }
  })
  return { ...op, step: again.step, tools }
}

/** The same work on the edges of what is done again; undefined where one is not of that. */
export function edgesAgain(
  op: EdgeOp,
  again: Again,
  stretches: Moves['stretches'],
): EdgeOp | undefined {
  const sets = op.sets.flatMap((set) => {
    const of = edgesOfAgain(set.of, again, stretches)
    return of ? [{ ...set, of, mark: `${set.mark ?? ''}${again.mark}` }] : []
  })
  return sets.length === op.sets.length && sets.length > 0
    ? { ...op, step: again.step, sets }
    : undefined
}

function edgesOfAgain(
  of: EdgesOf,
  again: Again,
  stretches: Moves['stretches'],
): EdgesOf | undefined {
  if (of.kind === 'step') {
    const isAgain = again.sources.get(of.step)?.some((op) => op.kind !== 'shell')
    if (of.copy || isAgain !== true) return undefined
    return { ...of, copy: { by: again.step, mark: again.mark } }
  }
  const edges = of.edges.flatMap((edge): EdgeCalled[] => {
    const [one, two] = edge.faces
    const [a, b] = [faceAgain(one, again), faceAgain(two, again)]
    // An edge between faces that both stay where they are is not done again.
    if (a === undefined || b === undefined || (a === one && b === two)) return []
    return [{ ...edge, faces: [a, b] }]
  })
  if (edges.length < of.edges.length || edges.length === 0) return undefined
  const counted = edges.some((e) => e.stretch !== undefined)
  return { ...of, edges, ...(counted ? { order: stretches(of.order ?? AS_IT_STANDS) } : {}) }
}

/** The name that a face has as done again; of one that is not, its own. */
function faceAgain(name: string, { step, mark, sources }: Again): string | undefined {
  const source = [...sources.keys()].find((id) => isFaceOf(id, name))
  if (source === undefined) return name
  const ops = sources.get(source) ?? []
  if (!ops.some((op) => op.kind !== 'shell')) return undefined
  const tools = ops.flatMap((op) => (op.kind === 'combine' ? op.tools : []))
  // A face keeps the name of the edge that it was drawn or turned from.
  const isDrawn = tools.flatMap(edgesOfTool).some((e) => edgeKey(e.name) === withoutCopy(name))
  return `${isDrawn ? name : faceOfOtherStep(name, source, step)}${mark}`
}

function edgesOfTool(tool: SolidTool): readonly SectionEdge[] {
  switch (tool.kind) {
    case 'turned':
    case 'facets':
      return edgesOf(tool.section)
    case 'prism':
    case 'swept':
      return edgesOf(tool.outline)
    case 'body':
    case 'file':
      return []
  }
}
