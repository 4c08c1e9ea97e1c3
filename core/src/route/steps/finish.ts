import { fail, succeed, type Result } from '../../result'
import {
  bevelCorner,
  cornersOf,
  roundCorner,
  shellOf,
  sectionArea,
  type ChamferSize,
  type Corner,
  type Finished,
  type Section,
} from '../../section'
import {
  changed,
  edgesNamed,
  lost,
  material,
  positive,
  told,
  type Outcome,
  type StepContext,
} from './context'
import type { ChamferStep, CornerPick, FilletStep, ShellStep } from '../../part'

/** Rounds corners, set after set. */
export function fillet(step: FilletStep, context: StepContext): Result<Outcome> {
  return finished(step, context, (set) => {
    const radius = positive(context, set.radius, 'length', 'radius')
    if (!radius.ok) return radius
    return succeed({
      what: `A radius of ${told(context, radius.value)}`,
      apply: (section, corner) => roundCorner(section, corner, radius.value, step.id),
    })
  })
}

/** Bevels corners, set after set. */
export function chamfer(step: ChamferStep, context: StepContext): Result<Outcome> {
  return finished(step, context, (set) => {
    const along = positive(context, set.along, 'length', 'leg')
    if (!along.ok) return along
    const byAngle = set.across.trim() === ''
    const other = byAngle
      ? positive(context, set.angle, 'angle', 'angle')
      : positive(context, set.across, 'length', 'other leg')
    if (!other.ok) return other
    const size: ChamferSize = byAngle
      ? { kind: 'angle', along: along.value, angle: other.value }
      : { kind: 'legs', along: along.value, across: other.value }
    return succeed({
      what: `A leg of ${told(context, along.value)}`,
      apply: (section, corner) => bevelCorner(section, corner, size, step.id),
    })
  })
}

interface Finishing {
  /** The size in words, to begin a sentence with. */
  readonly what: string
  readonly apply: (section: Section, corner: Corner) => Finished
}

function finished<S extends { readonly pick: CornerPick }>(
  step: { readonly id: string; readonly body: string; readonly sets: readonly S[] },
  context: StepContext,
  finishingOf: (set: S) => Result<Finishing>,
): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  let here = before.value
  for (const set of step.sets) {
    const finishing = finishingOf(set)
    if (!finishing.ok) return finishing
    const keys = cornersPicked(before.value, set.pick)
    if (!keys.ok) return keys
    for (const key of keys.value) {
      const corner = cornersOf(here).find((c) => c.key === key)
      if (!corner) continue
      const done = finishing.value.apply(here, corner)
      if (!done.ok) {
        const mend =
          done.largest > 1e-4
            ? `The largest that fits is ${told(context, floored(done.largest))}.`
            : 'None fits here: pick other corners.'
        return fail('corner.large', `${finishing.value.what} does not fit this corner.`, mend, {
          involves: [key],
        })
      }
      here = done.section
    }
  }
  if (step.sets.length === 0) {
    return fail(
      'corner.none',
      'No corner is picked.',
      'Pick corners on the board, or choose a rule.',
    )
  }
  return changed(context, step.body, before.value, here)
}

/** Rounded down, so that what is told does fit. */
const floored = (value: number): number => Math.floor(value * 1e3) / 1e3

/** The keys of the corners that a set takes; a corner picked by name has to be there. */
export function cornersPicked(section: Section, pick: CornerPick): Result<readonly string[]> {
  const all = cornersOf(section)
  const keysOf = (corners: readonly Corner[]): Result<readonly string[]> =>
    corners.length > 0
      ? succeed(corners.map((c) => c.key))
      : fail('corner.none', 'No corner is of this kind.', 'Choose another rule, or pick corners.')
  switch (pick.kind) {
    case 'inside':
      return keysOf(all.filter((c) => c.turn < 0))
    case 'outside':
      return keysOf(all.filter((c) => c.turn > 0))
    case 'step':
      return keysOf(
        all.filter((c) => c.arriving.name.step === pick.step || c.leaving.name.step === pick.step),
      )
    case 'corners': {
      const gone = pick.corners.filter((key) => !all.some((c) => c.key === key))
      if (gone.length > 0) {
        const what = gone.length === 1 ? 'A picked corner' : `${gone.length} picked corners`
        const told = lost(what, ...gone)
        if (gone.length === 1 || told.ok) return told
        return { ...told, problem: { ...told.problem, message: `${what} are no longer there.` } }
      }
      return pick.corners.length > 0
        ? succeed(pick.corners)
        : fail('corner.none', 'No corner is picked.', 'Pick corners on the board.')
    }
  }
}

/** Hollows a body out, or lays a wall round it. */
export function shell(step: ShellStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const thickness = positive(context, step.thickness, 'length', 'thickness')
  if (!thickness.ok) return thickness
  const faces = new Map<string, number>()
  for (const { edge, thickness: own } of step.faces) {
    const value = positive(context, own, 'length', 'thickness of a face')
    if (!value.ok) return value
    faces.set(edge, value.value)
  }
  const gone = [...step.open, ...faces.keys()].filter(
    (key) => edgesNamed(before.value, key).length === 0,
  )
  if (gone.length > 0) return lost('A face of this shell', ...gone)
  const after = shellOf(before.value, {
    step: step.id,
    side: step.side,
    thickness: thickness.value,
    open: new Set(step.open),
    faces,
    corners: step.corners,
  })
  const area = sectionArea(before.value)
  const nothingLeft = after && step.side === 'inside' && sectionArea(after) > area * (1 - 1e-9)
  if (nothingLeft === true) {
    return fail(
      'shell.thick',
      `A wall of ${told(context, thickness.value)} leaves no hollow.`,
      'Type a smaller thickness.',
    )
  }
  return changed(context, step.body, before.value, after)
}
