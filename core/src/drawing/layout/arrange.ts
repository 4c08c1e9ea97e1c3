import { vec, type Vec } from '../../geometry'
import type { SheetSetup } from '../../part'
import type { Item } from '../items'
import type { View } from '../views/turned'
import type { Placed } from './marks'
import { plot, type Plot } from './space'

/** Room between a view and what is beside it, in mm. */
const GAP = 14

/** A view with its labels, in a frame of its own, and what it takes up. */
export interface Sheeted {
  readonly view: View
  readonly extra: readonly Item[]
  readonly placed: readonly Placed[]
  readonly box: Plot
}

interface Spot {
  readonly sheeted: Sheeted
  readonly at: Vec
  readonly said: string
}

/** A view that stands on the sheet, and what it is called. */
export type Named = Sheeted & { readonly said: string }

interface Row {
  readonly spots: readonly Spot[]
  readonly width: number
  readonly height: number
}

/**
 * Views in projection: in the first angle what is seen from the left stands on the right, in the third on the left.
 * Sections across and details stand below them, in several rows where one would be too wide.
 */
export function arrange(
  main: Named,
  ends: readonly (Named & { readonly from: 'left' | 'right' })[],
  more: readonly Named[],
  projection: SheetSetup['projection'],
  most: number,
): Row {
  const side = (from: 'left' | 'right'): 'left' | 'right' =>
    projection === 'third' ? from : from === 'left' ? 'right' : 'left'
  const views = rowOf([
    ...ends.filter((e) => side(e.from) === 'left'),
    main,
    ...ends.filter((e) => side(e.from) === 'right'),
  ])
  // The view along the axis comes first, as it is read.
  const rows = [views, ...rowsOf(more, Math.max(most, views.width))]
  const width = Math.max(...rows.map((r) => r.width))
  const height = rows.reduce((sum, r) => sum + r.height + GAP / 2, -GAP / 2)
  let top = height
  const spots = rows.flatMap((row) => {
    top -= row.height
    const at = vec((width - row.width) / 2, top)
    top -= GAP / 2
    return row.spots.map((s) => ({ ...s, at: vec(s.at.x + at.x, s.at.y + at.y) }))
  })
  return { spots, width, height }
}

/** Views in as many rows as they need. */
function rowsOf(views: readonly Named[], most: number): Row[] {
  const rows: Named[][] = []
  for (const view of views) {
    const last = rows.at(-1)
    if (last && rowOf([...last, view]).width <= most) last.push(view)
    else rows.push([view])
  }
  return rows.map(rowOf)
}

/** Views side by side, their axes on one line. */
function rowOf(row: readonly Named[]): Row {
  const low = Math.min(...row.map((v) => v.box.y0))
  const high = Math.max(...row.map((v) => v.box.y1))
  let x = 0
  const spots = row.map((sheeted): Spot => {
    const at = vec(x - sheeted.box.x0, -low)
    x += sheeted.box.x1 - sheeted.box.x0 + GAP
    return { sheeted, at, said: sheeted.said }
  })
  return { spots, width: x - GAP, height: high - low }
}

/** What a view takes up with all its labels. */
export function boxOf({ left, right, radius }: View, placed: readonly Placed[]): Plot {
  const boxes = placed.flatMap(({ labels, lines }) => [
    ...labels,
    ...lines.map(({ a, b }) => plot(a.x, a.y, b.x, b.y)),
  ])
  return [plot(left - 4, -radius, right + 4, radius), ...boxes].reduce((a, b) => ({
    ...{ x0: Math.min(a.x0, b.x0), x1: Math.max(a.x1, b.x1) },
    ...{ y0: Math.min(a.y0, b.y0), y1: Math.max(a.y1, b.y1) },
  }))
}
