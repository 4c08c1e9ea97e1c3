import { formatLength, type UnitSettings } from '@lathica/core/units'
import { radiusOf, sweepOf } from '@lathica/core/geometry'
import type { SectionEdge } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import {
  faceWords,
  cornerWords,
  poleWords,
  solidEdgeWords,
  solidFaceWords,
  type BodyState,
} from '@lathica/core/route'
import { areaWords, type SectionRef } from '../board/refs'
import type { Display, ViewName } from '../store/look'

export const DISPLAY_WORDS: Readonly<Record<Display, string>> = {
  shaded: 'shaded',
  edged: 'with edges',
  hidden: 'hidden lines',
  edges: 'edges only',
  glassy: 'see-through',
  studio: 'studio',
  stripes: 'stripes',
}

/** What a standard view is called: a standing part's ends are its top and bottom. */
export function viewWords(view: ViewName, lie: 'lying' | 'standing'): { readonly words: string } {
  const lying: Readonly<Record<ViewName, string>> = {
    front: 'from the front',
    end: 'right end',
    otherEnd: 'left end',
    top: 'from above',
    threeQuarter: 'three-quarter, from the right',
    otherThreeQuarter: 'three-quarter, from the left',
  }
  const standing: Partial<Record<ViewName, string>> = {
    end: 'upper end',
    otherEnd: 'lower end',
    top: 'from the side',
    threeQuarter: 'three-quarter, from above',
    otherThreeQuarter: 'three-quarter, from below',
  }
  return { words: (lie === 'standing' ? standing[view] : undefined) ?? lying[view] }
}

/** A body, or a face, edge or point with its size and the step it is from: “cylinder ⌀40 × 22, from step 10”. */
export function refWords(
  { body, key, edge, corner, pole, rim, whole, solidFace, area }: Partial<SectionRef>,
  { bodies, route, units }: Pick<Part, 'bodies' | 'route' | 'units'>,
  standing: readonly BodyState[] = [],
): string {
  if (area !== undefined) return areaWords(area)
  if (whole) return bodies.find((b) => b.id === body)?.name ?? 'body'
  if (corner) return cornerWords(corner, units)
  if (pole) return poleWords(pole, units)
  if (rim) return solidEdgeWords(key ?? '', { route, units }, standing)
  if (solidFace !== undefined) return solidFaceWords(solidFace, route)
  if (!edge) return ''
  const step = route.find((s) => s.id === edge.name.step)
  const from = step ? `, from step ${step.number}` : ''
  return `${faceWords(edge, units)}${reachWords(edge, units)}${from}`
}

/** How far a face goes: along the axis, or for a flat one its inner diameter. */
function reachWords({ piece }: SectionEdge, units: UnitSettings): string {
  const tell = (mm: number): string => formatLength(mm, units)
  if (piece.kind === 'arc') {
    const degrees = (Math.abs(sweepOf(piece)) * 180) / Math.PI
    return radiusOf(piece) > 0 ? ` over ${Number(degrees.toFixed(1))}°` : ''
  }
  const length = Math.abs(piece.to.x - piece.from.x)
  if (piece.kind === 'cubic') return `, ${tell(length)} along the axis`
  if (length > 1e-6) return ` × ${tell(length)}`
  const [a, b] = [piece.from.y, piece.to.y].sort((p, q) => p - q)
  const inner = (a ?? 0) < 1e-6 ? '' : `⌀${tell(2 * (a ?? 0))}–`
  return `, ${inner}⌀${tell(2 * (b ?? 0))}`
}
