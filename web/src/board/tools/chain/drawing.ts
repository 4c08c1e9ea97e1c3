import {
  AXIS_ID,
  arc,
  arcAlong,
  arcThrough,
  distance,
  drawPiece,
  line,
  locator,
  pieceOf,
  tangentAt,
  type End,
  type NewConstraint,
  type NewPiece,
  type Piece,
  type Role,
  type Sketch,
  type Vec,
} from '@lathica/core'
import { snapAt, snapOverlay, stillThere } from '../snapping'
import { toPlane, toScreen } from '../../view'
import { lineEntry, smoothArcEntry, throughArcEntry } from './typed'
import type { Snap } from '../../snap'
import type { Board, PointerAt, ToolState } from '../tool'

/** Presses this near to one another are one, in pixels. */
const SAME_PLACE = 5

/** What the chain draws next: a line, an arc that goes on smoothly, or one through a third place. */
const MODES = ['line', 'smooth', 'through'] as const
type Mode = (typeof MODES)[number]

/** A chain on its way. */
export interface Chain {
  readonly board: Board
  readonly role: Role
  readonly mode: Mode
  /** where the chain has been, the start first; all but a fresh start name their points */
  readonly ends: readonly End[]
  /** the end of an arc whose bulge is still to be given */
  readonly arcEnd?: End | undefined
  readonly at?: PointerAt | undefined
}

/** Waits for the first point of a chain. */
export function starting(board: Board, role: Role = 'outline', at?: PointerAt): ToolState {
  const snap = at && snapAt(board, at)
  const what = role === 'centre' ? 'the centre line' : 'the outline'
  const where = role === 'centre' ? '.' : ', on the axis for solid parts.'
  return {
    hint: `Click where ${what} begins${where}`,
    cursor: 'crosshair',
    ...(snap ? { overlay: snapOverlay(snap) } : {}),
    move: (next) => starting(board, role, next),
    press: (here) =>
      drawing({ board, role, mode: 'line', ends: [snapAt(board, here).end], at: here }),
    refresh: () => starting(board, role, at),
  }
}

/** Draws one piece after another from the last end. */
export function drawing(chain: Chain): ToolState {
  const { board, role, mode, ends, arcEnd, at } = chain
  const from = ends[ends.length - 1]
  if (!from) return starting(board, role, at)
  const snap = at && snapFor(chain, from, at)
  const piece = snap && at ? pieceFor(chain, from, snap, at) : undefined
  const entry =
    mode === 'line'
      ? lineEntry(chain, from, snap)
      : mode === 'smooth'
        ? smoothArcEntry(chain, from, at)
        : arcEnd
          ? throughArcEntry(chain, from, arcEnd, at)
          : undefined
  return {
    hint: hintFor(chain, snap),
    cursor: 'crosshair',
    ...(snap && piece ? { overlay: { ...snapOverlay(snap), rubber: [piece] } } : {}),
    ...(entry ? { entry } : {}),
    move: (next) => drawing({ ...chain, at: next }),
    press: (here) => drawTo({ ...chain, at: here }, here),
    key: (key) => {
      if (key === 'Enter') return starting(board, role, at)
      const next = MODES[(MODES.indexOf(mode) + 1) % MODES.length] ?? 'line'
      return drawing({ ...chain, mode: next, arcEnd: undefined })
    },
    escape: () => (arcEnd ? drawing({ ...chain, arcEnd: undefined }) : starting(board, role, at)),
    refresh: () => drawing({ ...chain, ends: stillThere(board.sketch(), ends) }),
  }
}

function snapFor({ board, mode, arcEnd }: Chain, from: End, at: PointerAt): Snap {
  if (!arcEnd) return snapAt(board, at, from, mode === 'line')
  const place = toPlane(board.view(), at.px)
  return { end: { at: place }, directions: [], ties: [], words: [], guides: [] }
}

/** The piece the next press would draw. */
function pieceFor(chain: Chain, from: End, snap: Snap, at: PointerAt): Piece {
  const { board, mode, arcEnd } = chain
  const straight = line(from.at, snap.end.at)
  if (mode === 'line') return straight
  if (mode === 'smooth') {
    const { direction } = leaving(board.sketch(), from)
    const found = arcAlong(from.at, direction, snap.end.at)
    return found ? arc(from.at, snap.end.at, found.centre, found.counterClockwise) : straight
  }
  if (!arcEnd) return straight
  const found = arcThrough(from.at, toPlane(board.view(), at.px), arcEnd.at)
  const { centre, counterClockwise } = found ?? { centre: from.at, counterClockwise: true }
  return found ? arc(from.at, arcEnd.at, centre, counterClockwise) : line(from.at, arcEnd.at)
}

