import { expect } from 'vitest'
import { line, vec } from '@lathica/core/geometry'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { edgeKey, edgesOf, profileOf, solidProperties, type Section } from '@lathica/core/section'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate, faceWords, type BodyState } from '@lathica/core/route'
import { addRevolve, drawDraft, perform, steppedShaft, type Command } from '@lathica/core/edit'
import type { SolidMesh } from '@lathica/core/mesh'
import { openSides } from '../../core/test/support/tight'
import type { BuiltSolid, Kernel } from '../src'

/** A closed outline through corners, its edges called e1, e2 …, those along the axis too. */
export function outline(step: string, ...corners: readonly (readonly [number, number])[]): Section {
  const edges = corners.map(([x, y], i) => {
    const [x1, y1] = corners[(i + 1) % corners.length] ?? [x, y]
    return {
      piece: line(vec(x, y), vec(x1, y1)),
      name: { step, entity: `e${i}`, role: 'drawn' as const },
    }
  })
  return profileOf(edges, step).section
}

/** Whether every edge of the triangles is run as often one way as the other. */
export const watertight = (mesh: SolidMesh): boolean => openSides(mesh, true) === 0

export function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }, part)
}

/** A spindle of ⌀40 × 20, ⌀30 × 40 and ⌀20 × 30. */
export function spindle(): Part {
  const part = createPart({ name: 'Spindle' })
  const lands = [
    [40, 20],
    [30, 40],
    [20, 30],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const sketch = part.sketches[0]?.id ?? ''
  const draft = steppedShaft({ at: { x: 0, y: 0 }, on: [ORIGIN_ID] }, lands)
  return run(part, drawDraft('draw spindle', sketch, draft), addRevolve(sketch))
}

export const bodyOf = (part: Part): BodyState => {
  const [body] = evaluate(part).bodies
  if (!body) throw new Error('there is no body')
  return body
}

/** The key of the face that is called so. */
export function key(part: Part, words: string): string {
  const found = edgesOf(bodyOf(part).section).find((e) => faceWords(e, part.units) === words)
  if (!found) throw new Error(`there is no ${words}`)
  return edgeKey(found.name)
}

/** What the last step is refused with. */
export const problemOf = (part: Part): string => {
  const step = evaluate(part).steps.at(-1)
  return step?.problem ? `${step.problem.message} ${step.problem.mend}` : ''
}

/** The only body of a part as the kernel builds it: valid, and without gaps. */
export function builtBy(kernel: Kernel, part: Part): BuiltSolid {
  const { plan } = bodyOf(part)
  if (!plan) throw new Error(`the body is a full turn: ${problemOf(part)}`)
  const solid = kernel.build(plan, 0.05)
  expect(solid.valid).toBe(true)
  expect(watertight(solid.mesh)).toBe(true)
  return solid
}

/** What the steps after the spindle took away or added, in mm³, by the kernel. */
export const changeBy = (kernel: Kernel, part: Part): number => {
  const before = solidProperties(bodyOf(spindle()).section)?.volume ?? 0
  return (builtBy(kernel, part).figures?.volume ?? 0) - before
}
