import { AXIS_ID, distance, drawLine, isGiven, locator, type End, type Sketch } from '@lathica/core'
import { snapTo, type Snap } from '../../snap'
import { toScreen } from '../../view'
import type { Board, PointerAt, ToolState } from '../tool'

/** Presses this near to one another are one, in pixels. */
const SAME_PLACE = 5

/** Waits for the first point of a chain. */
export function starting(board: Board, at?: PointerAt): ToolState {
  const snap = at && snapTo(board.sketch(), board.view(), at.px, undefined, at.shift)
  return {
    hint: 'Click where the outline begins, on the axis for solid parts.',
    cursor: 'crosshair',
    ...(snap ? { overlay: { mark: snap.end.at, words: snap.words } } : {}),
    move: (next) => starting(board, next),
    press: (here) => {
      const { end } = snapTo(board.sketch(), board.view(), here.px, undefined, here.shift)
      return drawing(board, [end], here)
    },
    refresh: () => starting(board, at),
  }
}

/**
 * Draws one line after another from the last end.
 * @param ends where the chain has been, the start first; all but a fresh start name their points
 */
function drawing(board: Board, ends: readonly End[], at?: PointerAt): ToolState {
  const from = ends[ends.length - 1]
  if (!from) return starting(board, at)
  const snap = at && snapTo(board.sketch(), board.view(), at.px, from, at.shift)
  return {
    hint: hintFor(ends, snap),
    cursor: 'crosshair',
    ...(snap
      ? { overlay: { rubber: [from.at, snap.end.at], mark: snap.end.at, words: snap.words } }
      : {}),
    move: (next) => drawing(board, ends, next),
    press: (here) => drawTo(board, ends, here),
    key: (key) => (key === 'Enter' ? starting(board, at) : undefined),
    escape: () => starting(board, at),
    refresh: () => drawing(board, stillThere(board.sketch(), ends), at),
  }
}

function hintFor(ends: readonly End[], snap: Snap | undefined): string {
  const closes = snap && ends.length > 1 && endsChain(ends, snap.end)
  if (closes === true) return 'Click to close the outline.'
  return ends.length > 1
    ? 'Click the next corner; back on the axis closes the outline; Esc ends the chain.'
    : 'Click the next corner. Shift refuses suggestions.'
}

function drawTo(board: Board, ends: readonly End[], at: PointerAt): ToolState {
  const from = ends[ends.length - 1]
  if (!from) return starting(board, at)
  // The second press of a double click is on the corner just drawn: it ends the chain.
  if (distance(toScreen(board.view(), from.at), at.px) < SAME_PLACE) {
    return ends.length > 1 ? starting(board, at) : drawing(board, ends, at)
  }
  const snap = snapTo(board.sketch(), board.view(), at.px, from, at.shift)
  const line = { sketch: board.sketch().id, from, to: snap.end, role: 'outline' as const }
  if (!board.run(drawLine({ ...line, directions: snap.directions }))) {
    return drawing(board, ends, at)
  }
  const sketch = board.sketch()
  const drawn = sketch.entities.at(-1)
  if (!drawn) return starting(board, at)
  const named = (id: string, end: End): End => ({ ...end, at: locator(sketch)(id), point: id })
  const before = ends.slice(0, -1)
  const next = [...before, named(drawn.from, from), named(drawn.to, snap.end)]
  return endsChain(ends, snap.end) ? starting(board) : drawing(board, next, at)
}

/** A chain ends on its own start, on a point that was there, or on the axis when it began there. */
function endsChain(ends: readonly End[], end: End): boolean {
  if (end.point !== undefined) return true
  return end.line === AXIS_ID && ends[0] !== undefined && onAxis(ends[0])
}

function onAxis(end: End): boolean {
  return end.line === AXIS_ID || Math.abs(end.at.y) < 1e-9
}

/** The ends whose points an undo has left. */
function stillThere(sketch: Sketch, ends: readonly End[]): readonly End[] {
  const locate = locator(sketch)
  const known = (id: string): boolean => isGiven(id) || sketch.points.some((p) => p.id === id)
  const kept = ends.filter((e) => e.point === undefined || known(e.point))
  // An undone first line takes its start point with it; the place stays as a fresh start.
  const [first] = ends
  if (kept.length === 0 && first) {
    return [{ at: first.at, ...(first.line === undefined ? {} : { line: first.line }) }]
  }
  return kept.map((e) => (e.point === undefined ? e : { ...e, at: locate(e.point) }))
}
