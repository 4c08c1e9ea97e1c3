import { arc, arcAlong, arcThrough, distance, line, type Piece } from '@lathica/core/geometry'
import {
  AXIS_ID,
  locator,
  type SketchArc,
  type SketchLine,
  type Role,
  type Sketch,
} from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import { drawPiece, type End } from '@lathica/core/edit'
import { wholeChain } from '../../pick'
import { snapAt, snapOverlay, stillThere } from '../snapping'
import { toPlane, toScreen } from '../../view'
import { MODES, leaving, type Chain, type Stroke } from './stroke'
import { typedArc, typedLine, typedSmoothArc, type Typing } from './typed'
import { curveOfChain } from '../curve/drawing'
import type { Snap } from '../../snapping'
import type { Board, Entry, Overlay, PointerAt, ToolState } from '../tool'

/** Presses this near to one another are one, in pixels. */
const SAME_PLACE = 5

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
  const typing = typingFor(chain, from, snap)
  return {
    hint: hintFor(chain, snap),
    cursor: 'crosshair',
    ...(snap && piece ? { overlay: { ...snapOverlay(snap), ...rubberOf(chain, piece) } } : {}),
    ...(typing ? { entry: entryOf(chain, typing) } : {}),
    move: (next) => drawing({ ...chain, at: next }),
    press: (here) => drawTo({ ...chain, at: here }, here),
    key: (key) => {
      if (key === 'Enter') return starting(board, role, at)
      if (key !== 'Tab') return undefined
      const next = MODES[(MODES.indexOf(mode) + 1) % MODES.length] ?? 'line'
      if (next === 'curve') return curvingOn(chain, from)
      return drawing({ ...chain, mode: next, arcEnd: undefined })
    },
    escape: () => (arcEnd ? drawing({ ...chain, arcEnd: undefined }) : starting(board, role, at)),
    refresh: () => drawing({ ...chain, ends: stillThere(board.sketch(), ends) }),
  }
}

/** What is drawn of the next piece; of an outline it is seen turned as well. */
const rubberOf = ({ role }: Chain, piece: Piece): Pick<Overlay, 'rubber' | 'turned'> => ({
  rubber: [piece],
  ...(role === 'outline' ? { turned: [piece] } : {}),
})

/** A free curve is the next piece; where it ends, the chain goes on straight. */
function curvingOn(chain: Chain, from: End): ToolState {
  const { board, role, at } = chain
  return curveOfChain(board, role, from, at, (last) => {
    if (!last) return starting(board, role, at)
    const ends = last === from ? chain.ends : [...chain.ends, last]
    return drawing({ ...chain, ends, mode: 'line', arcEnd: undefined })
  })
}

/** What of the next piece can be typed. */
function typingFor(chain: Chain, from: End, snap: Snap | undefined): Typing | undefined {
  const { mode, arcEnd, at } = chain
  if (mode === 'line') return typedLine(chain, from, snap)
  if (mode === 'smooth') return typedSmoothArc(chain, from, at)
  return arcEnd && typedArc(chain, from, arcEnd, at)
}

function entryOf(chain: Chain, { fields, strokeFor }: Typing): Entry {
  return {
    fields,
    take: (texts) => {
      const stroke = strokeFor(texts)
      return 'message' in stroke ? stroke : drawOn(chain, stroke)
    },
    preview: (texts) => {
      const stroke = strokeFor(texts)
      return 'message' in stroke
        ? undefined
        : { ...rubberOf(chain, stroke.piece), mark: stroke.to.at }
    },
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

function hintFor(chain: Chain, snap: Snap | undefined): string {
  const { ends, mode, arcEnd, role } = chain
  if (arcEnd) return 'Click a place on the arc, or type its radius.'
  if (snap && ends.length > 1 && endsChain(ends, snap.end)) return 'Click to close the outline.'
  if (mode === 'smooth')
    return 'Click where the smooth arc ends, or type its radius; Tab: arc through a place.'
  if (mode === 'through') return 'Click where the arc ends; Tab: free curve.'
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

/** Draws a stroke and goes on from its end, or begins anew where it ended the chain. */
function drawOn(chain: Chain, stroke: Stroke): ToolState {
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
  if (entity?.kind !== 'line' && entity?.kind !== 'arc') {
    return starting(board, role, at)
  }
  const named = (id: string, end: End): End => ({ ...end, at: locator(sketch)(id), point: id })
  const next = [...ends.slice(0, -1), named(entity.from, from), named(entity.to, to)]
  if (role === 'centre' || endsChain(ends, to) || spansAxis(sketch, entity)) {
    return starting(board, role)
  }
  return drawing({ ...chain, ends: next, arcEnd: undefined })
}

/** A chain ends on its own start, on a point that was there, or on the axis when it began there. */
function endsChain(ends: readonly End[], end: End): boolean {
  if (end.point !== undefined) return true
  return end.on?.includes(AXIS_ID) === true && ends[0] !== undefined && onAxis(ends[0])
}

/** Whether what was just drawn completes a chain from the axis back to the axis. */
function spansAxis(sketch: Sketch, last: SketchLine | SketchArc): boolean {
  const locate = locator(sketch)
  if (Math.abs(locate(last.to).y) > 1e-9) return false
  const chain = new Set(wholeChain(sketch, last.id))
  return sketch.entities.some(
    (e) =>
      e.kind !== 'circle' &&
      chain.has(e.id) &&
      [e.from, e.to].some((p) => p !== last.to && Math.abs(locate(p).y) < 1e-9),
  )
}

function onAxis(end: End): boolean {
  return end.on?.includes(AXIS_ID) === true || Math.abs(end.at.y) < 1e-9
}
