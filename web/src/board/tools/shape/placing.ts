import type { Problem } from '@lathica/core/result'
import type { Piece } from '@lathica/core/geometry'
import type { NewConstraint } from '@lathica/core/constraints'
import { drawDraft, type Draft, type End } from '@lathica/core/edit'
import { snapAt, snapOverlay, stillThere } from '../snapping'
import type { Snap } from '../../snapping'
import { readFields } from '../entry'
import type { Board, Entry, EntryField, PointerAt, ToolState } from '../tool'

/** What a shape is when all its places are known, and how it looks until then. */
export interface Shape {
  readonly label: string
  /** What each place is, as the hint says it; the last press draws the shape. */
  readonly hints: readonly string[]
  /** The draft for places given by the pointer; undefined while they give no shape. */
  readonly draft: (places: readonly End[]) => Draft | undefined
  /** The pieces to show, the pointer being the last place. */
  readonly pieces: (places: readonly End[]) => readonly Piece[]
  /** Where the pointer puts a place that is not snapped like others; undefined where it is. */
  readonly snap?: (board: Board, places: readonly End[], at: PointerAt) => Snap | undefined
  /** Values that may be typed in the place of the last press. */
  readonly typed?: {
    readonly fields: (places: readonly End[]) => readonly EntryField[]
    /** @param values in mm and radians, undefined where nothing was typed */
    readonly draft: (
      places: readonly End[],
      values: readonly (number | undefined)[],
      texts: readonly string[],
    ) => Draft | Problem
  }
  /** The same shape drawn in another way, which Tab takes up. */
  readonly next?: () => Shape
}

/** Takes the places of a shape one after another and draws it at the last. */
export function placing(
  board: Board,
  shape: Shape,
  places: readonly End[] = [],
  at?: PointerAt,
  ties: readonly NewConstraint[] = [],
): ToolState {
  const snapped = (here: PointerAt): Snap =>
    shape.snap?.(board, places, here) ?? snapAt(board, here, undefined, false)
  const snap = at && snapped(at)
  const all = snap ? [...places, snap.end] : places
  const entry = places.length + 1 === shape.hints.length ? typedEntry(board, shape, all) : undefined
  const hint = shape.hints[places.length] ?? ''
  return {
    hint: shape.next && places.length === 0 ? `${hint} Tab draws it another way.` : hint,
    cursor: 'crosshair',
    ...(snap ? { overlay: { ...snapOverlay(snap), rubber: shape.pieces(all) } } : {}),
    ...(entry ? { entry } : {}),
    move: (next) => placing(board, shape, places, next, ties),
    press: (here) => {
      const taken = [...places, snapped(here).end]
      const all = [...ties, ...(shape.snap?.(board, places, here)?.ties ?? [])]
      if (taken.length < shape.hints.length) return placing(board, shape, taken, here, all)
      const draft = shape.draft(taken)
      if (!draft) return placing(board, shape, places, here, ties)
      const tied = { ...draft, ties: [...(draft.ties ?? []), ...all] }
      board.run(drawDraft(shape.label, board.sketch().id, tied))
      return placing(board, shape, [], here)
    },
    key: (key) => {
      if (key !== 'Tab' || !shape.next) return undefined
      return placing(board, shape.next(), [], at)
    },
    escape: () => (places.length > 0 ? placing(board, shape, [], at) : undefined),
    refresh: () => placing(board, shape, stillThere(board.sketch(), places), at, ties),
  }
}

function typedEntry(board: Board, shape: Shape, places: readonly End[]): Entry | undefined {
  const { typed } = shape
  if (!typed) return undefined
  const fields = typed.fields(places)
  const draftFor = (texts: readonly string[]): Draft | Problem => {
    const values = readFields(board, fields, texts)
    return values.ok ? typed.draft(places, values.value, texts) : values.problem
  }
  return {
    fields,
    take: (texts) => {
      const draft = draftFor(texts)
      if ('message' in draft) return draft
      const refused = board.attempt(drawDraft(shape.label, board.sketch().id, draft))
      return refused ?? placing(board, shape, [])
    },
  }
}
