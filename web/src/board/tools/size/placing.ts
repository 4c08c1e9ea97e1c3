import { add, cross, scale, subtract, type Vec } from '@lathica/core/geometry'
import {
  entityMap,
  entityName,
  isGiven,
  lineEnds,
  locator,
  offLine,
  type Sketch,
  type SketchPlane,
} from '@lathica/core/sketch'
import { sizeWord } from '@lathica/core/constraints'
import { fittingSizes, sameSize, type SizeOffer } from '@lathica/core/edit'
import { allAt, pickAt } from '../../pick'
import { anchorOf } from '../../sizes/measured'
import { toPlane } from '../../view'
import type { Board, Overlay, PointerAt, ToolState } from '../tool'

/** Begins with what is picked, if that can be sized. */
export function beginSize(board: Board): ToolState {
  const offers = fittingSizes(board.sketch(), board.picks())
  return offers.length > 0 ? placing(board, [board.picks()]) : choosing(board)
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
      return placing(board, [[id]], at)
    },
    refresh: () => choosing(board),
  }
  return state
}

/** Things that are measured between: what was picked, or what lies in the same place. */
type Reading = readonly string[]

/**
 * Something is picked; a click on more adds to it, a click on empty paper puts the size there.
 * @param readings what was picked, and what else may have been meant
 * @param turn how many times another of the fitting sizes was asked for
 */
function placing(board: Board, readings: readonly Reading[], at?: PointerAt, turn = 0): ToolState {
  const sketch = board.sketch()
  const [picks = []] = readings
  const all = readings.flatMap((reading) =>
    fittingSizes(sketch, reading).map((offer) => ({ reading, offer })),
  )
  const choose = (place: PointerAt | undefined) => chooseOffer(board, all, place, turn)
  const chosen = choose(at)
  return {
    hint: hintFor(all.length, chosen?.offer, board.sketch().plane),
    cursor: 'crosshair',
    ...(chosen ? { overlay: overlayOf(board, chosen, at) } : {}),
    move(next) {
      board.setHover(pickAt(sketch, board.view(), next.px))
      return placing(board, readings, next, turn)
    },
    press(here) {
      const id = pickAt(sketch, board.view(), here.px)
      if (id !== undefined && !picks.includes(id)) {
        const both = [...picks, id]
        const fits = fittingSizes(sketch, both).length > 0
        const next = fits ? both : [id]
        board.setPicks(next)
        const others = allAt(sketch, board.view(), here.px)
          .filter((other) => fits && other !== id && !picks.includes(other))
          .map((other) => [...picks, other])
        return placing(board, [next, ...others], here)
      }
      const found = choose(here)
      if (!found) return placing(board, readings, here, turn)
      const chosen = found.offer
      const there = sameSize(sketch, chosen)
      const label = labelFor(board, chosen, here)
      board.openField(
        there
          ? { kind: 'size', id: there.id }
          : { kind: 'new', offer: chosen, ...(label ? { label } : {}) },
      )
      board.setPicks([])
      return choosing(board)
    },
    key: (key) => (key === 'Tab' ? placing(board, readings, at, turn + 1) : undefined),
    escape() {
      board.setPicks([])
      return choosing(board)
    },
    refresh: () => choosing(board),
  }
}

function overlayOf(
  board: Board,
  { reading: picks, offer }: Read,
  at: PointerAt | undefined,
): Overlay {
  const label = at && labelFor(board, offer, at)
  const sketch = board.sketch()
  // Where several things lie in one place it is not seen which of them were picked.
  const between =
    picks.length > 1 ? [`from ${picks.map((id) => entityName(sketch, id)).join(' to ')}`] : []
  return { offer, words: [nameOf(offer, sketch.plane), ...between], ...(label ? { label } : {}) }
}

/** An angle stays in the sector where its label was put; other sizes find their own place. */
function labelFor(board: Board, offer: SizeOffer, at: PointerAt): Vec | undefined {
  if (offer.kind !== 'angle') return undefined
  const sketch = board.sketch()
  const size = { ...offer, id: '', name: '', formula: '', reference: false }
  const anchor = anchorOf(size, entityMap(sketch), locator(sketch))
  return subtract(toPlane(board.view(), at.px), anchor)
}

/** A size that fits, with what it measures between. */
interface Read {
  readonly reading: Reading
  readonly offer: SizeOffer
}

