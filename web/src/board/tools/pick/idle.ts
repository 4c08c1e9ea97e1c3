import { allAt, inBox, pickAt, wholeChain } from '../../pick'
import { toPlane } from '../../view'
import { dragging } from './dragging'
import type { Board, PointerAt, ToolState } from '../tool'
import type { Px } from '../../view'

/** The pointer must move this far before a press becomes a drag, in pixels. */
const DRAG_THRESHOLD = 4

/**
 * Picks by a click, drags by a press on something, draws a box by a press on nothing. Tab goes through
 * what lies under the pointer; a double click takes the whole chain.
 * @param turn how many times Tab was pressed at this place
 */
export function idle(board: Board, at?: PointerAt, turn = 0): ToolState {
  const picked = board.picks().length
  const under = (place: PointerAt): string | undefined => {
    if (turn === 0 || !at || far(at.px, place.px)) {
      return pickAt(board.sketch(), board.view(), place.px)
    }
    const all = allAt(board.sketch(), board.view(), place.px)
    return all[turn % Math.max(1, all.length)]
  }
  const state: ToolState = {
    hint:
      picked > 0
        ? 'Drag to move what is picked; Delete removes it; Shift adds, Alt takes away.'
        : 'Click to pick, double-click for the whole chain, Tab for what lies beneath; drag for a box.',
    move(next) {
      board.setHover(under(next))
      return turn > 0 && at && far(at.px, next.px) ? idle(board, next) : state
    },
    press: (next) => pressed(board, next, under(next)),
    key(key) {
      if (key !== 'Tab' || !at) return undefined
      const all = allAt(board.sketch(), board.view(), at.px)
      if (all.length < 2) return undefined
      board.setHover(all[(turn + 1) % all.length])
      return idle(board, at, turn + 1)
    },
    escape() {
      if (board.picks().length === 0) return undefined
      board.setPicks([])
      return idle(board)
    },
    refresh: () => idle(board),
  }
  return at ? state : { ...state, move: (next) => idle(board, next).move?.(next) ?? state }
}

const far = (a: Px, b: Px): boolean => Math.hypot(a.x - b.x, a.y - b.y) >= DRAG_THRESHOLD

/** The button is down on something or nothing, and what follows is not known yet. */
function pressed(board: Board, start: PointerAt, id: string | undefined): ToolState {
  const state: ToolState = {
    hint: id === undefined ? 'Drag to draw a box.' : 'Drag to move it; let go to pick it.',
    move(at) {
      if (!far(at.px, start.px)) return state
      if (id === undefined) return boxing(board, start.px, at)
      return dragging(board, start.px, id, () => idle(board))
    },
    release(at) {
      const found =
        id !== undefined && start.double === true
          ? wholeChain(board.sketch(), id)
          : [id ?? []].flat()
      board.setPicks(picksAfter(board.picks(), found, at, start.double !== true))
      return idle(board, at)
    },
    escape: () => idle(board),
  }
  return state
}

/** Shift adds, and takes a single one off again; Alt takes away. */
function picksAfter(
  picks: readonly string[],
  found: readonly string[],
  { shift, alt }: PointerAt,
  toggles: boolean,
): readonly string[] {
  if (alt === true) return picks.filter((p) => !found.includes(p))
  if (!shift) return found
  const [only] = found
  if (toggles && found.length === 1 && only !== undefined && picks.includes(only)) {
    return picks.filter((p) => p !== only)
  }
  return [...picks.filter((p) => !found.includes(p)), ...found]
}

/** A box drawn to the right picks what lies wholly inside it, one drawn to the left what it touches. */
function boxing(board: Board, start: Px, at: PointerAt): ToolState {
  const [a, b] = [toPlane(board.view(), start), toPlane(board.view(), at.px)]
  const touching = at.px.x < start.x
  return {
    hint: touching
      ? 'Let go to pick all that the box touches; drawn to the right it takes what lies inside.'
      : 'Let go to pick what lies wholly inside; drawn to the left it takes all it touches.',
    overlay: { box: [a, b], touching },
    move: (next) => boxing(board, start, next),
    release(end) {
      const found = inBox(board.sketch(), a, b, touching)
      board.setPicks(picksAfter(board.picks(), found, end, false))
      return idle(board)
    },
    escape: () => idle(board),
  }
}
