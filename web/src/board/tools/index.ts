import type { ConstraintKind } from '@lathica/core'
import { starting } from './chain/drawing'
import { idle } from './pick/idle'
import { beginSize } from './size/placing'
import { beginTie } from './tie/choosing'
import type { Board, ToolId, ToolState } from './tool'

export type { Board, FieldTarget, Overlay, PointerAt, ToolId, ToolState } from './tool'

/**
 * Takes up a tool.
 * @returns its first state; undefined when it has done its work on the picks at once
 */
export function beginTool(board: Board, id: ToolId): ToolState | undefined {
  switch (id) {
    case 'pick':
      return idle(board)
    case 'chain':
      board.setPicks([])
      return starting(board)
    case 'size':
      return beginSize(board)
    default:
      return beginTie(board, id.slice('tie:'.length) as ConstraintKind)
  }
}
