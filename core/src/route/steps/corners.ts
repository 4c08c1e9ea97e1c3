import { fail, succeed, type Result } from '../../result'
import {
  cornersCalled,
  cornersOf,
  edgeKey,
  finishCorners,
  madeFrom,
  type Corner,
  type CornerWork,
  type Section,
} from '../../section'
import { formatAngle, formatLength } from '../../units'
import { edgeCalled } from '../../names'
import type { EdgeOp, EdgesOf } from '../../solid'
import { cornerWords } from '../words'
import { changed, lost, material, told, worked, type Outcome, type StepContext } from './context'
import type { CornerPick } from '../../part'

export function finished<S extends { readonly pick: CornerPick }>(
  step: { readonly id: string; readonly body: string; readonly sets: readonly S[] },
  context: StepContext,
  workOf: (set: S) => Result<CornerWork>,
): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const solid = step.sets.filter((s) => isOfSolid(s.pick, context))
  if (solid.length > 0) return finishedSolid(step, solid, context, workOf)
  const sets: { corners: readonly Corner[]; work: CornerWork }[] = []
  const taken = new Set<Corner>()
  for (const set of step.sets) {
    const work = workOf(set)
    if (!work.ok) return work
    const picked = cornersPicked(before.value, set.pick)
    if (!picked.ok) return picked
    // A corner that two sets take belongs to the first.
    const corners = picked.value.filter((c) => !taken.has(c))
    for (const c of corners) taken.add(c)
    sets.push({ corners, work: work.value })
  }
  if (sets.length === 0) {
    return fail(
      'corner.none',
      'No corner is picked.',
      'Pick corners on the board, or choose a rule.',
    )
  }
  const done = finishCorners(before.value, sets, step.id)
  if (done.ok) {
    const outcome = changed(context, step.body, before.value, done.section)
    if (!outcome.ok) return outcome
    return succeed({ ...outcome.value, told: { edges: bevelWords(sets, step.id, context) } })
  }
  const { work } = sets.find((s) => s.corners.includes(done.corner)) ?? { work: undefined }
  const size = work?.kind === 'round' ? work.radius : (work?.size.along ?? 0)
  const what = work?.kind === 'round' ? 'radius' : 'leg'
  const mend =
    done.largest > 1e-4
      ? `The largest that fits is ${told(context, floored(done.largest))}.`
      : 'None fits here: pick other corners.'
  return fail(
    'corner.large',
    `A ${what} of ${told(context, size)} does not fit the ${cornerWords(done.corner, context.units)}.`,
    mend,
    { involves: [done.corner.key] },
  )
}

/**
 * What bevels are called: as they were asked for, one leg along the edge that runs more along the axis, and the
 * angle with it or the other leg. On a slanted land that is not what lies along the axis, and it is
 * what a gauge laid on the land measures.
 */
function bevelWords(
  sets: readonly { readonly corners: readonly Corner[]; readonly work: CornerWork }[],
  step: string,
  context: StepContext,
): ReadonlyMap<string, string> {
  const words = new Map<string, string>()
  const { units } = context
  for (const { corners, work } of sets) {
    if (work.kind !== 'bevel') continue
    const { size } = work
    const other =
      size.kind === 'angle' ? formatAngle(size.angle, units) : formatLength(size.across, units)
    for (const { arriving, leaving } of corners) {
      const name = madeFrom(step, 'bevel', arriving.name, leaving.name)
      words.set(edgeKey(name), `${formatLength(size.along, units)} × ${other}`)
    }
  }
  return words
}

/** Whether a rule means the edges of a step that is no full turn. */
const isOfSolid = (pick: CornerPick, context: StepContext): boolean =>
  pick.kind === 'solid' ||
  (pick.kind === 'step' && context.outcomeOf(pick.step)?.work !== undefined)

/** The edges where holes, flats and slots meet the rest of the solid. */
function finishedSolid<S extends { readonly pick: CornerPick }>(
  step: { readonly id: string; readonly body: string; readonly sets: readonly S[] },
  solid: readonly S[],
  context: StepContext,
  workOf: (set: S) => Result<CornerWork>,
): Result<Outcome> {
  if (solid.length < step.sets.length) {
    return fail(
      'corner.mixed',
      'Edges of holes, flats and slots go in a step of their own.',
      'Take the other edges out, and finish them in another step.',
    )
  }
  const sets: EdgeOp['sets'][number][] = []
  for (const set of solid) {
    const work = workOf(set)
    if (!work.ok) return work
    const of = edgesOfPick(set.pick)
    if (!of.ok) return of
    sets.push({ of: of.value, work: edgeWork(work.value) })
  }
  return worked(context, step.body, [{ kind: 'edges', step: step.id, sets }])
}

function edgesOfPick(pick: CornerPick): Result<EdgesOf> {
  if (pick.kind !== 'solid') {
    return succeed({ kind: 'step', step: pick.kind === 'step' ? pick.step : '' })
  }
  const edges = pick.edges.flatMap((key) => edgeCalled(key) ?? [])
  return edges.length > 0
    ? succeed({ kind: 'faces', edges })
    : fail('corner.none', 'No edge is picked.', 'Pick edges on the solid.')
}

function edgeWork(work: CornerWork): EdgeOp['sets'][number]['work'] {
  if (work.kind === 'round') return work
  const { size } = work
  const across = size.kind === 'legs' ? size.across : size.along * Math.tan(size.angle)
  return { kind: 'bevel', along: size.along, across }
}

/** Rounded down, so that what is told does fit. */
const floored = (value: number): number => Math.floor(value * 1e3) / 1e3

/** The corners that a set takes; a corner picked by name has to be there. */
function cornersPicked(section: Section, pick: CornerPick): Result<readonly Corner[]> {
  const some = (corners: readonly Corner[]): Result<readonly Corner[]> =>
    corners.length > 0
      ? succeed(corners)
      : fail('corner.none', 'No corner is of this kind.', 'Choose another rule, or pick corners.')
  switch (pick.kind) {
    case 'solid':
      return lost('The solid of these edges', ...pick.edges)
    case 'inside':
      return some(cornersOf(section).filter((c) => c.turn < 0))
    case 'outside':
      return some(cornersOf(section).filter((c) => c.turn > 0))
    case 'step':
      return some(
        cornersOf(section).filter(
          (c) => c.arriving.name.step === pick.step || c.leaving.name.step === pick.step,
        ),
      )
    case 'corners': {
      const found = cornersCalled(section, pick.corners)
      const gone = pick.corners.filter((key) => !found.some((c) => c.key === key))
      if (gone.length > 0) {
        return lost(gone.length === 1 ? 'A picked edge' : 'More than one picked edge', ...gone)
      }
      return pick.corners.length > 0
        ? succeed(found)
        : fail('corner.none', 'No corner is picked.', 'Pick corners on the board.')
    }
  }
}
