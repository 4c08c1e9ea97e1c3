import type { ChamferStep, FilletStep, Step } from '@lathica/core'
import { angle, bodyField, length, type Field } from './field'

/** The fields of a fillet or a chamfer, set after set. */
export function cornerFields(step: FilletStep | ChamferStep): Field[] {
  const many = step.sets.length > 1
  const fields: Field[] = []
  if (step.kind === 'fillet') {
    step.sets.forEach((own, i) => {
      const remove = { ...step, sets: step.sets.filter((_, k) => k !== i) }
      if (many) fields.push({ kind: 'heading', label: `Set ${i + 1}`, remove })
      fields.push(
        length(
          'Radius',
          own.radius,
          (radius) => ({
            ...step,
            sets: step.sets.map((s, k) => (k === i ? { ...s, radius } : s)),
          }),
          { sign: 'R' },
        ),
        { kind: 'corners', label: 'Edges', set: i, pick: own.pick },
      )
    })
    const [first] = step.sets
    if (first) {
      const set = { ...first, pick: { kind: 'corners' as const, corners: [] } }
      fields.push({
        kind: 'more',
        label: 'Another radius',
        step: { ...step, sets: [...step.sets, set] },
      })
    }
  } else {
    step.sets.forEach((own, i) => {
      const change = (to: Partial<typeof own>): Step => ({
        ...step,
        sets: step.sets.map((s, k) => (k === i ? { ...s, ...to } : s)),
      })
      const remove = { ...step, sets: step.sets.filter((_, k) => k !== i) }
      if (many) fields.push({ kind: 'heading', label: `Set ${i + 1}`, remove })
      fields.push(
        length('Leg', own.along, (along) => change({ along })),
        length('Other leg', own.across, (across) => change({ across }), { empty: 'by angle' }),
        ...(own.across === ''
          ? [angle('Angle', own.angle, (text) => change({ angle: text }))]
          : []),
        { kind: 'corners', label: 'Edges', set: i, pick: own.pick },
      )
    })
    const [first] = step.sets
    if (first) {
      const set = { ...first, pick: { kind: 'corners' as const, corners: [] } }
      fields.push({
        kind: 'more',
        label: 'Another size',
        step: { ...step, sets: [...step.sets, set] },
      })
    }
  }
  return [...fields, bodyField(step.body)]
}
