import { edgeKey, edgesOf, faceWords, type BoreStep, type Step } from '@lathica/core'
import { combineFields, meshFields, mirrorFields, moveFields } from './bodyFields'
import { cornerFields } from './cornerFields'
import {
  EFFECTS,
  angle,
  bodyField,
  choice,
  faces,
  length,
  number,
  optionalAngle,
  type Field,
  type FieldContext,
} from './field'
import { grooveFields } from './grooveFields'
import {
  aroundFields,
  chosenSteps,
  endsOf,
  flatFields,
  halveFields,
  holeFields,
  slotFields,
} from './solidFields'
import { extrudeFields, partTurnFields, sweepFields, turnFields } from './turnFields'

/** The fields of a step's card, in the order they are asked. */
export function fieldsOf(step: Step, context: FieldContext): readonly Field[] {
  switch (step.kind) {
    case 'revolve':
      return [
        choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
        bodyField(step.body, true),
        { kind: 'regions', label: 'Regions' },
        ...turnFields(step, context),
      ]
    case 'wall':
      return [
        length('Thickness', step.thickness, (thickness) => ({ ...step, thickness })),
        choice('Lies', step.side, WALL_SIDES, (v) => ({ ...step, side: v as 'outside' })),
        ...(step.side === 'both'
          ? [length('Inside', step.inner, (inner) => ({ ...step, inner }))]
          : []),
        choice('Corners', step.corners, CORNERS, (v) => ({ ...step, corners: v as 'sharp' })),
        choice('Ends', step.ends, { flat: 'flat', round: 'round' }, (v) => ({
          ...step,
          ends: v as 'flat',
        })),
        choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
        bodyField(step.body, true),
        ...partTurnFields(
          { ...step, side: step.turnSide },
          context.part,
          step.id,
          ({ side, ...to }) => ({ ...step, ...to, ...(side ? { turnSide: side } : {}) }),
        ),
        ...(step.turn + step.turnTo === ''
          ? []
          : [optionalAngle('At angle', step.phase, '0', (phase) => ({ ...step, phase }))]),
      ]
    case 'groove':
      return grooveFields(step, context)
    case 'bore':
      return [
        choice('From', step.end, endsOf(context.part), (v) => ({
          ...step,
          end: v as 'left',
        })),
        ...step.parts.flatMap((own, i): Field[] => {
          const isLast = i === step.parts.length - 1
          const change = (to: Partial<typeof own>): Step => ({
            ...step,
            parts: step.parts.map((p, k) => (k === i ? { ...p, ...to } : p)),
          })
          const without = { ...step, parts: step.parts.filter((_, k) => k !== i) }
          return [
            ...(step.parts.length > 1
              ? [{ kind: 'heading' as const, label: `Diameter ${i + 1}`, remove: without }]
              : []),
            length('Diameter', own.diameter, (diameter) => change({ diameter }), { sign: '⌀' }),
            ...(isLast && step.upTo !== ''
              ? []
              : [
                  length('Depth', own.depth, (depth) => change({ depth }), {
                    ...(isLast ? { empty: 'through' } : {}),
                  }),
                ]),
          ]
        }),
        faces(
          {
            label: 'Up to',
            accept: 'plane',
            many: false,
            keys: step.upTo === '' ? [] : [step.upTo],
            none: 'its depth',
          },
          ([upTo = '']) => ({ ...step, upTo }),
        ),
        ...(isThrough(step) ? [] : tipFields(step)),
        length('Countersink', step.sinkDiameter, (sinkDiameter) => ({ ...step, sinkDiameter }), {
          sign: '⌀',
          empty: 'none',
        }),
        ...(step.sinkDiameter === ''
          ? []
          : [angle('Sink angle', step.sinkAngle, (sinkAngle) => ({ ...step, sinkAngle }))]),
        {
          kind: 'more',
          label: 'Another diameter',
          step: {
            ...step,
            parts: [
              { diameter: `2*(${step.parts[0]?.diameter ?? '10'})`, depth: '1' },
              ...step.parts,
            ],
          },
        },
        bodyField(step.body),
      ]
    case 'fillet':
    case 'chamfer':
      return cornerFields(step)
    case 'shell':
      return [
        length('Thickness', step.thickness, (thickness) => ({ ...step, thickness })),
        choice('Grows', step.side, { inside: 'inwards', outside: 'outwards' }, (v) => ({
          ...step,
          side: v as 'inside',
        })),
        ...(context.before?.plan && step.side === 'inside'
          ? [
              choice(
                'Follows',
                step.follow,
                { turn: 'the turned shape', solid: 'flats and holes too' },
                (v) => ({ ...step, follow: v as 'turn' }),
              ),
            ]
          : []),
        faces(
          {
            label: 'Open faces',
            accept: 'face',
            many: true,
            keys: step.open,
            none: 'none: a closed hollow',
          },
          (open) => ({ ...step, open }),
        ),
        faces(
          {
            label: 'Own thickness',
            accept: 'face',
            many: true,
            keys: step.faces.map((f) => f.edge),
            none: 'no face',
          },
          (keys) => ({
            ...step,
            faces: keys.map(
              (edge) =>
                step.faces.find((f) => f.edge === edge) ?? { edge, thickness: step.thickness },
            ),
          }),
        ),
        ...step.faces.map((own, i) =>
          length(wordsFor(own.edge, context), own.thickness, (thickness) => ({
            ...step,
            faces: step.faces.map((f, k) => (k === i ? { ...f, thickness } : f)),
          })),
        ),
        choice('Corners', step.corners, { sharp: 'sharp', round: 'round' }, (v) => ({
          ...step,
          corners: v as 'sharp',
        })),
        bodyField(step.body),
      ]
    case 'mirror':
      return mirrorFields(step, context)
    case 'move':
      return moveFields(step, context)
    case 'import':
      return [bodyField(step.body)]
    case 'mesh':
      return meshFields(step)
    case 'combine':
      return combineFields(step, context)
    case 'repeat':
      return [
        number('Number', step.count, (count) => ({ ...step, count })),
        length('Pitch', step.pitch, (pitch) => ({ ...step, pitch })),
        ...chosenSteps(step, context.part),
      ]
    case 'length':
      return [
        choice('End', step.end, endsOf(context.part), (v) => ({
          ...step,
          end: v as 'left',
        })),
        length('Length', step.length, (text) => ({ ...step, length: text })),
        bodyField(step.body),
      ]
    case 'holes':
      return holeFields(step, context)
    case 'flats':
      return flatFields(step, context)
    case 'slot':
      return slotFields(step)
    case 'extrude':
      return extrudeFields(step, context)
    case 'sweep':
      return sweepFields(step, context)
    case 'around':
      return aroundFields(step, context)
    case 'halve':
      return halveFields(step, context)
    case 'unknown':
      return []
  }
}

const isThrough = (step: BoreStep): boolean => step.upTo === '' && step.parts.at(-1)?.depth === ''

function tipFields(step: BoreStep): Field[] {
  return [
    choice('Tip', step.tip, { cone: 'cone', flat: 'flat' }, (v) => ({
      ...step,
      tip: v as 'cone',
    })),
    ...(step.tip === 'cone'
      ? [angle('Tip angle', step.tipAngle, (tipAngle) => ({ ...step, tipAngle }))]
      : []),
  ]
}

const WALL_SIDES = { outside: 'outside', inside: 'inside', middle: 'half on each', both: 'on both' }
const CORNERS = { sharp: 'sharp', round: 'round', bevelled: 'bevelled' }

function wordsFor(key: string, { before, part }: FieldContext): string {
  const edge = before && edgesOf(before.section).find((e) => edgeKey(e.name) === key)
  return edge ? faceWords(edge, part.units) : 'gone'
}
