import type { Vec } from '@lathica/core/geometry'
import type { Entities, Locate, Size, Sketch } from '@lathica/core/sketch'
import type { Px } from '../view'
import { LABEL_HEIGHT, type Frame } from './frame'

/** How one size is drawn: its lines, arrows and where its label goes, in pixels. */
export interface SizeDrawing {
  readonly id: string
  readonly text: string
  readonly reference: boolean
  readonly label: Px
  readonly width: number
  /** The label stands along its dimension line, read from the right (ISO 129-1). */
  readonly upright?: boolean
  /** dimension lines, full weight */
  readonly lines: readonly (readonly [Px, Px])[]
  /** witness and leader lines, hairlines */
  readonly witnesses: readonly (readonly [Px, Px])[]
  /** arrow heads: the tip, and a point it points away from */
  readonly arrows: readonly (readonly [Px, Px])[]
  readonly arc?: {
    readonly centre: Px
    readonly radius: number
    readonly from: Px
    readonly to: Px
  }
}

/** What every size is laid out by. */
export interface Setting {
  readonly sketch: Sketch
  readonly entities: Entities
  readonly locate: Locate
  readonly frame: Frame
  /** for points at the end of a land, that land's ends */
  readonly lands: ReadonlyMap<string, readonly [Vec, Vec]>
  /** the greatest radius of anything drawn, which levels and rows keep clear of, in pixels */
  readonly top: number
  /** where the part begins and ends along the axis, in pixels */
  readonly ends: readonly [number, number]
  readonly text: (size: Size) => string
  /** How far out from the axis the pane ends towards it, in pixels, where the axis lies beyond; nought else. */
  readonly edge: number
}

/** Gap between an outline and its witness line, and how far that runs past the dimension line. */
export const WITNESS_GAP = 4
export const WITNESS_BEYOND = 5

const CHARACTER = 7.25

/** The width of a label in pixels, without asking the page. */
export function labelWidth(text: string): number {
  return Math.round(text.length * CHARACTER + 10)
}

/** Whether the labels of two drawings lie on one another. */
export function labelsOverlap(
  a: Pick<SizeDrawing, 'label' | 'width' | 'upright'>,
  b: Pick<SizeDrawing, 'label' | 'width' | 'upright'>,
): boolean {
  const p = labelExtent(a)
  const q = labelExtent(b)
  return (
    Math.abs(a.label.x - b.label.x) < (p.x + q.x) / 2 + 2 &&
    Math.abs(a.label.y - b.label.y) < (p.y + q.y) / 2 + 1
  )
}

/** How much of the pane a label takes, in pixels. */
export function labelExtent({ width, upright }: Pick<SizeDrawing, 'width' | 'upright'>): Px {
  return upright ? { x: LABEL_HEIGHT, y: width } : { x: width, y: LABEL_HEIGHT }
}