/** Another of the fitting sizes for every Tab, from the one of the first reading that the label's place tells. */
function chooseOffer(
  board: Board,
  all: readonly Read[],
  at: PointerAt | undefined,
  turn: number,
): Read | undefined {
  const first = all.filter((r) => r.reading === all[0]?.reading).map((r) => r.offer)
  const likely = at ? likeliest(board.sketch(), first, toPlane(board.view(), at.px)) : 0
  const chosen = all[(likely + turn) % Math.max(1, all.length)]
  if (chosen?.offer.kind !== 'angle' || !at) return chosen
  const offer = inSector(board.sketch(), chosen.offer, toPlane(board.view(), at.px))
  return { ...chosen, offer }
}

/**
 * Where the label would be put tells what is meant: outside an axial line its length, towards the
 * axis its diameter; beside points their radial distance, above or below them their axial one; across
 * a line the span, on this side of it the distance.
 */
function likeliest(sketch: Sketch, offers: readonly SizeOffer[], p: Vec): number {
  const kinds = offers.map((o) => o.kind)
  const wanted = kindAt(sketch, offers, kinds, p)
  return Math.max(0, wanted === undefined ? 0 : kinds.indexOf(wanted))
}

function kindAt(
  sketch: Sketch,
  offers: readonly SizeOffer[],
  kinds: readonly SizeOffer['kind'][],
  p: Vec,
): SizeOffer['kind'] | undefined {
  const locate = locator(sketch)
  const entities = entityMap(sketch)
  const [first] = offers
  const span = offers.find((o) => o.kind === 'span')
  if (span?.kind === 'span') {
    const side = (v: Vec): number => offLine(entities, locate, v, span.about)
    return side(p) * side(locate(span.point)) < 0 ? 'span' : 'gap'
  }
  if (first?.kind === 'length' && kinds.includes('diameter')) {
    const [a] = lineEnds(entities, locate, first.line)
    return p.y < a.y ? 'diameter' : 'length'
  }
  const pair = offers.find((o) => o.kind === 'axialDistance')
  if (pair?.kind !== 'axialDistance' || !kinds.includes('radialDistance')) return undefined
  const [a, b] = [locate(pair.a), locate(pair.b)]
  if (kinds.includes('diameter')) return undefined
  const besides = p.x < Math.min(a.x, b.x) || p.x > Math.max(a.x, b.x)
  const beyond = p.y < Math.min(a.y, b.y) || p.y > Math.max(a.y, b.y)
  if (beyond && !besides) return 'axialDistance'
  if (besides && !beyond) return 'radialDistance'
  if (first?.kind !== 'length') {
    const onCorner = !besides && [a.y, b.y].some((y) => Math.abs(p.y - y) < 1e-9)
    return onCorner ? 'axialDistance' : 'distance'
  }
  // Along a slanted line: its length on its outer side, its angle on the other.
  const t = (p.x - a.x) / (b.x - a.x || 1)
  return p.y < a.y + t * (b.y - a.y) ? 'angle' : 'length'
}

/** The angle of the sector the label stands in: the directions as drawn, or one of them turned about. */
function inSector(sketch: Sketch, offer: SizeOffer & { kind: 'angle' }, p: Vec): SizeOffer {
  const entities = entityMap(sketch)
  const locate = locator(sketch)
  const [a, b] = lineEnds(entities, locate, offer.line)
  const [c, d] = lineEnds(entities, locate, offer.to)
  const [u, v] = [subtract(b, a), subtract(d, c)]
  const turn = cross(u, v)
  if (Math.abs(turn) < 1e-12) return offer
  const vertex = add(a, scale(u, cross(subtract(c, a), v) / turn))
  const w = subtract(p, vertex)
  const alongFirst = cross(w, v) / turn
  const alongSecond = cross(u, w) / turn
  return { ...offer, reversed: alongFirst * alongSecond < 0 }
}

function hintFor(count: number, offer: SizeOffer | undefined, plane: SketchPlane): string {
  if (!offer) return 'Click a second thing to measure to; Esc starts over.'
  const more = count > 1 ? ' Tab takes another measure.' : ''
  return `Click empty paper to put the ${sizeWord(offer.kind, plane)} there, or a second thing.${more}`
}

function nameOf(offer: SizeOffer, plane: SketchPlane): string {
  const fromDatum = plane === 'half' && offer.kind === 'axialDistance' && isGiven(offer.a)
  return fromDatum ? 'distance from the datum' : sizeWord(offer.kind, plane)
}
