import { VERTEX_TOLERANCE } from '../../tolerances'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityMap,
  isEndSketch,
  lineEnds,
  linesOf,
  locator,
  type Sketch,
} from '../../sketch'
import { solve, takingFreedoms, type SizeValues, type Solution } from '../../solver'
import { valuesOf, type Part } from '../../part'
import { settle, sketchStates } from '../../route'
import { withSketch } from '../command'
import { withConstraint } from './draft'
import { freeName, measureOffer, named, type SizeOffer } from './offers'
import type { NewConstraint } from '../../constraints'
import { takeId } from './ids'

/** Something that would take a freedom away: a size, or a constraint, with the length it concerns. */
export type Proposal =
  | { readonly kind: 'size'; readonly offer: SizeOffer; readonly extent: number }
  | { readonly kind: 'tie'; readonly tie: NewConstraint; readonly extent: number }

/** The most proposals made at once where nothing else is asked for: more than one would read. */
const MOST_PROPOSALS = 40

/**
 * What would finish a profile: sizes and constraints, each of which takes a freedom that those
 * before it leave. First what ties the profile to the datum, then the longest.
 * @param skipped keys of proposals that were turned down
 * @param most how many are made at most
 */
export function missingItems(
  part: Part,
  sketchId: string,
  skipped: ReadonlySet<string> = new Set(),
  most = MOST_PROPOSALS,
): readonly Proposal[] {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return []
  const values = new Map(valuesOf(part).sizesOf(sketchId).values)
  const now = solve(sketch, values)
  const candidates = candidatesOf(sketch).filter((c) => !skipped.has(proposalKey(c)))
  return (
    allAtOnce(sketch, values, candidates, now, most) ??
    oneByOne(sketch, values, candidates, now, most)
  )
}

/** Those that one elimination finds, where a solution with all of them confirms it. */
function allAtOnce(
  sketch: Sketch,
  values: SizeValues,
  candidates: readonly Proposal[],
  now: Solution,
  most: number,
): readonly Proposal[] | undefined {
  const start = { sketch, values: new Map(values) }
  const proposed = (items: readonly Proposal[]): typeof start =>
    items.reduce((here, p) => withProposal(here.sketch, p, here.values), start)
  const whole = proposed(candidates)
  const ids = candidates.map(
    (_, i) => `proposed${sketch.constraints.length + sketch.sizes.length + i}`,
  )
  const taking = new Set(takingFreedoms(whole.sketch, whole.values, ids))
  const chosen = candidates
    .filter((_, i) => taking.has(ids[i] ?? ''))
    .slice(0, Math.min(most, now.freedoms))
  const next = proposed(chosen)
  const { solved, freedoms, disagreements } = solve(next.sketch, next.values)
  const isConfirmed =
    solved &&
    freedoms === now.freedoms - chosen.length &&
    disagreements.length === now.disagreements.length
  return isConfirmed && chosen.length === Math.min(most, now.freedoms) ? chosen : undefined
}

function oneByOne(
  sketch: Sketch,
  given: SizeValues,
  candidates: readonly Proposal[],
  now: Solution,
  most: number,
): readonly Proposal[] {
  const values = new Map(given)
  const chosen: Proposal[] = []
  let here = sketch
  let { freedoms } = now
  for (const candidate of candidates) {
    if (freedoms === 0 || chosen.length >= most) break
    const next = withProposal(here, candidate, values)
    const solution = solve(next.sketch, next.values)
    const sound = solution.solved && solution.disagreements.length === now.disagreements.length
    if (!sound || solution.freedoms >= freedoms) continue
    freedoms = solution.freedoms
    here = next.sketch
    for (const [id, value] of next.values) values.set(id, value)
    chosen.push(candidate)
  }
  return chosen
}

/**
 * Takes proposals all at once, sizes with their formulas.
 * @returns undefined where they do not all hold together with what there is
 */
