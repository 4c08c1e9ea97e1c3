import {
  isAcross,
  type ExtrudeStep,
  type Part,
  type RevolveStep,
  type Step,
  type SweepStep,
} from '@lathica/core'
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

const SIDES = { one: 'one side', symmetric: 'evenly', both: 'both sides' }
const FACETS = { flats: 'the flats', corners: 'the corners' }

/** How a part turn goes, of profiles and of walls. */
interface PartTurn {
  readonly turn: string
  readonly turnTo: string
  readonly side: 'one' | 'both' | 'symmetric'
  readonly back: string
}

/** By which angle, to which side, or up to which plane. */
export function partTurnFields(
  own: PartTurn,
  part: Part,
  stepId: string,
  change: (to: Partial<PartTurn>) => Step,
): Field[] {
  const points = turnPoints(part)
  const toFace = own.turnTo.includes('/')
  const upTo = own.turnTo !== ''
  return [
    ...(upTo ? [] : [optionalAngle('Turn', own.turn, 'full', (turn) => change({ turn }))]),
    ...((own.turn.trim() === '' && !upTo) || toFace || Object.keys(points).length === 0
      ? []
      : [
          choice('Up to', own.turnTo, { '': 'its own angle', ...points }, (turnTo) =>
            change({ turnTo }),
          ),
        ]),
    ...((own.turn.trim() === '' && !upTo) || (upTo && !toFace) || !standsOnSolid(part, stepId)
      ? []
      : [
          faces(
            {
              ...{ label: 'Up to a face', accept: 'plane', many: false, solids: true },
              ...{ keys: toFace ? [own.turnTo] : [], none: 'by its own angle' },
            },
            ([turnTo = '']) => change({ turnTo }),
          ),
        ]),
    ...(upTo || own.turn.trim() === ''
      ? []
      : [
          choice('To', own.side, SIDES, (v) => change({ side: v as 'one' })),
          ...(own.side === 'both'
            ? [angle('Other side', own.back, (back) => change({ back }))]
            : []),
        ]),
  ]
}

/** The points of end sketches that a turn may go up to. */
const turnPoints = (part: Part): Record<string, string> =>
  Object.fromEntries(
    part.sketches
      .filter((s) => isAcross(s.plane))
      .flatMap((s) =>
        s.points.map((p, i) => [`${s.id}.${p.id}`, `point ${i + 1} of end sketch ${s.name}`]),
      ),
  )

/** Whether a step before made a solid with faces through the axis. */
const standsOnSolid = (part: Part, stepId: string): boolean =>
  part.route
    .slice(
      0,
      part.route.findIndex((s) => s.id === stepId),
    )
    .some((s) => ['revolve', 'wall', 'extrude', 'flats', 'halve', 'slot'].includes(s.kind))

/** How a turn that is no full round one goes. */
export function turnFields(step: RevolveStep, { part }: FieldContext): Field[] {
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

const REACHES = { length: 'by a length', through: 'through all', face: 'up to a face' }

export function extrudeFields(step: ExtrudeStep, { part }: FieldContext): Field[] {
  const drawn = part.sketches.find((s) => s.id === step.sketch)
  const isEnd = drawn !== undefined && isAcross(drawn.plane)
  return [
    choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
    bodyField(step.body, true),
    { kind: 'regions', label: 'Regions' },
    choice('Goes', step.reach, REACHES, (v) => ({
      ...step,
      reach: v as 'length',
    })),
    ...(step.reach === 'face'
      ? [
          faces(
            {
              ...{ label: 'Up to', accept: 'plane', many: false, solids: true },
              ...{ keys: step.upTo === '' ? [] : [step.upTo], none: 'none' },
            },
            ([upTo = '']) => ({ ...step, upTo }),
          ),
        ]
      : [choice('To', step.side, SIDES, (v) => ({ ...step, side: v as 'one' }))]),
    ...(step.reach === 'length'
      ? [
          length('Length', step.length, (text) => ({ ...step, length: text })),
          ...(step.side === 'both'
            ? [length('Other side', step.back, (back) => ({ ...step, back }))]
            : []),
        ]
      : []),
    ...(isEnd
      ? [
          faces(
            {
              ...{ label: 'On face', accept: 'plane', many: false, solids: true },
              ...{ keys: step.on === '' ? [] : [step.on], none: 'the plane at 0' },
            },
            ([on = '']) => ({ ...step, on }),
          ),
        ]
      : [optionalAngle('Plane at', step.plane, '0', (plane) => ({ ...step, plane }))]),
    length('Off it by', step.offset, (offset) => ({ ...step, offset }), { empty: '0' }),
    optionalAngle('Draft', step.draft, 'none', (draft) => ({ ...step, draft })),
  ]
}

const RODS = { round: 'round rod', bar: 'bar', sketch: 'as an end sketch shows' }

export function sweepFields(step: SweepStep, { part }: FieldContext): Field[] {
  const isBar = step.form === 'bar'
  const drawn = part.sketches.filter((s) => isAcross(s.plane))
  return [
    choice('Form', step.form, RODS, (v) => ({
      ...step,
      form: v as 'round',
      height: step.height === '' ? step.width : step.height,
      outline: step.outline === '' ? (drawn[0]?.id ?? '') : step.outline,
    })),
    ...(step.form === 'sketch'
      ? [
          choice(
            'Outline',
            step.outline,
            Object.fromEntries([
              ...(drawn.length === 0 ? [['', 'no end sketch yet']] : []),
              ...drawn.map((s) => [s.id, `end sketch ${s.name}`]),
            ]),
            (outline) => ({ ...step, outline }),
          ),
        ]
      : [
          length(isBar ? 'Width' : 'Diameter', step.width, (width) => ({ ...step, width }), {
            ...(isBar ? {} : { sign: '⌀' }),
          }),
        ]),
    ...(isBar
      ? [
          length('Height', step.height, (height) => ({ ...step, height })),
          length('Corners', step.corner, (corner) => ({ ...step, corner }), { empty: 'sharp' }),
        ]
      : []),
    choice('Stands', step.side, { one: 'on one side', mirrored: 'on both sides' }, (v) => ({
      ...step,
      side: v as 'one',
    })),
    choice('Effect', step.effect, { add: EFFECTS.add, cut: EFFECTS.cut }, (v) => ({
      ...step,
      effect: v as 'add',
    })),
    optionalAngle('Plane at', step.plane, '0', (plane) => ({ ...step, plane })),
    bodyField(step.body),
  ]
}
