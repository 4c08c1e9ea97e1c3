import {
  isAcross,
  type AroundStep,
  type FlatsStep,
  type HalveStep,
  type HolesStep,
  type Part,
  type SlotStep,
  type Step,
} from '@lathica/core'
import {
  NEW_BODY,
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

const KEEP = { circle: 'on a pitch circle', places: 'at single places' }

/** The end sketches of a part by their ids. */
const endSketches = (part: Part): Record<string, string> =>
  Object.fromEntries(
    part.sketches.filter((s) => isAcross(s.plane)).map((s) => [s.id, `end sketch ${s.name}`]),
  )
const HEADS = {
  none: 'none',
  counterbore: 'counterbore',
  countersink: 'countersink',
  spotface: 'spot face',
}

export function holeFields(step: HolesStep, { part }: FieldContext): Field[] {
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

export function flatFields(step: FlatsStep, { part }: FieldContext): Field[] {
  return [
    number('Number', step.count, (count) => ({ ...step, count })),
    choice('Told', step.measure, { across: 'across flats', depth: 'by depth' }, (v) => ({
      ...step,
      measure: v as 'across',
    })),
    length(step.measure === 'across' ? 'Across' : 'Depth', step.size, (size) => ({
      ...step,
      size,
    })),
    choice('From', step.end, endsOf(part), (v) => ({ ...step, end: v as 'left' })),
    length('Begin at', step.distance, (distance) => ({ ...step, distance }), { empty: 'the end' }),
    length('Length', step.length, (text) => ({ ...step, length: text }), { empty: 'to the other' }),
    optionalAngle('At angle', step.phase, '0', (phase) => ({ ...step, phase })),
    bodyField(step.body),
  ]
}

export function slotFields(step: SlotStep): Field[] {
  const isEnd = step.form === 'end'
  return [
    faces(
      {
        label: isEnd ? 'In face' : 'In cylinder',
        accept: isEnd ? 'plane' : 'straight',
        many: false,
        keys: [step.on],
        none: 'none',
        ...(isEnd ? { solids: true as const } : {}),
      },
      ([on = '']) => ({ ...step, on }),
    ),
    ...(isEnd
      ? []
      : [
          faces(
            {
              ...{ label: 'From', accept: 'plane', many: false },
              ...{ keys: step.from ? [step.from] : [], none: 'its left end' },
            },
            ([from = '']) => ({ ...step, from }),
          ),
          length('Distance', step.distance, (distance) => ({ ...step, distance }), { empty: '0' }),
        ]),
    length('Width', step.width, (width) => ({ ...step, width })),
    length('Depth', step.depth, (depth) => ({ ...step, depth })),
    ...(step.form === 'woodruff'
      ? [length('Cutter', step.cutter, (cutter) => ({ ...step, cutter }), { sign: '⌀' })]
      : [
          length('Length', step.length, (text) => ({ ...step, length: text }), {
            ...(isEnd ? { empty: 'right across' } : {}),
          }),
        ]),
    ...(step.form === 'keyway'
      ? [
          choice('Ends', step.ends, { round: 'round', square: 'square' }, (v) => ({
            ...step,
            ends: v as 'round',
          })),
        ]
      : []),
    number('Number', step.count, (count) => ({ ...step, count })),
    optionalAngle('First at', step.phase, '0', (phase) => ({ ...step, phase })),
    bodyField(step.body),
  ]
}

const TURNED = ['revolve', 'wall', 'groove', 'bore'] as const
const MILLED = ['holes', 'flats', 'slot', 'extrude', 'sweep', 'import'] as const

/** Steps before this one that can be done again. */
const KINDS: Readonly<Record<'around' | 'repeat' | 'mirror', readonly string[]>> = {
  around: [...MILLED, 'revolve', 'wall', 'mirror'],
  repeat: [...TURNED, 'mirror', 'around', ...MILLED],
  mirror: [...TURNED, 'around', ...MILLED],
}

/** Rounds and bevels of edges of the solid go with the steps that made those. */
function finishesSolid(step: Step, part: Part): boolean {
  if (step.kind !== 'fillet' && step.kind !== 'chamfer') return false
  const kindOf = (id: string): string => part.route.find((s) => s.id === id)?.kind ?? ''
  return step.sets.some(
    ({ pick }) =>
      pick.kind === 'solid' ||
      (pick.kind === 'step' && [...MILLED, 'around', 'mirror'].includes(kindOf(pick.step))),
  )
}

/** Which earlier steps are done again. */
export function chosenSteps(
  step: AroundStep | Extract<Step, { kind: 'repeat' | 'mirror' }>,
  part: Part,
): Field[] {
  const at = part.route.findIndex((s) => s.id === step.id)
  return part.route
    .slice(0, at)
    .filter((s) => KINDS[step.kind].includes(s.kind) || finishesSolid(s, part))
    .map((s) =>
      choice(
        `${s.number} ${s.kind}`,
        step.steps.includes(s.id) ? 'yes' : 'no',
        step.kind === 'mirror' ? { yes: 'mirrored', no: 'stays' } : { yes: 'repeated', no: 'once' },
        (v) => ({
          ...step,
          steps: v === 'yes' ? [...step.steps, s.id] : step.steps.filter((id) => id !== s.id),
        }),
      ),
    )
}

export function aroundFields(step: AroundStep, { part }: FieldContext): Field[] {
  return [
    number('Number', step.count, (count) => ({ ...step, count })),
    optionalAngle('Over', step.range, 'all round', (range) => ({ ...step, range })),
    ...chosenSteps(step, part),
  ]
}

export function halveFields(step: HalveStep, { part }: FieldContext): Field[] {
  const others = part.bodies.filter((b) => b.id !== step.body)
  return [
    optionalAngle('Keeps side at', step.angle, '0', (text) => ({ ...step, angle: text })),
    length('Plane out by', step.offset, (offset) => ({ ...step, offset }), { empty: 'the axis' }),
    choice(
      'Other half',
      step.into,
      {
        '': 'goes',
        ...Object.fromEntries(others.map((b) => [b.id, `makes ${b.name}`])),
        [NEW_BODY]: 'makes a new body',
      },
      (into) => ({ ...step, into }),
    ),
    bodyField(step.body),
  ]
}

/** The ends of a part as it lies. */
export const endsOf = (part: Part): Readonly<Record<'left' | 'right', string>> =>
  part.lie === 'lying'
    ? { left: 'the left', right: 'the right' }
    : { left: 'below', right: 'above' }
