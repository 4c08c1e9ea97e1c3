/** Parts built as plain data, the way a file holds them. */
import { createPart, type Part } from '@lathica/core/part'
import type { PartState } from '@lathica/core/route'
import { pieceTo, type Drawn } from './make'

/** Any field of a step; what a field may hold is for the engine to judge. */
export type StepData = Readonly<Record<string, unknown>>

/** A full turn of all regions of an outline. */
export const revolveStep = (
  id: string,
  number: number,
  sketch: string,
  more: StepData = {},
): StepData => ({
  ...{ id, number, aside: false, kind: 'revolve', sketch, regions: 'all', effect: 'add' },
  ...{ body: 'body1', axis: 'axis', turn: '', turnTo: '', side: 'one', back: '' },
  ...{ facets: '', facetTo: 'flats', phase: '' },
  ...more,
})

/** An outline as a sketch without any constraints. */
export function sketchOf(id: string, drawn: Drawn): object {
  const points: { id: string; x: number; y: number }[] = []
  const at = (p: { x: number; y: number }): string => {
    const point = `p${points.length}`
    points.push({ id: point, x: p.x, y: p.y })
    return point
  }
  const corners = drawn.map((d) => at(d.to))
  const entities = drawn.map((side, i) => {
    const before = (i + drawn.length - 1) % drawn.length
    const piece = pieceTo(drawn[before]?.to ?? side.to, side)
    const ends = { from: corners[before] ?? '', to: corners[i] ?? '' }
    const base = { id: `e${i}`, role: 'outline', ...ends }
    if (piece.kind === 'arc') {
      const { counterClockwise } = piece
      return { ...base, kind: 'arc', centre: at(piece.centre), counterClockwise }
    }
    if (!side.handles) return { ...base, kind: 'line' }
    const [fromHandle, toHandle] = side.handles.map(at)
    return { ...base, kind: 'curve', fromHandle, toHandle }
  })
  const plain = { name: id, plane: 'half', nextId: 999, constraints: [], sizes: [] }
  return { ...plain, id, points, entities }
}

/** A part of one body from sketches and steps. */
export function partWith(sketches: readonly object[], route: readonly StepData[]): Part {
  const part = structuredClone(createPart({ name: 'tide gauge part' }))
  return { ...part, sketches, route } as unknown as Part
}

/** What no step may do, whatever was typed: fail without a mend, or by a mistake of the engine's own. */
export function stepFault({ steps }: PartState): string | undefined {
  for (const [i, step] of steps.entries()) {
    const { status, problem } = step
    if (status === 'failed' && (problem?.mend ?? '') === '')
      return `step ${i} failed without a mend`
    if (problem?.code === 'step.defect') return `step ${i}: ${problem.message}`
    if (status === 'done') void step.massChange
  }
  return undefined
}
