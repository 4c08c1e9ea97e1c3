import {
  fittingSizes,
  isGiven,
  locator,
  sameSize,
  type Sketch,
  type SizeOffer,
  type Vec,
} from '@lathica/core'
import { pickAt } from '../../pick'
import { toPlane } from '../../view'
import type { Board, PointerAt, ToolState } from '../tool'

/** Begins with what is picked, if that can be sized. */
export function beginSize(board: Board): ToolState {
  const offers = fittingSizes(board.sketch(), board.picks())
  return offers.length > 0 ? placing(board, board.picks()) : choosing(board)
}

/** Waits for something to measure. */
export function choosing(board: Board): ToolState {
  const state: ToolState = {
    hint: 'Click a line, a point, or two of them to measure.',
    cursor: 'crosshair',
    move(at) {
      board.setHover(pickAt(board.sketch(), board.view(), at.px))
      return state
    },
    press(at) {
      const id = pickAt(board.sketch(), board.view(), at.px)
      board.setPicks(id === undefined ? [] : [id])
      if (id === undefined) return state
      return placing(board, [id], at)
    },
    refresh: () => choosing(board),
  }
  return state
}

/**
 * Something is picked; a click on more adds to it, a click on empty paper puts the size there.
 * @param turn how many times another of the fitting sizes was asked for
 */
function placing(board: Board, picks: readonly string[], at?: PointerAt, turn = 0): ToolState {
  const sketch = board.sketch()
  const offers = fittingSizes(sketch, picks)
  const offer = chooseOffer(board, offers, picks, at, turn)
  return {
    hint: hintFor(offers, offer),
    cursor: 'crosshair',
    ...(offer ? { overlay: { offer, words: [nameOf(offer)] } } : {}),
    move(next) {
      board.setHover(pickAt(sketch, board.view(), next.px))
      return placing(board, picks, next, turn)
    },
    press(here) {
      const id = pickAt(sketch, board.view(), here.px)
      if (id !== undefined && !picks.includes(id)) {
        const both = [...picks, id]
        const fits = fittingSizes(sketch, both).length > 0
        const next = fits ? both : [id]
        board.setPicks(next)
        return placing(board, next, here)
      }
      const chosen = chooseOffer(board, offers, picks, here, turn)
      if (!chosen) return placing(board, picks, here, turn)
      const there = sameSize(sketch, chosen)
      board.openField(there ? { kind: 'size', id: there.id } : { kind: 'new', offer: chosen })
      board.setPicks([])
      return choosing(board)
    },
    key: (key) => (key === 'Tab' ? placing(board, picks, at, turn + 1) : undefined),
    escape() {
      board.setPicks([])
      return choosing(board)
    },
    refresh: () => choosing(board),
  }
}

/**
 * Where the label would be put tells what is meant: outside an axial line its length, towards the
 * axis its diameter; beyond a slanted line its axial extent, on its lower side its angle.
 */
function chooseOffer(
  board: Board,
  offers: readonly SizeOffer[],
  picks: readonly string[],
  at: PointerAt | undefined,
  turn: number,
): SizeOffer | undefined {
  const likely = at ? byPlace(board.sketch(), offers, picks, toPlane(board.view(), at.px)) : 0
  return offers[(likely + turn) % Math.max(1, offers.length)]
}

function byPlace(
  sketch: Sketch,
  offers: readonly SizeOffer[],
  picks: readonly string[],
  p: Vec,
): number {
  const line = sketch.entities.find((e) => e.id === picks[0])
  if (offers.length < 2 || !line) return 0
  const locate = locator(sketch)
  const [a, b] = [locate(line.from), locate(line.to)]
  const kind = (): SizeOffer['kind'] => {
    if (Math.abs(a.y - b.y) < 1e-6) return p.y < a.y ? 'diameter' : 'length'
    if (p.y > Math.max(a.y, b.y)) return 'axialDistance'
    const t = (p.x - a.x) / (b.x - a.x || 1)
    return p.y < a.y + t * (b.y - a.y) ? 'angle' : 'length'
  }
  return Math.max(
    0,
    offers.findIndex((o) => o.kind === kind()),
  )
}

function hintFor(offers: readonly SizeOffer[], offer: SizeOffer | undefined): string {
  if (!offer) return 'Click a second thing to measure to; Esc starts over.'
  const more = offers.length > 1 ? ' Tab takes another measure.' : ''
  return `Click empty paper to put the ${nameOf(offer)} there, or a second thing.${more}`
}

/** A kind of size in a word. */
function nameOf(offer: SizeOffer): string {
  switch (offer.kind) {
    case 'length':
      return 'length'
    case 'axialDistance':
      return isGiven(offer.a) ? 'distance from the datum' : 'axial distance'
    case 'diameter':
      return 'diameter'
    case 'angle':
      return 'angle'
  }
}
