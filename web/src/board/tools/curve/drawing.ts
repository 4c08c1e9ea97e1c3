import { distance, evenSpline, splinePieces } from '@lathica/core/geometry'
import { AXIS_ID, type Role, type SketchSpline } from '@lathica/core/sketch'
import { drawCurve, type End } from '@lathica/core/edit'
import { snapAt, snapOverlay, stillThere } from '../snapping'
import { toScreen } from '../../view'
import type { Snap } from '../../snapping'
import type { Board, Overlay, PointerAt, ToolState } from '../tool'

/** Presses this near to one another are one, in pixels. */
const SAME_PLACE = 5

/** A free curve while it is drawn. */
interface Drawing {
  readonly board: Board
  readonly way: SketchSpline['way']
  readonly role: Role
  readonly places: readonly End[]
  readonly at?: PointerAt | undefined
  /** What is in hand when the curve is done, with its last place; the same tool again where nothing is told. */
  readonly then?: (last: End | undefined) => ToolState
}

const OTHER = { through: 'frame', frame: 'through' } as const

/** Draws a free curve through the places that are clicked, or over the frame they make. */
export function curving(board: Board, way: SketchSpline['way'] = 'through'): ToolState {
  return drawing({ board, way, role: 'outline', places: [] })
}

/** A free curve as the next piece of a chain, from its last end. */
export function curveOfChain(
  board: Board,
  role: Role,
  from: End,
  at: PointerAt | undefined,
  then: (last: End | undefined) => ToolState,
): ToolState {
  return drawing({ board, way: 'through', role, places: [from], at, then })
}

function drawing(curve: Drawing): ToolState {
  const { board, way, places, at } = curve
  const snap = at && snapFor(curve, at)
  const all = snap ? [...places, snap.end] : places
  return {
    hint: hintFor(curve, snap),
    cursor: 'crosshair',
    ...(snap ? { overlay: overlayOf(curve, snap, all) } : {}),
    move: (next) => drawing({ ...curve, at: next }),
    press: (here) => pressed({ ...curve, at: here }, here),
    key: (key) => {
      if (key === 'Enter') return places.length > 1 ? taken(curve) : ended(curve)
      if (key === 'Backspace' && places.length > 1) {
        return drawing({ ...curve, places: places.slice(0, -1) })
      }
      if (key !== 'Tab') return undefined
      // In a chain the next piece is straight again; else the curve goes over a frame, or through its places.
      if (curve.then) return places.length > 1 ? taken(curve) : curve.then(places[0])
      return drawing({ ...curve, way: OTHER[way] })
    },
    escape: () => {
      if (places.length > 1) return taken(curve)
      return places.length > 0 ? ended(curve) : undefined
    },
    refresh: () => drawing({ ...curve, places: stillThere(board.sketch(), places) }),
  }
}

function overlayOf(curve: Drawing, snap: Snap, all: readonly End[]): Overlay {
  const [suggested, own] = [snapOverlay(snap), rubberOf(curve, all)]
  return {
    ...{ ...suggested, ...own },
    guides: [...(suggested.guides ?? []), ...(own.guides ?? [])],
  }
}

/** Directions are not suggested from place to place: the curve bends as it likes. */
const snapFor = ({ board, places }: Drawing, at: PointerAt): Snap =>
  snapAt(board, at, places.at(-1), false)

/** The curve as it would be drawn, its frame, and the places that are clicked already. */
function rubberOf({ way, role, places }: Drawing, ends: readonly End[]): Partial<Overlay> {
  const all = ends.map((e) => e.at)
  const marks = places.map((e) => e.at)
  if (all.length < 2) return { marks }
  const pieces = splinePieces(evenSpline(way, all))
  const legs = all.slice(1).map((p, i) => [all[i] ?? p, p] as const)
  return {
    ...{ rubber: pieces, marks, guides: way === 'frame' ? legs : [] },
    ...(role === 'outline' ? { turned: pieces } : {}),
  }
}

function hintFor({ way, places, then }: Drawing, snap: Snap | undefined): string {
  const other = way === 'through' ? 'over a frame' : 'through its places'
  if (places.length === 0) return `Click where the curve begins. Tab draws it ${other}.`
  if (snap && places.length > 1 && endsCurve(places, snap.end))
    return 'Click to end the curve here.'
  const what = way === 'through' ? 'Click where it goes next' : 'Click what pulls it next'
  if (then) return `${what}; Tab: straight again; Enter ends.`
  return places.length === 1
    ? `${what}; Tab draws it ${other}.`
    : `${what}; a double click or Enter ends it, Backspace takes the last place back.`
}

/** A curve ends on a point that was there, or on the axis. */
const endsCurve = (places: readonly End[], end: End): boolean =>
  end.point !== undefined || (places.length > 0 && end.on?.includes(AXIS_ID) === true)

function pressed(curve: Drawing, at: PointerAt): ToolState {
  const { board, places } = curve
  const last = places.at(-1)
  if (last && distance(toScreen(board.view(), last.at), at.px) < SAME_PLACE) {
    return places.length > 1 ? taken(curve) : drawing(curve)
  }
  const { end } = snapFor(curve, at)
  const next = { ...curve, places: [...places, end] }
  return places.length > 0 && endsCurve(places, end) ? taken(next, true) : drawing(next)
}

/** Draws the curve. @param closes whether it came to what was there */
function taken(curve: Drawing, closes = false): ToolState {
  const { board, way, role, places, at } = curve
  const square = board.suggesting().kinds.has('directions') && at?.shift !== true
  const drawn = board.run(drawCurve({ sketch: board.sketch().id, way, role, places, square }))
  // What was refused is the last place: the others stay.
  if (!drawn) return drawing({ ...curve, places: places.slice(0, -1) })
  const end = places.at(-1)
  const made = board.sketch().entities.at(-1)
  const point = made?.kind === 'spline' ? made.to : undefined
  const last: End | undefined = end && (point !== undefined ? { at: end.at, point } : end)
  if (curve.then) return curve.then(closes ? undefined : last)
  return ended(curve)
}

const ended = (curve: Drawing): ToolState =>
  curve.then ? curve.then(undefined) : drawing({ ...curve, places: [] })
