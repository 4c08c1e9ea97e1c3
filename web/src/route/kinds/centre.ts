import type { CentreStep } from '@lathica/core/part'
import { CENTRE_PILOTS, CENTRE_TYPES, centreHole, type CentreType } from '@lathica/core/standards'
import { bodyField, choice } from '../steps/field'
import { endsOf } from '../steps/ends'
import type { StepLooks } from './kind'

/** A pilot with the greatest diameter that its type has. */
const sizeWords = (type: CentreType, pilot: number): string => {
  const hole = centreHole(pilot)
  return `${pilot} / ${(type === 'B' ? hole?.guard : hole?.cone) ?? ''}`
}

const TYPES: Readonly<Record<CentreType, string>> = {
  A: 'A, plain cone',
  B: 'B, guarded cone',
  R: 'R, with an arc',
}

export const centre: StepLooks<CentreStep> = {
  title: () => 'Centre hole',
  row: ({ type, pilot, remains }) =>
    `${type} ${sizeWords(type, Number(pilot))}${{ stays: '', may: ', may stay', goes: ', must not stay' }[remains]}`,
  fields: (step, context) => [
    choice('In', step.end, endsOf(context.part), (v) => ({ ...step, end: v as 'left' })),
    choice('Type', step.type, Object.fromEntries(CENTRE_TYPES.map((t) => [t, TYPES[t]])), (v) => ({
      ...step,
      type: v as CentreType,
    })),
    // Numbers as keys would be put in their order, not that of the table.
    {
      ...{ kind: 'choice', label: 'Size', value: step.pilot },
      options: CENTRE_PILOTS.map((p) => ({ value: String(p), label: sizeWords(step.type, p) })),
      set: (pilot: string) => ({ ...step, pilot }),
    },
    choice(
      'On the part',
      step.remains,
      { stays: 'it stays', may: 'it may stay', goes: 'it must not stay' },
      (v) => ({ ...step, remains: v as 'stays' }),
    ),
    bodyField(step.body),
  ],
}
