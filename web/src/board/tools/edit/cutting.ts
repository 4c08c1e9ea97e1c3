import type { Piece, Vec } from '@lathica/core/geometry'
import { locator, type Entity, type Sketch, piecesOf } from '@lathica/core/sketch'
import { extend, split, trim, trimmedStretch, type Command } from '@lathica/core/edit'
import { nearestCurve } from '../../pick'
import { toPlane } from '../../view'
import type { Board, PointerAt, ToolState } from '../tool'

interface Cut {
  readonly hint: string
  readonly word: string
  readonly command: (sketchId: string, id: string, place: Vec) => Command
}

/** What is done to the curve under the pointer, one click each. */
const CUTS: Readonly<Record<'trim' | 'extend' | 'split', Cut>> = {
  trim: {
    hint: 'Click the stretch to cut away, as far as the nearest crossings.',
    word: 'cut away',
    command: trim,
  },
  extend: {
    hint: 'Click a line or arc near the end to draw out to what it meets.',
    word: 'draw out',
    command: extend,
  },
  split: {
    hint: 'Click a line or arc where it is to be divided.',
    word: 'divide here',
    command: split,
  },
}

const REACH = 9

/** What of a curve is concerned: the stretch that goes, or the whole of it. */
function stretchOf(
  sketch: Sketch,
  kind: keyof typeof CUTS,
  entity: Entity,
  place: Vec,
): readonly Piece[] {
  if (kind !== 'trim') return piecesOf(entity, locator(sketch))
  const stretch = trimmedStretch(sketch, entity.id, place)
  return stretch ? [stretch] : []
}

export function cutting(board: Board, kind: keyof typeof CUTS, at?: PointerAt): ToolState {
  const { hint, word, command } = CUTS[kind]
  const id = at && nearestCurve(board.sketch(), board.view(), at.px, REACH)
  const place = at && toPlane(board.view(), at.px)
  const entity = board.sketch().entities.find((e) => e.id === id)
  return {
    hint,
    cursor: 'crosshair',
    ...(entity && place
      ? { overlay: { words: [word], rubber: stretchOf(board.sketch(), kind, entity, place) } }
      : {}),
    move(next) {
      board.setHover(nearestCurve(board.sketch(), board.view(), next.px, REACH))
      return cutting(board, kind, next)
    },
    press(here) {
      const under = nearestCurve(board.sketch(), board.view(), here.px, REACH)
      if (under === undefined) return cutting(board, kind, here)
      board.run(command(board.sketch().id, under, toPlane(board.view(), here.px)))
      board.setHover(undefined)
      return cutting(board, kind, here)
    },
    refresh: () => cutting(board, kind, at),
  }
}
