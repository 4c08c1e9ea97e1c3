import { cornerWords, faceWords } from '@lathica/core/route'
import { areaRef, areaWords, refAt, regionAt, type SectionRef } from '../../refs'
import { toPlane } from '../../view'
import type { Board, PointerAt, ToolState } from '../tool'

/** How near the pointer has to come to a face or an edge, in pixels. */
export const REF_REACH = 12

/** Waits for faces, edges or regions that a step asks for; the solid pane feeds the same request. */
export function asking(board: Board, at?: PointerAt): ToolState {
  const ask = board.asking()
  if (!ask) return { hint: '' }
  const view = board.view()
  const under = (place: PointerAt): SectionRef | undefined => {
    const where = toPlane(view, place.px)
    if (ask.accept === 'region') {
      const { regions = [], mirrored = true } = ask.areas?.() ?? {}
      const region = regionAt(regions, where, mirrored)
      return region === undefined ? undefined : areaRef(region)
    }
    return refAt(ask.bodies(), where, REF_REACH / view.scale, ask.accept)
  }
  const ref = at && under(at)
  board.setHoverRef(ref)
  const chosen = ref !== undefined && ask.chosen().includes(ref.key)
  const words = ref ? [wordsOf(board, ref), ...(chosen ? ['click to let go'] : [])] : []
  return {
    hint: ask.hint,
    cursor: 'crosshair',
    overlay: { words: words.filter((w) => w !== '') },
    move: (next) => asking(board, next),
    press(here) {
      const found = under(here)
      if (found) ask.take(found)
      return board.asking() ? asking(board, here) : board.finish()
    },
    key: (key) => (key === 'Enter' ? board.finish() : undefined),
    refresh: () => asking(board, at),
  }
}

function wordsOf(board: Board, { edge, corner, area }: SectionRef): string {
  const { units } = board.part()
  if (edge) return faceWords(edge, units)
  if (corner) return cornerWords(corner, units)
  return area === undefined ? '' : areaWords(area)
}
