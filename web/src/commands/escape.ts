import { useBoardStore } from '../store/board'
import { useSolidsStore } from '../store/solids'

/**
 * What Esc does on the modelling screen: it steps back one level on the board; where there is none, and
 * the pointer is over the solid, it stops a solid that takes long. Elsewhere Esc may well be meant for what was just closed.
 */
export function escape(): void {
  const board = useBoardStore()
  const solids = useSolidsStore()
  const isMeant = board.pointed === 'solid' && board.isAtRest
  if (isMeant && solids.takesLong()) solids.stop()
  else board.escape()
}
