import { line, stretch, type Vec } from '../../geometry'
import { AXIS_ID, type SketchPlane } from '../../sketch'
import { NO_AREAS, areasOf, type Areas } from './areas'
import { arrange } from '../engine/arrangement'
import { facesOf, singleEnds, solidFaces, together } from './faces'
import { axisFaults, meetingsAmong, zeroLengthFaults } from './health'
import { withoutLooseEnds } from './looseEnds'
import { EMPTY_SECTION, type ProfileFault, type Section, type SectionEdge } from '../types'

/** What drawn edges enclose, and what keeps them from enclosing it. */
export interface Profile {
  readonly section: Section
  readonly faults: readonly ProfileFault[]
  /** What the edges part the plane into; found when it is first asked for. */
  readonly areas: () => Areas
}

/**
 * Finds the material that drawn edges enclose. Ends on the axis are joined along it. A closed outline
 * inside another is a hole, on the axis as off it; lines that only divide material leave no edge, and
 * may end on others. With crossings or edges below the axis there is no material, but faults that say
 * so.
 * @param step the step whose name the edges carry
 * @param plane of a sketch square to the axis nothing is joined along it, and all of it counts
 */
export function profileOf(
  drawn: readonly SectionEdge[],
  step: string,
  plane: SketchPlane = 'half',
): Profile {
  const zero = zeroLengthFaults(drawn)
  const useless = new Set(zero.flatMap((f) => f.entities))
  const usable = drawn.filter((e) => !useless.has(e.name.entity))
  const isHalf = plane === 'half'
  const { faults: crossing, cuts } = meetingsAmong(usable)
  const broken = [...(isHalf ? axisFaults(usable) : []), ...crossing]
  if (broken.length > 0)
    return { section: EMPTY_SECTION, faults: [...zero, ...broken], areas: () => NO_AREAS }
  const edges = cuts.size === 0 ? usable : usable.flatMap((e) => parted(e, cuts.get(e)))
  const drawing = arrange(edges)
  const { kept, faults } = withoutLooseEnds(drawing, isHalf)
  const hanging = kept.length === edges.length ? drawing : arrange(kept)
  const between = isHalf ? closing(singleEnds(hanging), step) : []
  const faces = facesOf(between.length === 0 ? hanging : arrange([...kept, ...between]))
  const solid = solidFaces(faces)
  const section = together(faces, solid)
  let areas: Areas | undefined
  return {
    section,
    faults: [...zero, ...faults],
    areas: () => (areas ??= areasOf(faces, solid, section)),
  }
}

/** An edge in the stretches between places on it. */
function parted(edge: SectionEdge, places: readonly Vec[] | undefined): SectionEdge[] {
  if (!places) return [edge]
  const { piece, name } = edge
  const stops = [piece.from, ...places, piece.to]
  return stops
    .slice(1)
    .map((to, i) => ({ piece: stretch(piece, stops[i] ?? piece.from, to), name }))
}

/** Edges along the axis from end to end. */
const closing = (ends: readonly Vec[], step: string): SectionEdge[] =>
  ends.slice(1).map((to, i) => ({
    piece: line(ends[i] ?? to, to),
    name: { step, entity: AXIS_ID, role: 'axis' },
  }))
