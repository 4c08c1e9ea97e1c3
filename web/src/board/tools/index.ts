import type { Constraint } from '@lathica/core/sketch'
import { starting } from './chain/drawing'
import { stepped } from './chain/stepped'
import { addingPoints } from './curve/adding'
import { bridging } from './curve/bridging'
import { curving } from './curve/drawing'
import { cornering } from './edit/corner'
import { cutting } from './edit/cutting'
import { mirroring } from './edit/mirroring'
import { moving } from './edit/moving'
import { offsetting } from './edit/offsetting'
import { repeating } from './edit/repeating'
import { idle } from './pick/idle'
import { placingPicture } from './picture/placing'
import { placing } from './shape/placing'
import { SHAPES } from './shape/shapes'
import { beginSize } from './size/placing'
import { asking } from './steps/asking'
import { beginTie } from './tie/choosing'
import type { Board, ToolId, ToolState } from './tool'

export { REF_REACH } from './steps/asking'
export type {
  Ask,
  Board,
  EntryField,
  FieldTarget,
  Overlay,
  PointerAt,
  ToolId,
  ToolState,
} from './tool'

/**
 * Takes up a tool.
 * @returns its first state; undefined when it has done its work on the picks at once
 */
export function beginTool(board: Board, id: ToolId): ToolState | undefined {
  switch (id) {
    case 'pick':
      return idle(board)
    case 'asking':
      board.setPicks([])
      return asking(board)
    case 'chain':
    case 'centreLine':
      board.setPicks([])
      return starting(board, id === 'chain' ? 'outline' : 'centre')
    case 'stepped':
      board.setPicks([])
      return stepped(board)
    case 'curve':
      board.setPicks([])
      return curving(board)
    case 'placePicture':
      board.setPicks([])
      return board.part().picture ? placingPicture(board) : undefined
    case 'bridge':
      return bridging(board)
    case 'curvePoint':
      return addingPoints(board)
    case 'size':
      return beginSize(board)
    case 'rectangle':
    case 'circle':
    case 'arc':
    case 'slot':
    case 'polygon':
    case 'point':
      board.setPicks([])
      return placing(board, SHAPES[id])
    case 'trim':
    case 'extend':
    case 'split':
      board.setPicks([])
      return cutting(board, id)
    case 'fillet':
    case 'chamfer':
      board.setPicks([])
      return cornering(board, id)
    case 'offset':
      return offsetting(board)
    case 'mirror':
      return mirroring(board)
    case 'repeat':
      return repeating(board)
    case 'move':
    case 'copy':
    case 'rotate':
    case 'scale':
      return moving(board, id)
    default:
      return beginTie(board, id.slice('tie:'.length) as Constraint['kind'])
  }
}
