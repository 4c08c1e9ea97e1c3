import { LENGTH_ROUNDING } from '../../../tolerances'
import { copyMark } from '../../../names'
import { fail, succeed, type Result } from '../../../result'
import { line, vec } from '../../../geometry'
import type { Section } from '../../../section'
import { outlineOf, turnedTool, type SolidTool } from '../../../solid'
import type { HolesStep } from '../../../part'
import {
  coneDepth,
  material,
  positive,
  told,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import { holeGrips } from './grips'
import { crossSites, endSites } from './sites'
import { holeSizes, holeThreads, type Head, type Site } from './words'

/** Drills holes along the axis beside it, or across it from outside. */
export function holes(step: HolesStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const diameter = positive(context, step.diameter, 'length', 'diameter')
  if (!diameter.ok) return diameter
  const head = headOf(step, context, diameter.value)
  if (!head.ok) return head
  const widest = Math.max(diameter.value, head.value?.diameter ?? 0)
  const sites =
    step.way === 'end'
      ? endSites(step, context, before.value, diameter.value)
      : crossSites(step, context, before.value, diameter.value)
  if (!sites.ok) return sites
  const tip = tipOf(step, context, diameter.value)
  if (!tip.ok) return tip
  const tools: SolidTool[] = []
  for (const site of sites.value.all) {
    const outline = drillOf(step, site, diameter.value / 2, head.value, tip.value)
    if (!outline.ok) return outline
    const mark = sites.value.all.length > 1 ? copyMark(site.number) : ''
    tools.push(turnedTool(outline.value, site.frame, mark))
  }
  const all = sites.value.all
  const threads = holeThreads(step, all, head.value)
  const bare = threads.some((t) => 2 * t.radius <= diameter.value)
  const notes = [
    ...sites.value.notes,
    ...overlapNotes(step, all, widest, context),
    ...(bare
      ? [
          `Holes of ⌀${told(context, diameter.value)} leave nothing to cut ${step.thread.trim()} into.`,
        ]
      : []),
  ]
  return worked(context, step.body, [{ kind: 'combine', step: step.id, effect: 'cut', tools }], {
    notes,
    told: {
      sizes: holeSizes(step, context, all, diameter.value, head.value),
      ...{ threads, grips: holeGrips(step, context, all) },
    },
  })
}

function headOf(step: HolesStep, context: StepContext, diameter: number): Result<Head | undefined> {
  if (step.head === 'none') return succeed(undefined)
  const wide = positive(context, step.headDiameter, 'length', `diameter of the ${step.head}`)
  if (!wide.ok) return wide
  if (wide.value <= diameter) {
    return fail(
      'holes.head',
      `The ${step.head} is no wider than the hole.`,
      `Type more than ${told(context, diameter)}.`,
    )
  }
  if (step.head !== 'countersink') {
    const depth = positive(context, step.headDepth, 'length', `depth of the ${step.head}`)
    return depth.ok ? succeed({ kind: step.head, diameter: wide.value, depth: depth.value }) : depth
  }
  const flat = fail(
    'holes.sink',
    'A countersink is sharper than 180°.',
    'Take a counterbore instead.',
  )
  const deeper = (wide.value - diameter) / 2
  const depth = coneDepth(context, step.headAngle, 'angle of the countersink', deeper, flat)
  if (!depth.ok) return depth
  return succeed({ kind: 'countersink', diameter: wide.value, depth: depth.value })
}

function tipOf(step: HolesStep, context: StepContext, diameter: number): Result<number> {
  if (step.reach !== 'depth' || step.tip === 'flat') return succeed(0)
  const flat = fail('holes.tip', 'A tip is sharper than 180°.', 'Choose a flat bottom instead.')
  return coneDepth(context, step.tipAngle, 'angle of the tip', diameter / 2, flat)
}

/** The outline that is turned about the hole's own axis, from its mouth in. */
function drillOf(
  step: HolesStep,
  { depth, blind, back }: Site,
  radius: number,
  head: Head | undefined,
  tip: number,
): Result<Section> {
  if (head && head.depth >= depth) {
    return fail(
      'holes.headDeep',
      `The ${head.kind} is as deep as the hole.`,
      'Drill deeper, or make its head shallower.',
    )
  }
  const wide = head ? head.diameter / 2 : radius
  // What stands beside the mouth of a spot face is cleared to its whole width.
  const out = head?.kind === 'spotface' ? Math.max(back, head.diameter) : back
  const corners = [
    { at: vec(-out, 0), name: 'axis' },
    { at: vec(-out, wide), name: 'mouth' },
    ...(head
      ? [
          ...(out > 0 || head.kind !== 'countersink' ? [{ at: vec(0, wide), name: 'head' }] : []),
          ...(head.kind === 'countersink' ? [] : [{ at: vec(head.depth, wide), name: 'head' }]),
          { at: vec(head.depth, radius), name: head.kind === 'countersink' ? 'sink' : 'seat' },
        ]
      : []),
    { at: vec(depth, radius), name: 'wall' },
    { at: vec(depth + (blind ? tip : 0), 0), name: tip > 0 ? 'tip' : 'floor' },
  ]
  const distinct = corners.filter((c, i) => {
    const before = corners[i - 1]
    return !before || Math.hypot(c.at.x - before.at.x, c.at.y - before.at.y) > LENGTH_ROUNDING
  })
  // Each corner is named after the edge that leads to it; the last edge lies on the axis.
  const pieces = distinct.map((c, i) => {
    const next = distinct[(i + 1) % distinct.length] ?? c
    return { piece: line(c.at, next.at), name: next.name }
  })
  return succeed(outlineOf(step.id, [...pieces].reverse().map(backwards)))
}

/** Run the other way round: material of a tool lies left of its outline, as of a section. */
const backwards = (item: {
  readonly piece: ReturnType<typeof line>
  readonly name: string
}): typeof item => ({ ...item, piece: line(item.piece.to, item.piece.from) })

function overlapNotes(
  step: HolesStep,
  sites: readonly Site[],
  widest: number,
  context: StepContext,
): string[] {
  const near = sites.some((a, i) =>
    sites.slice(i + 1).some((b) => {
      const [p, q] = [a.frame.at, b.frame.at]
      return Math.hypot(p.x - q.x, p.y - q.y, p.z - q.z) < widest - LENGTH_ROUNDING
    }),
  )
  return near && step.way === 'end'
    ? [`The holes run into one another: they are ${told(context, widest)} wide.`]
    : []
}
