import { edgeKey, edgesOf, type SectionEdge } from '@lathica/core/section'
import type { GrooveForm, GrooveStep, Step } from '@lathica/core/part'
import { GROOVE_FIELDS, measureOfSize, offeredSizes } from '@lathica/core/route'
import {
  choice,
  faces,
  length,
  number,
  type Field,
  type FieldContext,
  type ValueField,
} from '../steps/field'
import { timesOf } from './words'
import type { StepLooks } from './kind'

export const groove: StepLooks<GrooveStep> = {
  title: () => 'Groove',
  row: (step, { figure, faceOf }) => {
    const { width, depth, bottom, radius } = step.sizes
    const deep = bottom ? `⌀${figure(bottom)}` : `${figure(depth ?? '')} deep`
    const wide = width ? figure(width) : radius ? `R${figure(radius)}` : ''
    return `${timesOf(step.count, figure)}${wide ? `${wide}, ` : ''}${deep}, in ${faceOf(step.on)}`
  },
  fields: grooveFields,
}

const FORMS: Readonly<Record<GrooveForm, string>> = {
  rectangular: 'rectangular',
  round: 'round',
  vee: 'vee',
  belt: 'belt, trapezoid',
  rope: 'rope',
  oring: 'O-ring gland',
  retaining: 'retaining ring',
  relief: 'thread relief',
}

const SIZE_WORDS: Readonly<Record<string, string>> = {
  width: 'Width',
  depth: 'Depth',
  bottom: 'Bottom',
  radius: 'Radius',
  angle: 'Angle',
  flat: 'Flat',
}

/** The fields of a groove: its form, sizes, place and number. */
function grooveFields(step: GrooveStep, context: FieldContext): Field[] {
  const { place } = step
  const host = hostEdge(step, context)
  const isFace = host?.piece.kind === 'line' && Math.abs(host.piece.from.x - host.piece.to.x) < 1e-6
  const lying = context.part.lie === 'lying'
  const places = {
    middle: 'middle of its face',
    start: isFace ? 'inner end' : lying ? 'its left end' : 'its lower end',
    end: isFace ? 'outer end' : lying ? 'its right end' : 'its upper end',
    ...(isFace ? { axis: 'the axis, as ⌀' } : {}),
    pick: 'a picked face',
  }
  const fixed = ['middle', 'start', 'end', 'axis'].includes(place.from)
  const atMiddle = place.from === 'middle' && place.second === ''
  const change = (to: Partial<GrooveStep['place']>): Step => ({
    ...step,
    place: { ...place, ...to },
  })
  const size = (name: string): ValueField => {
    const optional = ['radius', 'flat', 'bottom'].includes(name)
    const needed = name === 'radius' && (step.form === 'round' || step.form === 'rope')
    const text = step.sizes[name] ?? ''
    return {
      kind: 'value',
      label: SIZE_WORDS[name] ?? name,
      want: measureOfSize(name),
      text,
      ...(name === 'bottom' ? { sign: '⌀' } : name === 'radius' ? { sign: 'R' } : {}),
      ...(name === 'depth' && step.sizes['bottom'] ? { empty: 'by the bottom' } : {}),
      ...(optional && !needed ? { empty: name === 'bottom' ? 'by depth' : 'none' } : {}),
      set: (next) => ({
        ...step,
        // Depth and bottom diameter tell the same; the one typed last is kept.
        sizes: {
          ...step.sizes,
          [name]: next,
          ...(name === 'depth' && next !== '' ? { bottom: '' } : {}),
        },
      }),
    }
  }
  return [
    choice('Form', step.form, FORMS, (v) => {
      const form = v as GrooveForm
      const diameter = host ? 2 * Math.min(host.piece.from.y, host.piece.to.y) : 20
      return { ...step, form, sizes: offeredSizes(form, diameter, context.part.units) }
    }),
    ...GROOVE_FIELDS[step.form].map(size),
    choice('From', fixed ? place.from : 'pick', places, (v) =>
      v === 'pick'
        ? change({
            from: '',
            to: place.to === 'middle' ? 'near' : place.to,
            distance: place.distance || '0',
          })
        : change({
            from: v,
            second: '',
            ...(v === 'middle' ? { to: 'middle', distance: '' } : {}),
            ...(v !== 'middle' && place.distance === '' ? { to: 'near', distance: '0' } : {}),
          }),
    ),
    ...(fixed
      ? []
      : [
          faces(
            {
              label: 'Shoulder',
              accept: 'face',
              many: false,
              keys: place.from === '' ? [] : [place.from],
              none: 'pick one',
            },
            ([from = '']) => change({ from }),
          ),
          faces(
            {
              label: 'Centred to',
              accept: 'face',
              many: false,
              keys: place.second === '' ? [] : [place.second],
              none: 'not centred',
            },
            ([second = '']) => change({ second }),
          ),
        ]),
    ...(atMiddle || place.second !== ''
      ? []
      : [
          length('Distance', place.distance, (distance) => change({ distance })),
          choice(
            'To its',
            place.to,
            { near: 'near side', middle: 'middle', far: 'far side' },
            (v) => change({ to: v as 'near' }),
          ),
        ]),
    number('Number', step.count, (count) => ({ ...step, count, pitch: step.pitch || '10' })),
    ...(step.count.trim() === '1'
      ? []
      : [length('Pitch', step.pitch, (pitch) => ({ ...step, pitch }))]),
    faces(
      { label: 'Face', accept: 'straight', many: false, keys: [step.on], none: 'pick one' },
      ([on = step.on]) => ({ ...step, on }),
    ),
  ]
}

const hostEdge = (step: GrooveStep, { before }: FieldContext): SectionEdge | undefined =>
  before && edgesOf(before.section).find((e) => edgeKey(e.name) === step.on)
