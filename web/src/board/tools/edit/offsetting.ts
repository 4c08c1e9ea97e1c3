import { formatLength, unitScale } from '@lathica/core/units'
import { isFree, locator, nearestOf } from '@lathica/core/sketch'
import type { Vec } from '@lathica/core/geometry'
import { besideFits, offsetChain, type Beside } from '@lathica/core/edit'
import { toPlane } from '../../view'
import { withPicks } from './gathering'
import { piecesAfter } from './preview'
import type { Board, EntryField, Overlay, PointerAt, ToolState } from '../tool'

export function offsetting(board: Board): ToolState {
  return withPicks(board, 'offset', (ids) => beside(board, ids))
}

/** Shows the chain beside the chain, through the pointer; a click or a typed distance takes it. */
function beside(board: Board, ids: readonly string[], at?: PointerAt): ToolState {
  const sketch = board.sketch()
  const picked = sketch.entities.filter((e) => ids.includes(e.id))
  const locate = locator(sketch)
  const farFrom = (place: Vec): number =>
    Math.min(...picked.map((e) => nearestOf(e, locate, place)?.distance ?? Infinity))
  const side = at ? toPlane(board.view(), at.px) : { x: 0, y: 0 }
  const away = farFrom(side)
  const { units } = board.part()
  const inUnit = (mm: number): string =>
    String(Number((mm / unitScale('length', units)).toPrecision(3)))
  /** What typed texts, empty where nothing was, ask for. */
  const asked = ([distance = '', count = '']: readonly string[], place = side): Beside => ({
    ...{ sketch: sketch.id, ids, side: place },
    formula: distance.trim() === '' ? inUnit(farFrom(place)) : distance,
    ...(count.trim() === '' ? {} : { count: Number(count) }),
  })
  const shown = (wanted: Beside): Overlay => {
    const rubber = piecesAfter(board, offsetChain(wanted))
    const turned = picked.some((e) => e.role === 'outline') ? rubber : []
    const [worst] = [...besideFits(board.part(), wanted)].sort(
      (a, b) => b.fitted.deviation - a.fitted.deviation,
    )
    if (!worst) {
      const isExact = rubber.length > 0 && picked.some(isFree)
      return { rubber, turned, ...(isExact ? { words: ['exactly beside it, and follows'] } : {}) }
    }
    const { deviation, at: mark } = worst.fitted
    const off = `${formatLength(deviation, units)} ${units.length}`
    const band = { pieces: worst.exact, by: deviation }
    return { rubber, turned, mark, band, words: [`departs by ${off} at most`] }
  }
  const fields: EntryField[] = [
    { label: 'distance', want: 'length', now: away },
    ...(picked.some(isFree)
      ? [{ label: 'points', want: 'number', now: countOf(picked) } as const]
      : []),
  ]
  return {
    hint: picked.some(isFree)
      ? 'Click on the side where the new chain goes, or type its distance; with a number of points its curve is one of its own.'
      : 'Click on the side where the new chain goes, or type its distance.',
    cursor: 'crosshair',
    ...(at && away > 0 ? { overlay: shown(asked([])) } : {}),
    entry: {
      fields,
      take: (texts) => board.attempt(offsetChain(asked(texts))) ?? board.finish(),
      preview: (texts) => (texts.every((t) => t.trim() === '') ? undefined : shown(asked(texts))),
    },
    move: (next) => beside(board, ids, next),
    press: (here) => {
      const place = toPlane(board.view(), here.px)
      const isTaken = farFrom(place) > 0 && board.run(offsetChain(asked([], place)))
      return isTaken ? board.finish() : beside(board, ids, here)
    },
    refresh: () => board.finish(),
  }
}

/** How many points a curve beside gets if nothing is typed, as the one it lies beside. */
function countOf(
  picked: readonly { readonly kind: string; readonly by?: readonly string[] }[],
): number {
  const [most = 5] = picked.flatMap((e) => (e.by ? [e.by.length + 2] : [])).sort((a, b) => b - a)
  return most
}
