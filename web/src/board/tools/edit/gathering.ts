import { pickAt, wholeChain } from '../../pick'
import { drawnIn } from './preview'
import type { Board, ToolState } from '../tool'

/** Goes on with what is picked; with nothing picked it first waits for picks, until Enter. */
export function withPicks(
  board: Board,
  what: string,
  then: (ids: readonly string[]) => ToolState,
): ToolState {
  const ids = drawnIn(board.sketch(), board.picks())
  return ids.length > 0 ? then(ids) : gathering(board, what, then)
}

function gathering(
  board: Board,
  what: string,
  then: (ids: readonly string[]) => ToolState,
): ToolState {
  const picked = drawnIn(board.sketch(), board.picks())
  const state: ToolState = {
    hint:
      picked.length === 0
        ? `Click what to ${what}; a double click takes the whole chain.`
        : `Click more to ${what}; Enter goes on with the ${picked.length} picked.`,
    cursor: 'crosshair',
    move(at) {
      board.setHover(pickAt(board.sketch(), board.view(), at.px))
      return state
    },
    press(at) {
      const id = pickAt(board.sketch(), board.view(), at.px)
      if (id === undefined) return state
      const picks = board.picks()
      if (at.double === true) {
        board.setPicks([...new Set([...picks, ...wholeChain(board.sketch(), id)])])
      } else board.setPicks(picks.includes(id) ? picks.filter((p) => p !== id) : [...picks, id])
      return gathering(board, what, then)
    },
    key: (key) => {
      const ids = drawnIn(board.sketch(), board.picks())
      return key === 'Enter' && ids.length > 0 ? then(ids) : undefined
    },
    escape() {
      if (board.picks().length === 0) return undefined
      board.setPicks([])
      return gathering(board, what, then)
    },
    refresh: () => gathering(board, what, then),
  }
  return state
}
