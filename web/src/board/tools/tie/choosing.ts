import type { Constraint } from '@lathica/core/sketch'
import { CONSTRAINT_KINDS } from '@lathica/core/constraints'
import { constrain, fittingConstraints } from '@lathica/core/edit'
import { pickAt } from '../../pick'
import type { Board, ToolState } from '../tool'

/** Puts a constraint on the picks if it fits them, and otherwise waits for picks that it fits. */
export function beginTie(board: Board, kind: Constraint['kind']): ToolState | undefined {
  if (!fittingConstraints(board.sketch(), board.picks()).includes(kind)) {
    board.setPicks([])
    return choosing(board, kind)
  }
  board.run(constrain(board.sketch().id, kind, board.picks()))
  return undefined
}

function choosing(board: Board, kind: Constraint['kind']): ToolState {
  const needs = CONSTRAINT_KINDS[kind].offer?.needs ?? ''
  const state: ToolState = {
    hint: `${needs} Esc leaves.`,
    cursor: 'crosshair',
    move(at) {
      board.setHover(pickAt(board.sketch(), board.view(), at.px))
      return state
    },
    press(at) {
      const id = pickAt(board.sketch(), board.view(), at.px)
      if (id === undefined) return state
      const picks = [...board.picks().filter((p) => p !== id), id]
      board.setPicks(picks)
      if (!fittingConstraints(board.sketch(), picks).includes(kind)) return state
      board.run(constrain(board.sketch().id, kind, picks))
      board.setPicks([])
      return choosing(board, kind)
    },
    escape() {
      if (board.picks().length === 0) return undefined
      board.setPicks([])
      return choosing(board, kind)
    },
    refresh: () => choosing(board, kind),
  }
  return state
}
