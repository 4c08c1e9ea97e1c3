import { boundsOf, type Piece } from '@lathica/core/geometry'
import type { SizeDrawing } from '../sizes/setting'
import { toScreen, type Px } from '../view'
import type { Patch, Scene } from './scene'

/** How far halos, dots, arrows and saw-teeth reach beyond what they belong to, in pixels. */
export const REACH = 12

type OnPatch = Pick<Scene, 'patch' | 'view'>

/** Whether what is painted about a place lies clear of the patch that is painted anew. */
export function isClear({ patch }: OnPatch, { x, y }: Px): boolean {
  return patch !== undefined && isBoxClear(patch, x, y, x, y)
}

/**
 * The same of a piece of an outline.
 * @param side −1 for its image below the axis
 */
export function isPieceClear({ patch, view }: OnPatch, piece: Piece, side: 1 | -1 = 1): boolean {
  if (!patch) return false
  const { min, max } = piece.kind === 'line' ? { min: piece.from, max: piece.to } : boundsOf(piece)
  const a = toScreen(view, side === 1 ? min : { x: min.x, y: -min.y })
  const b = toScreen(view, side === 1 ? max : { x: max.x, y: -max.y })
  return isBoxClear(patch, a.x, a.y, b.x, b.y)
}

/** The same of the straight line between two places. */
export function isLineClear({ patch }: OnPatch, a: Px, b: Px): boolean {
  return patch !== undefined && isBoxClear(patch, a.x, a.y, b.x, b.y)
}

/** The same of the lines, witness lines and arrows of a size. */
export function isSizeClear(
  { patch }: OnPatch,
  { lines, witnesses, arrows, arc }: SizeDrawing,
): boolean {
  if (!patch || arc) return false
  const isEachClear = (ends: readonly (readonly [Px, Px])[]): boolean =>
    ends.every(([a, b]) => isBoxClear(patch, a.x, a.y, b.x, b.y))
  return isEachClear(lines) && isEachClear(witnesses) && isEachClear(arrows)
}

/** Corners in any order. */
function isBoxClear(
  [left, top, right, bottom]: Patch,
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  return (
    (ax < left - REACH && bx < left - REACH) ||
    (ax > right + REACH && bx > right + REACH) ||
    (ay < top - REACH && by < top - REACH) ||
    (ay > bottom + REACH && by > bottom + REACH)
  )
}
