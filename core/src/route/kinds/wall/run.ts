import { LENGTH_ROUNDING } from '../../../tolerances'
import { fail, type Result } from '../../../result'
import { leftNormal, lengthOf, type Piece } from '../../../geometry'
import { wallOf } from '../../../section'
import { inProportion, positive, type Outcome, type StepContext } from '../../steps/context'
import type { WallStep } from '../../../part'
import { isSolidTurn, solidTurn } from '../../steps/turning'
import { applied, chainOfStep } from '../../steps/profile'

/** Turns an open chain, thickened to a wall. */
export function wall(step: WallStep, context: StepContext): Result<Outcome> {
  const chain = chainOfStep(step, context)
  if (!chain.ok) return chain
  const { edges, sketch } = chain.value
  const thickness = positive(context, step.thickness, 'length', 'thickness')
  if (!thickness.ok) return thickness
  const inner =
    step.side === 'both' ? positive(context, step.inner, 'length', 'thickness inside') : thickness
  if (!inner.ok) return inner
  const fits = inProportion(Math.max(thickness.value, inner.value), edges)
  if (!fits.ok) return fits
  const [outside, inside] = shares(step.side, thickness.value, inner.value)
  const leftIsOutside = facesOut(edges.map((e) => e.piece))
  const made = wallOf(edges, {
    step: step.id,
    left: leftIsOutside ? outside : inside,
    right: leftIsOutside ? inside : outside,
    corners: step.corners,
    ends: step.ends,
  })
  if (!made || made.regions.length === 0) {
    return fail(
      'wall.none',
      'A wall of this thickness does not come about here.',
      'Type a smaller thickness, or let it lie on the other side.',
    )
  }
  const { id, effect, body, turn, turnTo, turnSide, back, phase } = step
  const turning = {
    ...{ id, effect, body, axis: 'axis', turn, turnTo, side: turnSide, back, phase },
    ...({ facets: '', facetTo: 'flats' } as const),
  }
  return isSolidTurn(turning)
    ? solidTurn(turning, context, made, sketch)
    : applied(step, context, made)
}

function shares(side: WallStep['side'], t: number, inner: number): readonly [number, number] {
  switch (side) {
    case 'outside':
      return [t, 0]
    case 'inside':
      return [0, t]
    case 'middle':
      return [t / 2, t / 2]
    case 'both':
      return [t, inner]
  }
}

/** Whether the left of a chain is its side away from the axis; of radial lines, the left end's side. */
function facesOut(pieces: readonly Piece[]): boolean {
  const sum = pieces.reduce(
    (total, piece) => {
      const normal = leftNormal(piece, 0.5)
      const length = lengthOf(piece)
      return { x: total.x + normal.x * length, y: total.y + normal.y * length }
    },
    { x: 0, y: 0 },
  )
  return Math.abs(sum.y) > LENGTH_ROUNDING ? sum.y > 0 : sum.x < 0
}