export function withProposals(
  part: Part,
  sketchId: string,
  items: readonly { readonly proposal: Proposal; readonly formula: string }[],
): Part | undefined {
  let next = part
  for (const { proposal, formula } of items) {
    const sketch = next.sketches.find((s) => s.id === sketchId)
    if (!sketch) return undefined
    if (proposal.kind === 'tie') {
      next = withSketch(next, withConstraint(sketch, proposal.tie).sketch)
      continue
    }
    const [id, grown] = takeId(sketch, 's')
    const size = named(proposal.offer, id, freeName(next, proposal.offer.kind), formula)
    next = withSketch(next, { ...grown, sizes: [...grown.sizes, size] })
  }
  const rested = settle(next)
  const solution = sketchStates(rested).get(sketchId)?.solution
  return solution?.solved === true && solution.disagreements.length === 0 ? rested : undefined
}

/** A name for a proposal that stays the same while the profile changes around it. */
export function proposalKey(proposal: Proposal): string {
  return JSON.stringify(proposal.kind === 'size' ? proposal.offer : proposal.tie)
}

function withProposal(
  sketch: Sketch,
  proposal: Proposal,
  values: SizeValues,
): { readonly sketch: Sketch; readonly values: Map<string, number> } {
  const id = `proposed${sketch.constraints.length + sketch.sizes.length}`
  const all = new Map(values)
  if (proposal.kind === 'tie') {
    const constraint = { ...proposal.tie, id } as Sketch['constraints'][number]
    return { sketch: { ...sketch, constraints: [...sketch.constraints, constraint] }, values: all }
  }
  all.set(id, measureOffer(sketch, proposal.offer))
  const size = named(proposal.offer, id, id, '')
  return { sketch: { ...sketch, sizes: [...sketch.sizes, size] }, values: all }
}

/** Everything worth proposing: nearly straight lines first, then sizes, the longest first. */
function candidatesOf(sketch: Sketch): Proposal[] {
  const entities = entityMap(sketch)
  const locate = locator(sketch)
  const ties: Proposal[] = []
  const sizes: Proposal[] = []
  const size = (offer: SizeOffer): void => {
    const extent = measureOffer(sketch, offer)
    if (extent > VERTEX_TOLERANCE) sizes.push({ kind: 'size', offer, extent })
  }
  const [first] = [...sketch.points].sort((p, q) => p.x - q.x)
  if (first) {
    const datum: NewConstraint = { kind: 'inLine', a: first.id, b: ORIGIN_ID, along: 'radial' }
    if (Math.abs(first.x) < VERTEX_TOLERANCE)
      ties.push({ kind: 'tie', tie: datum, extent: Infinity })
    else size({ kind: 'axialDistance', a: ORIGIN_ID, b: first.id })
  }
  for (const e of linesOf(sketch)) {
    const [a, b] = lineEnds(entities, locate, e.id)
    const extent = Math.hypot(b.x - a.x, b.y - a.y)
    const slope = Math.abs(Math.atan2(b.y - a.y, b.x - a.x)) % Math.PI
    const off = Math.min(slope, Math.PI - slope)
    if (off < 0.02) ties.push({ kind: 'tie', tie: { kind: 'axial', line: e.id }, extent })
    else if (Math.abs(off - Math.PI / 2) < 0.02) {
      ties.push({ kind: 'tie', tie: { kind: 'radial', line: e.id }, extent })
    } else size({ kind: 'angle', line: e.id, to: AXIS_ID, reversed: slope > Math.PI / 2 })
    if (e.role !== 'centre') size({ kind: 'length', line: e.id })
  }
  for (const e of sketch.entities) {
    if (e.kind === 'arc') size({ kind: 'radius', curve: e.id })
    if (e.kind === 'circle') size({ kind: 'curveDiameter', curve: e.id })
  }
  for (const p of sketch.points) {
    if (isEndSketch(sketch)) size({ kind: 'radialDistance', a: ORIGIN_ID, b: p.id })
    else size({ kind: 'diameter', point: p.id })
    size({ kind: 'axialDistance', a: ORIGIN_ID, b: p.id })
  }
  const longest = (a: Proposal, b: Proposal): number => b.extent - a.extent
  return [...ties.sort(longest), ...sizes.sort(longest)]
}
