import { DIRECTION_TOLERANCE } from '../tolerances'
import { leftNormal, lengthOf, pointAt, radiusOf, vec, type Place, type Vec } from '../geometry'
import { edgeKey, edgesOf, liesOnAxis, type SectionEdge } from '../section'
import { formatAngle, formatLength, type UnitSettings } from '../units'
import type { StepState } from './state'

/** A size of a step where it stands on the section. */
export interface StepMark {
  readonly body: string
  /** On the half-section, turned into its plane. */
  readonly at: Vec
  /** On the solid, where that is somewhere else round the axis. */
  readonly inSpace?: Place
  readonly words: string
  /** Out of the material. */
  readonly out: Vec
  /** Of a full turn, the edge it is the size of. */
  readonly edge?: SectionEdge
}

/** More marks than this say nothing. */
const MOST_MARKS = 14

/**
 * The sizes of a step: those it tells itself, and those its own faces have as they stand after it:
 * diameters and widths, radii, bevels. Of what is drawn, the profile has the sizes.
 * Sizes that come more than once are told once for each place, the largest faces first.
 */
export function stepMarks(state: StepState, units: UnitSettings): readonly StepMark[] {
  const made = state.bodies.flatMap(({ bodyId, section }) =>
    edgesOf(section).flatMap((edge): StepMark[] => {
      if (edge.name.step !== state.stepId || edge.name.role !== 'made' || liesOnAxis(edge))
        return []
      const words = state.edgeWords.get(edgeKey(edge.name)) ?? sizeWords(edge, units)
      const inwards = leftNormal(edge.piece, 0.5)
      const out = { x: -inwards.x, y: -inwards.y }
      return words === '' ? [] : [{ body: bodyId, at: pointAt(edge.piece, 0.5), words, out, edge }]
    }),
  )
  const largest = (mark: StepMark): number => (mark.edge ? lengthOf(mark.edge.piece) : 0)
  const own = state.sizes.map(({ body, at, words }): StepMark => ({
    ...{ body, words, inSpace: at },
    ...{ at: vec(at.z, Math.hypot(at.x, at.y)), out: vec(0, 1) },
  }))
  return [...own, ...made.sort((a, b) => largest(b) - largest(a))].slice(0, MOST_MARKS)
}

function sizeWords({ piece }: SectionEdge, units: UnitSettings): string {
  const tell = (mm: number): string => formatLength(mm, units)
  if (piece.kind === 'arc') return `R${tell(radiusOf(piece))}`
  if (piece.kind === 'cubic') return ''
  const [along, across] = [Math.abs(piece.to.x - piece.from.x), Math.abs(piece.to.y - piece.from.y)]
  const flat = DIRECTION_TOLERANCE * (along + across)
  if (across <= flat) return `⌀${tell(2 * piece.from.y)} × ${tell(along)}`
  // A face square to the axis is told by the faces beside it.
  if (along <= flat) return ''
  return `${tell(along)} × ${formatAngle(Math.atan2(across, along), units)}`
}
