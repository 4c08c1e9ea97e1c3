import { hostOf, offeredSizes } from '../route'
import { combine, edgeKey, extentOf, type Effect, type Section, type SectionEdge } from '../section'
import type { UnitSettings } from '../units'
import { angleText, lengthText, proportion } from './proportion'
import { offeredFlats } from './newSolidSteps'
import type { NewStep } from './routeEdits'
import type { GrooveForm, StepKind } from '../part'

/** Kinds of steps that need nothing picked to begin with. */
export type OfferedKind = Exclude<
  StepKind,
  | 'revolve'
  | 'wall'
  | 'groove'
  | 'holes'
  | 'slot'
  | 'extrude'
  | 'sweep'
  | 'combine'
  | 'import'
  | 'mesh'
>

/** A step of a kind as it is offered first; what it refers to is picked afterwards. */
export function offeredStep(
  kind: OfferedKind,
  body: string,
  section: Section,
  lastStep: string | undefined,
  units: UnitSettings,
): NewStep {
  const small = proportion(section, 0.05, units)
  const pick = { kind: 'corners' as const, corners: [] }
  switch (kind) {
    case 'bore':
      return {
        ...{
          kind,
          body,
          end: 'left',
          parts: [{ diameter: proportion(section, 0.2, units), depth: '' }],
        },
        ...{
          upTo: '',
          tip: 'cone',
          tipAngle: angleText(118, units),
          sinkDiameter: '',
          sinkAngle: angleText(90, units),
        },
      }
    case 'fillet':
      return { kind, body, sets: [{ pick, radius: small }] }
    case 'chamfer':
      return { kind, body, sets: [{ pick, along: small, across: '', angle: angleText(45, units) }] }
    case 'shell':
      return {
        ...{ kind, body, side: 'inside', thickness: small, open: [], faces: [], corners: 'sharp' },
        follow: 'turn',
      }
    case 'mirror':
      return {
        ...{ kind, body, way: 'across', about: '', angle: '', into: body, steps: [] },
        at: lengthText(extentOf(section)[1], units),
      }
    case 'move': {
      const [from, to] = extentOf(section)
      const along = lengthText(to - from, units)
      return { kind, body, along, turn: '', beside: '', towards: '', into: body }
    }
    case 'repeat':
      return {
        ...{ kind, steps: lastStep === undefined ? [] : [lastStep], count: '2' },
        pitch: proportion(section, 0.2, units),
      }
    case 'flats':
      return offeredFlats(body, section, units)
    case 'around':
      return { kind, steps: lastStep === undefined ? [] : [lastStep], count: '3', range: '' }
    case 'halve':
      return { kind, body, angle: angleText(90, units), offset: '', into: '' }
    case 'length': {
      const [from, to] = extentOf(section)
      return { kind, body, end: 'right', length: lengthText(to - from, units) }
    }
  }
}

/** Two bodies put together; the second goes into the first. */
export const combineOf = (
  body: string,
  other: string,
  effect: 'add' | 'cut' | 'common',
): NewStep => ({ kind: 'combine', body, other, effect, keep: effect === 'cut' })

/** A groove of a form in an edge as it is offered first: in the middle of its face. */
export function offeredGroove(
  body: string,
  edge: SectionEdge,
  form: GrooveForm,
  units: UnitSettings,
): NewStep {
  return {
    ...{ kind: 'groove', body, on: edgeKey(edge.name), form },
    place: { from: 'middle', second: '', to: 'middle', distance: '' },
    sizes: offeredSizes(form, hostDiameter(edge), units),
    ...{ count: '1', pitch: '' },
  }
}

/** The diameter that the sizes of a standard groove go by. */
export function hostDiameter(edge: SectionEdge): number {
  const host = hostOf([edge])
  return 2 * (host?.origin.y ?? edge.piece.from.y)
}

/** The body that a turned section would join, or cut from: the first that it touches. */
export function bodyTouched(
  section: Section,
  bodies: readonly { readonly bodyId: string; readonly section: Section }[],
  effect: Effect,
): string | undefined {
  return bodies.find((b) => {
    if (b.section.regions.length === 0) return false
    if (effect !== 'add') return (combine(b.section, section, 'common')?.regions.length ?? 0) > 0
    const apart = b.section.regions.length + section.regions.length
    return (combine(b.section, section, 'add')?.regions.length ?? apart) < apart
  })?.bodyId
}
