import { leftNormal, lengthOf, pointAt, radiusOf, type Vec } from '../geometry'
import { edgesOf, liesOnAxis, type SectionEdge } from '../section'
import { formatAngle, formatLength, type UnitSettings } from '../units'
import type { Step } from '../part'
import type { StepState } from './state'

/** A size of a step where it stands on the section. */
export interface StepMark {
  readonly body: string
  readonly at: Vec
  readonly words: string
  /** Out of the material. */
  readonly out: Vec
  /** Of a full turn, the edge it is the size of. */
  readonly edge?: SectionEdge
}

/** More marks than this say nothing. */
const MOST_MARKS = 14

/**
 * The sizes that a step's own faces have as they stand after it: diameters and widths, radii, bevels.
 * Sizes that come more than once are told once for each place, the largest faces first.
 */
export function stepMarks(state: StepState, units: UnitSettings, step?: Step): readonly StepMark[] {
  const made = state.bodies.flatMap(({ bodyId, section }) =>
    edgesOf(section).flatMap((edge): StepMark[] => {
      if (edge.name.step !== state.stepId || edge.name.role !== 'made' || liesOnAxis(edge))
        return []
      const words = sizeWords(edge, units)
      const inwards = leftNormal(edge.piece, 0.5)
      const out = { x: -inwards.x, y: -inwards.y }
      return words === '' ? [] : [{ body: bodyId, at: pointAt(edge.piece, 0.5), words, out, edge }]
    }),
  )
  const largest = (mark: StepMark): number => (mark.edge ? lengthOf(mark.edge.piece) : 0)
  return [...holeMarks(state, units, step), ...made.sort((a, b) => largest(b) - largest(a))].slice(
    0,
    MOST_MARKS,
  )
}

/** Holes by their diameters, and their thread as drawings tell it (ISO 6410-1), at the first of them. */
function holeMarks(state: StepState, units: UnitSettings, step: Step | undefined): StepMark[] {
  if (step?.kind !== 'holes') return []
  return state.bodies.flatMap(({ bodyId, plan }) =>
    (plan?.ops ?? []).flatMap((op): StepMark[] => {
      if (op.kind !== 'combine' || op.step !== state.stepId) return []
      const drills = op.tools.filter((t) => t.kind === 'turned')
      const [first] = drills
      if (!first) return []
      const radii = edgesOf(first.section).map(({ piece }) => piece.from.y)
      const least = Math.min(...radii.filter((r) => r > 1e-9))
      const many = drills.length > 1 ? `${drills.length} × ` : ''
      const thread = step.thread.trim()
      const words = `${many}${thread === '' ? `⌀${formatLength(2 * least, units)}` : thread}`
      const { x, y, z } = first.frame.at
      return [{ body: bodyId, at: { x: z, y: Math.hypot(x, y) }, words, out: { x: 0, y: 1 } }]
    }),
  )
}

function sizeWords({ piece }: SectionEdge, units: UnitSettings): string {
  const tell = (mm: number): string => formatLength(mm, units)
  if (piece.kind === 'arc') return `R${tell(radiusOf(piece))}`
  const [along, across] = [Math.abs(piece.to.x - piece.from.x), Math.abs(piece.to.y - piece.from.y)]
  const flat = 1e-9 * (along + across)
  if (across <= flat) return `⌀${tell(2 * piece.from.y)} × ${tell(along)}`
  // A face square to the axis is told by the faces beside it.
  if (along <= flat) return ''
  return `${tell(along)} × ${formatAngle(Math.atan2(across, along), units)}`
}
