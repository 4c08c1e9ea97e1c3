import { useBoardStore } from '../store/board'
import { useSolidsStore } from '../store/solids'

/** What Esc does on the modelling screen: it leaves a solid that takes long, or steps back one level on the board. */
export function escape(): void {
  const board = useBoardStore()
  const solids = useSolidsStore()
  if (solids.canStop && board.isAtRest) solids.stop()
  else board.escape()
}
