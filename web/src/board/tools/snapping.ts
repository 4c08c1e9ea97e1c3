import { isGiven, locator, type Sketch } from '@lathica/core/sketch'
import type { End } from '@lathica/core/edit'
import { snapTo } from '../snap'
import type { Snap } from '../snapping'
import type { Board, Overlay, PointerAt } from './tool'

/** Where the pointer would put a point, with what is suggested there. */
export function snapAt(board: Board, at: PointerAt, from?: End, straight = true): Snap {
  const sketch = board.sketch()
  const { sketches } = board.part()
  return snapTo({
    sketch,
    earlier: sketches
      .slice(
        0,
        sketches.findIndex((s) => s.id === sketch.id),
      )
      .filter((s) => s.plane === sketch.plane && s.shown !== false),
    standing: board.standing(),
    endMarks: board.endMarks(),
    view: board.view(),
    at: at.px,
    suggesting: board.suggesting(),
    from,
    refuse: at.shift,
    straight,
  })
}

/** A snap as it is shown: its mark, its words and its guides. */
export function snapOverlay(snap: Snap): Overlay {
  return { mark: snap.end.at, words: snap.words, guides: snap.guides }
}

/** The ends whose points an undo has left. */
export function stillThere(sketch: Sketch, ends: readonly End[]): readonly End[] {
  const locate = locator(sketch)
  const known = (id: string): boolean => isGiven(id) || sketch.points.some((p) => p.id === id)
  const kept = ends.filter((e) => e.point === undefined || known(e.point))
  // An undone first line takes its start point with it; the place stays as a fresh start.
  const [first] = ends
  if (kept.length === 0 && first) {
    const { at, on, link } = first
    return [{ at, ...(on ? { on } : {}), ...(link ? { link } : {}) }]
  }
  return kept.map((e) => (e.point === undefined ? e : { ...e, at: locate(e.point) }))
}