/** The direction in which a chain goes on smoothly from an end, and the curve it goes on from. */
export function leaving(
  sketch: Sketch,
  from: End,
): { readonly direction: Vec; readonly after?: string } {
  const locate = locator(sketch)
  const before = sketch.entities.findLast(
    (e) => e.kind !== 'circle' && (e.to === from.point || e.from === from.point),
  )
  if (!before || before.kind === 'circle') return { direction: { x: 1, y: 0 } }
  const piece = pieceOf(before, locate)
  const back = tangentAt(piece, 0)
  const direction = before.to === from.point ? tangentAt(piece, 1) : { x: -back.x, y: -back.y }
  return { direction, after: before.id }
}

function hintFor(chain: Chain, snap: Snap | undefined): string {
  const { ends, mode, arcEnd, role } = chain
  if (arcEnd) return 'Click a place on the arc, or type its radius.'
  if (snap && ends.length > 1 && endsChain(ends, snap.end)) return 'Click to close the outline.'
  if (mode === 'smooth')
    return 'Click where the smooth arc ends, or type its radius; Tab: arc through a place.'
  if (mode === 'through') return 'Click where the arc ends; Tab: straight again.'
  if (role === 'centre') return 'Click where the centre line ends.'
  return ends.length > 1
    ? 'Click the next corner or type its length; Tab: arc; back on the axis closes; Esc ends.'
    : 'Click the next corner or type its length; Tab: arc; Shift refuses suggestions.'
}

function drawTo(chain: Chain, at: PointerAt): ToolState {
  const { board, ends, role, mode, arcEnd } = chain
  const from = ends[ends.length - 1]
  if (!from) return starting(board, role, at)
  // The second press of a double click is on the corner just drawn: it ends the chain.
  if (distance(toScreen(board.view(), from.at), at.px) < SAME_PLACE) {
    return ends.length > 1 ? starting(board, role, at) : drawing(chain)
  }
  const snap = snapFor(chain, from, at)
  if (mode === 'through' && !arcEnd) return drawing({ ...chain, arcEnd: snap.end })
  const piece = pieceFor(chain, from, snap, at)
  const to = arcEnd ?? snap.end
  return drawOn(chain, { from, to, piece, directions: snap.directions, ties: snap.ties })
}

/** What one press, or one typed line, draws. */
export interface Stroke {
  readonly from: End
  readonly to: End
  readonly piece: Piece
  readonly directions: Snap['directions']
  readonly ties: readonly NewConstraint[]
  readonly sizes?: NewPiece['sizes']
}

/** Draws a stroke and goes on from its end, or begins anew where it ended the chain. */
export function drawOn(chain: Chain, stroke: Stroke): ToolState {
  const { board, role, mode, ends, at } = chain
  const { from, to, piece, directions, sizes } = stroke
  const before = mode === 'smooth' ? leaving(board.sketch(), from).after : undefined
  const smooth: NewConstraint[] =
    before !== undefined && piece.kind === 'arc'
      ? [{ kind: 'tangent', curve: '~piece', to: before }]
      : []
  const drawn = board.run(
    drawPiece({
      sketch: board.sketch().id,
      from,
      to,
      role,
      directions,
      ties: [...stroke.ties, ...smooth],
      ...(sizes ? { sizes } : {}),
      ...(piece.kind === 'arc' ? { arc: piece } : {}),
    }),
  )
  if (!drawn) return drawing({ ...chain, arcEnd: undefined })
  const sketch = board.sketch()
  const entity = sketch.entities.at(-1)
  if (!entity || entity.kind === 'circle') return starting(board, role, at)
  const named = (id: string, end: End): End => ({ ...end, at: locator(sketch)(id), point: id })
  const next = [...ends.slice(0, -1), named(entity.from, from), named(entity.to, to)]
  if (role === 'centre' || endsChain(ends, to)) return starting(board, role)
  return drawing({ ...chain, ends: next, arcEnd: undefined })
}

/** A chain ends on its own start, on a point that was there, or on the axis when it began there. */
function endsChain(ends: readonly End[], end: End): boolean {
  if (end.point !== undefined) return true
  return end.on?.includes(AXIS_ID) === true && ends[0] !== undefined && onAxis(ends[0])
}

function onAxis(end: End): boolean {
  return end.on?.includes(AXIS_ID) === true || Math.abs(end.at.y) < 1e-9
}
