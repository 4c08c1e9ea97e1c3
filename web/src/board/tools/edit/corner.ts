import type { Piece } from '@lathica/core/geometry'
import { locator } from '@lathica/core/sketch'
import { chamferCorner, filletCorner, isCorner } from '@lathica/core/edit'
import { POINT_REACH, nearestPoint } from '../../pick'
import { piecesAfter } from './preview'
import type { Board, EntryField, PointerAt, ToolState } from '../tool'

const KINDS = {
  fillet: {
    command: filletCorner,
    word: 'round',
    field: { label: 'radius', want: 'length', sign: 'R' },
  },
  chamfer: {
    command: chamferCorner,
    word: 'bevel',
    field: { label: 'length', want: 'length' },
  },
} as const satisfies Record<string, { command: unknown; word: string; field: EntryField }>

export type CornerKind = keyof typeof KINDS

/** What was typed last, offered for the next corner. */
const remembered = new Map<CornerKind, string>()

/** Waits for a corner. */
export function cornering(board: Board, kind: CornerKind, at?: PointerAt): ToolState {
  const corner = at && cornerAt(board, at)
  const place = corner === undefined ? undefined : locator(board.sketch())(corner)
  const { word } = KINDS[kind]
  return {
    hint: `Click a corner to ${word} it.`,
    cursor: 'crosshair',
    ...(place ? { overlay: { mark: place, words: [`${word} this corner`] } } : {}),
    move(next) {
      board.setHover(cornerAt(board, next))
      return cornering(board, kind, next)
    },
    press(here) {
      const point = cornerAt(board, here)
      return point === undefined ? cornering(board, kind, here) : asking(board, kind, point, here)
    },
    refresh: () => cornering(board, kind, at),
  }
}

function cornerAt(board: Board, at: PointerAt): string | undefined {
  const point = nearestPoint(board.sketch(), board.view(), at.px, POINT_REACH + 3)
  return point !== undefined && isCorner(board.sketch(), point) ? point : undefined
}

/** A corner is chosen; its radius or length is typed. */
function asking(board: Board, kind: CornerKind, point: string, at: PointerAt): ToolState {
  const { command, field, word } = KINDS[kind]
  const sketchId = board.sketch().id
  const preview = (text: string): readonly Piece[] =>
    text.trim() === '' ? [] : piecesAfter(board, command(sketchId, point, text))
  const text = remembered.get(kind) ?? ''
  return {
    hint: `Type the ${field.label} to ${word} this corner by; Enter takes it.`,
    cursor: 'crosshair',
    overlay: { mark: locator(board.sketch())(point), rubber: preview(text) },
    entry: {
      fields: [{ ...field, text }],
      open: true,
      take: ([typed = '']) => {
        const refused = board.attempt(command(sketchId, point, typed))
        if (refused) return refused
        remembered.set(kind, typed)
        return cornering(board, kind, at)
      },
      preview: ([typed = '']) => ({
        mark: locator(board.sketch())(point),
        rubber: preview(typed),
      }),
    },
    press: (here) => {
      const other = cornerAt(board, here)
      return other === undefined ? cornering(board, kind, here) : asking(board, kind, other, here)
    },
    escape: () => cornering(board, kind, at),
    refresh: () => cornering(board, kind, at),
  }
}
