import { edgeKey, edgesOf } from '@lathica/core/section'
import type { ShellStep } from '@lathica/core/part'
import { faceWords } from '@lathica/core/route'
import { bodyField, choice, faces, length, type FieldContext } from '../steps/field'
import type { StepLooks } from './kind'

export const shell: StepLooks<ShellStep> = {
  title: () => 'Shell',
  row: (step, { figure, faceOf }) => {
    const way = step.side === 'inside' ? 'inwards' : 'outwards'
    const open = step.open.length === 0 ? 'closed' : `open at ${step.open.map(faceOf).join(', ')}`
    return `${figure(step.thickness)} ${way}, ${open}`
  },
  fields: (step, context) => [
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
          (edge) => step.faces.find((f) => f.edge === edge) ?? { edge, thickness: step.thickness },
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
  ],
}

function wordsFor(key: string, { before, part }: FieldContext): string {
  const edge = before && edgesOf(before.section).find((e) => edgeKey(e.name) === key)
  return edge ? faceWords(edge, part.units) : 'gone'
}
