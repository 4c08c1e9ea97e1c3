import { AXIS_ID, entityMap, entityName, lineEnds, lineOf, locator } from '@lathica/core/sketch'
import { mirrorItems, moveItems, reflect } from '@lathica/core/edit'
import { pickAt } from '../../pick'
import { withPicks } from './gathering'
import { piecesMoved } from './preview'
import type { Board, PointerAt, ToolState } from '../tool'

export function mirroring(board: Board): ToolState {
  return withPicks(board, 'mirror', (ids) => chooseLine(board, ids, true))
}

/**
 * Waits for the line to mirror about.
 * @param keep false to flip what is picked instead of adding its mirror image
 */
function chooseLine(
  board: Board,
  ids: readonly string[],
  keep: boolean,
  at?: PointerAt,
): ToolState {
  const about = at && lineAt(board, at, ids)
  const sketch = board.sketch()
  const ends = about === undefined ? undefined : lineEnds(entityMap(sketch), locator(sketch), about)
  return {
    hint: keep
      ? 'Click the line or the axis to mirror about; both sides stay alike. Tab flips instead.'
      : 'Click the line or the axis to flip about. Tab mirrors and keeps both.',
    cursor: 'crosshair',
    ...(ends && about !== undefined
      ? {
          overlay: {
            rubber: piecesMoved(sketch, ids, reflect(...ends)),
            words: [`${keep ? 'mirror' : 'flip'} about ${entityName(sketch, about)}`],
          },
        }
      : {}),
    move(next) {
      board.setHover(lineAt(board, next, ids))
      return chooseLine(board, ids, keep, next)
    },
    press(here) {
      const line = lineAt(board, here, ids)
      if (line === undefined) return chooseLine(board, ids, keep, here)
      const { id } = board.sketch()
      const axes = lineEnds(entityMap(board.sketch()), locator(board.sketch()), line)
      const [a, b] = axes
      const straight = Math.abs(a.x - b.x) < 1e-6 || Math.abs(a.y - b.y) < 1e-6
      const done = board.run(
        keep ? mirrorItems(id, ids, line) : moveItems(id, ids, reflect(a, b), 'flip', straight),
      )
      if (!done) return chooseLine(board, ids, keep, here)
      board.setPicks([])
      return board.finish()
    },
    key: (key) => (key === 'Tab' ? chooseLine(board, ids, !keep, at) : undefined),
    refresh: () => board.finish(),
  }
}

function lineAt(board: Board, at: PointerAt, ids: readonly string[]): string | undefined {
  const id = pickAt(board.sketch(), board.view(), at.px)
  const fits = id === AXIS_ID || lineOf(board.sketch(), id) !== undefined
  return fits && id !== undefined && !ids.includes(id) ? id : undefined
}
