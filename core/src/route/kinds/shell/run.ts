import { fail, type Result } from '../../../result'
import { edgesOf, shellOf, sectionArea, type Section } from '../../../section'
import {
  changed,
  edgesNamed,
  inProportion,
  lost,
  material,
  positive,
  told,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import type { ShellStep } from '../../../part'

/** Hollows a body out, or lays a wall round it. */
export function shell(step: ShellStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const thickness = positive(context, step.thickness, 'length', 'thickness')
  if (!thickness.ok) return thickness
  const fits = inProportion(thickness.value, edgesOf(before.value))
  if (!fits.ok && step.side === 'outside') return fits
  const faces = new Map<string, number>()
  for (const { edge, thickness: own } of step.faces) {
    const value = positive(context, own, 'length', 'thickness of a face')
    if (!value.ok) return value
    const fits = inProportion(value.value, edgesOf(before.value))
    if (!fits.ok && step.side === 'outside') return fits
    faces.set(edge, value.value)
  }
  const gone = [...step.open, ...faces.keys()].filter(
    (key) => edgesNamed(before.value, key).length === 0,
  )
  if (gone.length > 0) return lost('A face of this shell', ...gone)
  const after = shellOf(before.value, {
    step: step.id,
    side: step.side,
    thickness: thickness.value,
    open: new Set(step.open),
    faces,
    corners: step.corners,
  })
  const area = sectionArea(before.value)
  const nothingLeft = after && step.side === 'inside' && sectionArea(after) > area * (1 - 1e-9)
  if (nothingLeft === true) {
    return fail(
      'shell.thick',
      `A wall of ${told(context, thickness.value)} leaves no hollow.`,
      'Type a smaller thickness.',
    )
  }
  if (step.follow === 'solid' && context.planOf(step.body)) {
    return shellOfSolid(step, context, thickness.value, after ?? before.value)
  }
  return changed(context, step.body, before.value, after)
}

/** Hollows a body that is no full turn, along its flats and round its holes. */
function shellOfSolid(
  step: ShellStep,
  context: StepContext,
  thickness: number,
  turned: Section,
): Result<Outcome> {
  if (step.side === 'outside' || step.faces.length > 0) {
    return fail(
      'shell.solid',
      'A wall that follows the whole solid goes inwards, and is of one thickness.',
      'Let it follow the turned shape, or take the other thicknesses out.',
    )
  }
  const op = { kind: 'shell' as const, step: step.id, thickness, open: step.open }
  return worked(context, step.body, [op], { turned })
}
