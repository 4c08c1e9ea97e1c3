import type { RevolveStep } from '@lathica/core/part'
import {
  choice,
  number,
  optionalAngle,
  type Field,
  type FieldContext,
  bodyField,
  EFFECTS,
} from '../steps/field'
import { partTurnFields } from '../steps/partTurn'
import type { StepLooks } from './kind'

export const revolve: StepLooks<RevolveStep> = {
  title: ({ effect }) => {
    if (effect === 'add') return 'Revolve'
    return effect === 'cut' ? 'Revolve cut' : 'Revolve, common part'
  },
  row: (step, { figure }) => {
    if (step.facets !== '') return `${figure(step.facets, 'number')} sides`
    return step.turn === '' ? '' : `by ${figure(step.turn, 'angle')}`
  },
  fields: (step, context) => [
    choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
    bodyField(step.body, true),
    { kind: 'regions', label: 'Regions' },
    ...turnFields(step, context),
  ],
}

const FACETS = { flats: 'the flats', corners: 'the corners' }

/** How a turn that is no full round one goes. */
function turnFields(step: RevolveStep, { part }: FieldContext): Field[] {
  const lines = (part.sketches.find((s) => s.id === step.sketch)?.entities ?? []).filter(
    (e) => e.kind === 'line' && e.role !== 'outline',
  )
  const isPart = step.turn.trim() !== '' || step.turnTo !== ''
  const isPolygon = step.facets.trim() !== ''
  return [
    ...(isPolygon
      ? []
      : partTurnFields(step, part, step.id, ({ side, ...change }) => ({
          ...step,
          ...change,
          ...(side ? { side } : {}),
        }))),
    ...(isPart
      ? []
      : [
          {
            ...number('Sides', step.facets, (facets) => ({ ...step, facets })),
            empty: 'round',
          } as const,
        ]),
    ...(isPolygon
      ? [choice('Radii to', step.facetTo, FACETS, (v) => ({ ...step, facetTo: v as 'flats' }))]
      : []),
    ...(isPart || isPolygon
      ? [optionalAngle('At angle', step.phase, '0', (phase) => ({ ...step, phase }))]
      : []),
    ...(isPolygon || lines.length === 0
      ? []
      : [
          choice(
            'About',
            step.axis,
            {
              axis: 'the axis',
              ...Object.fromEntries(lines.map((l) => [l.id, `line ${l.id.replace(/\D+/g, '')}`])),
            },
            (axis) => ({ ...step, axis }),
          ),
        ]),
  ]
}
