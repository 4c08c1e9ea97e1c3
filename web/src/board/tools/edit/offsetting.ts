import { unitScale } from '@lathica/core/units'
import { locator, nearestOf } from '@lathica/core/sketch'
import { offsetChain } from '@lathica/core/edit'
import { toPlane } from '../../view'
import { withPicks } from './gathering'
import { piecesAfter } from './preview'
import type { Board, EntryField, PointerAt, ToolState } from '../tool'

export function offsetting(board: Board): ToolState {
  return withPicks(board, 'offset', (ids) => beside(board, ids))
}

/** Shows the chain beside the chain, through the pointer; a click or a typed distance takes it. */
function beside(board: Board, ids: readonly string[], at?: PointerAt): ToolState {
  const sketch = board.sketch()
  const side = at ? toPlane(board.view(), at.px) : { x: 0, y: 0 }
  const locate = locator(sketch)
  const away = Math.min(
    ...sketch.entities
      .filter((e) => ids.includes(e.id))
      .map((e) => nearestOf(e, locate, side)?.distance ?? Infinity),
  )
  const inUnit = (mm: number): string =>
    String(Number((mm / unitScale('length', board.part().units)).toPrecision(3)))
  const command = (formula: string) => offsetChain(board.sketch().id, ids, formula, side)
  const fields: EntryField[] = [{ label: 'distance', want: 'length', now: away }]
  return {
    hint: 'Click on the side where the new chain goes, or type its distance.',
    cursor: 'crosshair',
    ...(at && away > 0 ? { overlay: { rubber: piecesAfter(board, command(inUnit(away))) } } : {}),
    entry: {
      fields,
      take: ([text = '']) => {
        const refused = board.attempt(command(text.trim() === '' ? inUnit(away) : text))
        return refused ?? board.finish()
      },
      preview: ([text = '']) =>
        text.trim() === '' ? undefined : { rubber: piecesAfter(board, command(text)) },
    },
    move: (next) => beside(board, ids, next),
    press: (here) => {
      const state = beside(board, ids, here)
      const place = toPlane(board.view(), here.px)
      const far = Math.min(
        ...sketch.entities
          .filter((e) => ids.includes(e.id))
          .map((e) => nearestOf(e, locate, place)?.distance ?? Infinity),
      )
      if (far <= 0) return state
      return board.run(offsetChain(board.sketch().id, ids, inUnit(far), place))
        ? board.finish()
        : state
    },
    refresh: () => board.finish(),
  }
}
