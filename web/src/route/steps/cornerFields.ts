import type { ChamferSet, ChamferStep, FilletSet, FilletStep, Step } from '@lathica/core'
import { angle, bodyField, length, type Field } from './field'

/** The fields of a fillet or a chamfer, set after set. */
export function cornerFields(step: FilletStep | ChamferStep): Field[] {
  const sets =
    step.kind === 'fillet'
      ? fieldsOfSets(step.sets, (to) => ({ ...step, sets: to }), radiusFields, 'Another radius')
      : fieldsOfSets(step.sets, (to) => ({ ...step, sets: to }), legFields, 'Another size')
  return [...sets, bodyField(step.body)]
}

/** What is typed for a set; the function gives the step with some of the set changed. */
type SizesOf<S> = (own: S, change: (to: Partial<S>) => Step) => readonly Field[]

const radiusFields: SizesOf<FilletSet> = (own, change) => [
  length('Radius', own.radius, (radius) => change({ radius }), { sign: 'R' }),
]

const legFields: SizesOf<ChamferSet> = (own, change) => [
  length('Leg', own.along, (along) => change({ along })),
  length('Other leg', own.across, (across) => change({ across }), { empty: 'by angle' }),
  ...(own.across === '' ? [angle('Angle', own.angle, (text) => change({ angle: text }))] : []),
]

function fieldsOfSets<S extends FilletSet | ChamferSet>(
  sets: readonly S[],
  withSets: (sets: readonly S[]) => Step,
  sizesOf: SizesOf<S>,
  another: string,
): Field[] {
  const fields = sets.flatMap((own, i): Field[] => {
    const remove = withSets(sets.filter((_, k) => k !== i))
    const change = (to: Partial<S>): Step =>
      withSets(sets.map((s, k) => (k === i ? { ...s, ...to } : s)))
    return [
      ...(sets.length > 1 ? [{ kind: 'heading' as const, label: `Set ${i + 1}`, remove }] : []),
      ...sizesOf(own, change),
      { kind: 'corners', label: 'Edges', set: i, pick: own.pick },
    ]
  })
  const [first] = sets
  if (!first) return fields
  const next = { ...first, pick: { kind: 'corners' as const, corners: [] } }
  return [...fields, { kind: 'more', label: another, step: withSets([...sets, next]) }]
}
