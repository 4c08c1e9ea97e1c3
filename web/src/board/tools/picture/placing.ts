import { distance, type Vec } from '@lathica/core/geometry'
import { layPictureOnAxis, scalePicture } from '@lathica/core/edit'
import { readFields } from '../entry'
import { toPlane } from '../../view'
import type { Board, EntryField, PointerAt, ToolState } from '../tool'

const FIELDS: readonly EntryField[] = [{ label: 'distance', want: 'length' }]

/** Lays the picture behind the board on the part's axis, then makes it as large as the part. */
export function placingPicture(board: Board): ToolState {
  return laying(board, [])
}

/** Two places on the axis of what is pictured. */
function laying(board: Board, places: readonly Vec[], at?: PointerAt): ToolState {
  const here = at && toPlane(board.view(), at.px)
  const [first] = places
  const wanted = first ? 'another place on that axis' : 'a place on the axis of what is pictured'
  return {
    hint: `Click ${wanted}; Enter leaves it where it lies.`,
    cursor: 'crosshair',
    overlay: {
      marks: places,
      ...(first && here ? { guides: [[first, here]] } : {}),
    },
    move: (next) => laying(board, places, next),
    press: (pointer) => {
      const place = toPlane(board.view(), pointer.px)
      if (!first) return laying(board, [place], pointer)
      return board.run(layPictureOnAxis(first, place)) ? scaling(board, []) : laying(board, [])
    },
    key: (key) => (key === 'Enter' ? scaling(board, []) : undefined),
    escape: () => (first ? laying(board, []) : undefined),
    refresh: () => (board.part().picture ? laying(board, places, at) : board.finish()),
  }
}

/** Two places of which the distance is known, and that. */
function scaling(board: Board, places: readonly Vec[], at?: PointerAt): ToolState {
  const here = at && toPlane(board.view(), at.px)
  const [first, second] = places
  if (first && second) return measuring(board, first, second)
  return {
    hint: first
      ? 'Click the other place.'
      : 'Click a place of the picture whose distance from another you know; Esc leaves it so.',
    cursor: 'crosshair',
    overlay: { marks: places, ...(first && here ? { guides: [[first, here]] } : {}) },
    move: (next) => scaling(board, places, next),
    press: (pointer) => scaling(board, [...places, toPlane(board.view(), pointer.px)], pointer),
    escape: () => (first ? scaling(board, []) : undefined),
    refresh: () => (board.part().picture ? scaling(board, places, at) : board.finish()),
  }
}

function measuring(board: Board, a: Vec, b: Vec): ToolState {
  return {
    hint: 'Type how far these places truly are apart.',
    overlay: { marks: [a, b], guides: [[a, b]] },
    entry: {
      open: true,
      fields: FIELDS.map((f) => ({ ...f, now: distance(a, b) })),
      take: (texts) => {
        const values = readFields(board, FIELDS, texts)
        if (!values.ok) return values.problem
        return (
          board.attempt(scalePicture(a, b, values.value[0] ?? distance(a, b))) ?? board.finish()
        )
      },
    },
    escape: () => scaling(board, []),
    refresh: () => (board.part().picture ? measuring(board, a, b) : board.finish()),
  }
}
