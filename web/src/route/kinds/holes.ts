import { isEndSketch } from '@lathica/core/sketch'
import type { HolesStep, Part, Step } from '@lathica/core/part'
import {
  angle,
  bodyField,
  choice,
  faces,
  length,
  number,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import type { StepLooks, Telling } from './kind'

export const holes: StepLooks<HolesStep> = {
  title: (step) => (step.way === 'cross' ? 'Cross hole' : 'Holes'),
  row: rowWords,
  fields: holeFields,
}

/** What it made, in a few words. */
function rowWords(step: HolesStep, { figure, faceOf }: Telling): string {
  const count = {
    circle: () => Number(figure(step.count, 'number')) - step.skip.length,
    places: () => step.places.length,
    sketch: () => undefined,
  }[step.layout]()
  const many = count === 1 || count === undefined ? '' : `${count} × `
  const deep = step.reach === 'depth' ? ` × ${figure(step.depth)}` : ''
  const thread = step.thread.trim() === '' ? '' : ` ${step.thread}`
  const where =
    step.way === 'cross'
      ? ''
      : step.layout === 'circle'
        ? ` on ⌀${figure(step.circle)}`
        : ` in ${faceOf(step.on)}`
  return `${many}⌀${figure(step.diameter)}${deep}${thread}${where}`
}

const KEEP = { circle: 'on a pitch circle', places: 'at single places' }

/** The end sketches of a part by their ids. */
const endSketches = (part: Part): Record<string, string> =>
  Object.fromEntries(
    part.sketches.filter((s) => isEndSketch(s)).map((s) => [s.id, `end sketch ${s.name}`]),
  )

const HEADS = {
  none: 'none',
  counterbore: 'counterbore',
  countersink: 'countersink',
  spotface: 'spot face',
}

function holeFields(step: HolesStep, { part }: FieldContext): Field[] {
  const sketches = endSketches(part)
  const [firstSketch = ''] = Object.keys(sketches)
  const key = step.on === '' ? [] : [step.on]
  return [
    step.way === 'end'
      ? faces(
          { label: 'In face', accept: 'plane', many: false, keys: key, none: 'none', solids: true },
          ([on = '']) => ({ ...step, on }),
        )
      : faces(
          {
            label: 'From',
            accept: 'any',
            many: false,
            keys: step.from ? [step.from] : [],
            none: 'the left end',
          },
          ([from = '']) => ({ ...step, from }),
        ),
    ...(step.way === 'cross'
      ? [length('Distance', step.distance, (distance) => ({ ...step, distance }), { empty: '0' })]
      : [
          choice(
            'Lie',
            step.layout,
            { ...KEEP, ...(firstSketch === '' ? {} : { sketch: 'by an end sketch' }) },
            (v) => ({
              ...step,
              layout: v as 'circle',
              sketch: v === 'sketch' && step.sketch === '' ? firstSketch : step.sketch,
            }),
          ),
        ]),
    ...placing(step, sketches),
    length('Diameter', step.diameter, (diameter) => ({ ...step, diameter }), { sign: '⌀' }),
    choice('Goes', step.reach, REACHES[step.way], (v) => ({ ...step, reach: v as 'depth' })),
    ...(step.reach === 'depth'
      ? [
          length('Depth', step.depth, (depth) => ({ ...step, depth })),
          choice('Tip', step.tip, { cone: 'cone', flat: 'flat' }, (v) => ({
            ...step,
            tip: v as 'cone',
          })),
          ...(step.tip === 'cone'
            ? [angle('Tip angle', step.tipAngle, (tipAngle) => ({ ...step, tipAngle }))]
            : []),
        ]
      : []),
    choice('Head', step.head, HEADS, (v) => withHead(step, v as HolesStep['head'])),
    ...(step.head === 'none'
      ? []
      : [
          length(
            'Head diameter',
            step.headDiameter,
            (headDiameter) => ({ ...step, headDiameter }),
            {
              sign: '⌀',
            },
          ),
          step.head === 'countersink'
            ? angle('Head angle', step.headAngle, (headAngle) => ({ ...step, headAngle }))
            : length('Head depth', step.headDepth, (headDepth) => ({ ...step, headDepth })),
        ]),
    {
      kind: 'words',
      label: 'Thread',
      text: step.thread,
      empty: 'none',
      set: (thread) => ({ ...step, thread }),
    },
    bodyField(step.body),
  ]
}

/** Where holes lie, by the way that is told. */
function placing(step: HolesStep, sketches: Record<string, string>): Field[] {
  if (step.way === 'cross' || step.layout === 'circle') return roundFields(step)
  if (step.layout === 'places') return placeFields(step)
  return [choice('Sketch', step.sketch, sketches, (sketch) => ({ ...step, sketch }))]
}

/** A head comes with sizes in proportion, so that it can be seen at once. */
function withHead(step: HolesStep, head: HolesStep['head']): HolesStep {
  const filled = step.headDiameter !== '' ? step.headDiameter : `1.8*(${step.diameter})`
  const depth = step.headDepth !== '' ? step.headDepth : `0.5*(${step.diameter})`
  return head === 'none'
    ? { ...step, head }
    : { ...step, head, headDiameter: filled, headDepth: depth }
}

const REACHES = {
  end: { depth: 'to a depth', wall: 'through the wall', through: 'through all' },
  cross: {
    depth: 'to a depth',
    wall: 'through one wall',
    axis: 'to the axis',
    through: 'through all',
  },
}

function roundFields(step: HolesStep): Field[] {
  const skipped = step.skip.join(', ')
  return [
    ...(step.way === 'end'
      ? [length('Pitch circle', step.circle, (circle) => ({ ...step, circle }), { sign: '⌀' })]
      : []),
    number('Number', step.count, (count) => ({ ...step, count })),
    optionalAngle('First at', step.start, '0', (start) => ({ ...step, start })),
    optionalAngle('Over', step.range, 'all round', (range) => ({ ...step, range })),
    {
      ...{ kind: 'words', label: 'Left out', text: skipped, empty: 'none' },
      set: (text: string) => ({ ...step, skip: numbersIn(text) }),
    },
  ]
}

/** Whole numbers however they are parted; what is none is passed over. */
const numbersIn = (text: string): number[] =>
  text.split(/[^0-9]+/).flatMap((word) => (word === '' ? [] : [Number(word)]))

function placeFields(step: HolesStep): Field[] {
  return [
    ...step.places.flatMap((own, i): Field[] => {
      const change = (to: Partial<typeof own>): Step => ({
        ...step,
        places: step.places.map((p, k) => (k === i ? { ...p, ...to } : p)),
      })
      const without = { ...step, places: step.places.filter((_, k) => k !== i) }
      return [
        { kind: 'heading', label: `Place ${i + 1}`, remove: without },
        length('On', own.diameter, (diameter) => change({ diameter }), { sign: '⌀' }),
        angle('At angle', own.angle, (text) => change({ angle: text })),
      ]
    }),
    {
      ...{ kind: 'more', label: 'Another place' },
      step: {
        ...step,
        places: [...step.places, step.places.at(-1) ?? { diameter: step.circle, angle: '0' }],
      },
    },
  ]
}
