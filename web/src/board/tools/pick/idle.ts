import { inBox, pickAt } from '../../pick'
import { toPlane } from '../../view'
import { dragging } from './dragging'
import type { Board, PointerAt, ToolState } from '../tool'
import type { Px } from '../../view'

/** The pointer must move this far before a press becomes a drag, in pixels. */
const DRAG_THRESHOLD = 4

/** Picks by a click, drags by a press on something, draws a box by a press on nothing. */
export function idle(board: Board): ToolState {
  const picked = board.picks().length
  const state: ToolState = {
    hint:
      picked > 0
        ? 'Drag to move what is picked; Delete removes it; Shift and click adds to it.'
        : 'Click a point or a line to pick it, or drag it; drag over empty paper for a box.',
    move(at) {
      board.setHover(pickAt(board.sketch(), board.view(), at.px))
      return state
    },
    press: (at) => pressed(board, at, pickAt(board.sketch(), board.view(), at.px)),
    escape() {
      if (board.picks().length === 0) return undefined
      board.setPicks([])
      return idle(board)
    },
    refresh: () => idle(board),
  }
  return state
}

/** The button is down on something or nothing, and what follows is not known yet. */
function pressed(board: Board, start: PointerAt, id: string | undefined): ToolState {
  const state: ToolState = {
    hint: id === undefined ? 'Drag to draw a box.' : 'Drag to move it; let go to pick it.',
    move(at) {
      if (Math.hypot(at.px.x - start.px.x, at.px.y - start.px.y) < DRAG_THRESHOLD) return state
      if (id === undefined) return boxing(board, start.px, at)
      return dragging(board, start.px, id, () => idle(board))
    },
    release(at) {
      board.setPicks(picksAfterClick(board.picks(), id, at.shift))
      return idle(board)
    },
    escape: () => idle(board),
  }
  return state
}

function picksAfterClick(
  picks: readonly string[],
  id: string | undefined,
  add: boolean,
): readonly string[] {
  if (id === undefined) return add ? picks : []
  if (!add) return [id]
  return picks.includes(id) ? picks.filter((p) => p !== id) : [...picks, id]
}

/** A box picks what lies wholly inside it. */
function boxing(board: Board, start: Px, at: PointerAt): ToolState {
  const [a, b] = [toPlane(board.view(), start), toPlane(board.view(), at.px)]
  return {
    hint: 'Let go to pick what lies wholly inside the box.',
    overlay: { box: [a, b] },
    move: (next) => boxing(board, start, next),
    release(end) {
      const found = inBox(board.sketch(), a, b)
      const kept = end.shift ? board.picks().filter((id) => !found.includes(id)) : []
      board.setPicks([...kept, ...found])
      return idle(board)
    },
    escape: () => idle(board),
  }
}
