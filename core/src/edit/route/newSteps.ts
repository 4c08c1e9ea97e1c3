import { lengthOf } from '../../geometry'
import {
  STEP_KINDS,
  hostOf,
  lengthText,
  offeredSizes,
  twoDigits,
  type OfferedKind,
} from '../../route'
import {
  combine,
  edgeKey,
  edgesOf,
  type Effect,
  type Section,
  type SectionEdge,
} from '../../section'
import type { UnitSettings } from '../../units'
import type { GrooveForm, NewStep } from '../../part'

/** A step of a kind as it is offered first; what it refers to is picked afterwards. */
export const offeredStep = (
  kind: OfferedKind,
  body: string,
  section: Section,
  lastStep: string | undefined,
  units: UnitSettings,
): NewStep => STEP_KINDS[kind].offer({ body, section, lastStep, units })

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

/** Ridges on a face as they are offered first: a dozen waves. */
export function offeredRidges(
  body: string,
  edge: SectionEdge,
  section: Section,
  units: UnitSettings,
): NewStep {
  const run = edgesOf(section).filter((e) => edgeKey(e.name) === edgeKey(edge.name))
  const length = run.reduce((sum, e) => sum + lengthOf(e.piece), 0)
  return {
    ...{ kind: 'ridges', body, on: edgeKey(edge.name), shape: 'wave', side: 'out' },
    ...{ by: 'count', count: '12', pitch: lengthText(twoDigits(length / 12), units), fade: '' },
    height: lengthText(twoDigits(length / 80), units),
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
