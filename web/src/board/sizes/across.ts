import type { Vec } from '@lathica/core/geometry'
import { linesOf, type Locate, type Size, type Sketch } from '@lathica/core/sketch'
import type { Px } from '../view'
import { LABEL_HEIGHT, type Frame, type Place } from './frame'
import { BREAK_IN } from '../beyond'
import { measured } from './measured'
import { WITNESS_BEYOND, WITNESS_GAP, labelWidth, type Setting, type SizeDrawing } from './setting'

/** A diameter and where it is measured. */
export interface AcrossItem {
  readonly size: Size
  readonly text: string
  readonly a: number
  readonly r: number
  /** where the measured point is along the axis, in pixels */
  readonly foot: number
  /** how far the dimension line may stand off to either side on its land, in pixels */
  readonly room: number
}

/** The first axial outline at each point that has one, by its ends. */
export function landsOf(sketch: Sketch, locate: Locate): ReadonlyMap<string, readonly [Vec, Vec]> {
  const lands = new Map<string, readonly [Vec, Vec]>()
  for (const { role, from, to } of linesOf(sketch)) {
    const [p, q] = [locate(from), locate(to)]
    if (role !== 'outline' || Math.abs(p.y - q.y) >= 1e-6 || Math.abs(p.x - q.x) <= 1e-6) continue
    for (const end of [from, to]) if (!lands.has(end)) lands.set(end, [p, q])
  }
  return lands
}

/** A diameter stands in the middle of its land where there is one, else at its point. */
export function acrossItem(setting: Setting, size: Size): AcrossItem {
  const { frame, entities, locate } = setting
  const [at] = measured(size, entities, locate).ends
  const land = size.kind === 'diameter' ? setting.lands.get(size.point) : undefined
  const x = land ? (land[0].x + land[1].x) / 2 : at.x
  return {
    size,
    text: setting.text(size),
    a: x * frame.scale,
    r: Math.abs(at.y) * frame.scale,
    foot: at.x * frame.scale,
    room: land ? (Math.abs(land[1].x - land[0].x) * frame.scale) / 2 - 6 : 0,
  }
}

/** Dimension lines nearer than this to one another are hard to tell apart, in pixels. */
const LINES_APART = LABEL_HEIGHT + 5

/** Moves dimension lines that would fall together along their lands, as far as these reach. */
function apart(items: readonly AcrossItem[]): AcrossItem[] {
  const taken: number[] = []
  return [...items]
    .sort((x, y) => x.room - y.room)
    .map((item) => {
      const shifts = [0, 1, -1, 2, -2, 3, -3].map((k) => k * LINES_APART)
      const free = shifts.find(
        (shift) =>
          (shift === 0 || Math.abs(shift) <= item.room) &&
          taken.every((t) => Math.abs(t - item.a - shift) >= LINES_APART - 1),
      )
      const a = item.a + (free ?? 0)
      taken.push(a)
      return { ...item, a }
    })
}

/** More than so many beside the part are harder to read than labels that stand upright. */
const MOST_BESIDE = 2

/**
 * Labels stand in a row beyond the mirror image. Those for which the row has no room, as on discs,
 * are measured outside the part instead, beside the end they are nearer to. Where many lands follow
 * closely along a part with room for all, labels stand upright beyond the mirror image on leaders.
 */
export function stackAcross(setting: Setting, items: readonly AcrossItem[]): SizeDrawing[] {
  const { frame, ends } = setting
  if (setting.edge > 0) return halfAcross(setting, items)
  const moved = apart(items).sort((x, y) => x.a - y.a)
  const { inside, outside } = rowOf(moved, (item) => frame.extent(labelWidth(item.text)).along)
  const roomy = moved.length * LABEL_HEIGHT <= ends[1] - ends[0]
  if (frame.upright && roomy && outside.length > MOST_BESIDE) {
    const places = spread(moved.map((item) => item.a))
    return moved.map((item, i) => standingDrawing(setting, item, places[i] ?? item.a))
  }
  const middle = (ends[0] + ends[1]) / 2
  const right = outside.filter((i) => i.foot >= middle)
  const left = outside.filter((i) => i.foot < middle)
  return [
    ...inside.map((item) => acrossDrawing(setting, item)),
    ...besideEnd(setting, right, ends[1], 1),
    ...besideEnd(setting, left, ends[0], -1),
  ]
}

/** Which labels find room in one row, in the order given, and which do not. */
function rowOf(
  items: readonly AcrossItem[],
  reach: (item: AcrossItem) => number,
): { readonly inside: readonly AcrossItem[]; readonly outside: readonly AcrossItem[] } {
  const inside: AcrossItem[] = []
  const outside: AcrossItem[] = []
  let end = -Infinity
  for (const item of items) {
    const half = reach(item) / 2 + 2
    if (item.a - half < end) outside.push(item)
    else {
      end = item.a + half
      inside.push(item)
    }
  }
  return { inside, outside }
}

/**
 * Places in rising order moved as little as may be, by least squares, until they are a label's
 * height apart: neighbours that would come too near are pooled about their mean.
 */
function spread(wanted: readonly number[]): number[] {
  const pools: { sum: number; count: number }[] = []
  wanted.forEach((place, i) => {
    pools.push({ sum: place - i * LABEL_HEIGHT, count: 1 })
    for (;;) {
      const [before, last] = pools.slice(-2)
      if (!before || !last || before.sum / before.count <= last.sum / last.count) break
      pools.splice(-2, 2, { sum: before.sum + last.sum, count: before.count + last.count })
    }
  })
  return pools
    .flatMap(({ sum, count }) => Array.from({ length: count }, () => sum / count))
    .map((place, i) => place + i * LABEL_HEIGHT)
}

/** A dimension line across the part; its label stands beyond the mirror image, on a bent leader. */
function standingDrawing(
  { frame, top }: Setting,
  { size, text, a, r }: AcrossItem,
  place: number,
): SizeDrawing {
  const width = labelWidth(text)
  const ends = [frame.toPane(a, r), frame.toPane(a, -r)] as const
  const small = 2 * r < 26
  const [bend, start] = [frame.toPane(a, -(top + 8)), frame.toPane(place, -(top + 22))]
  return {
    ...{ id: size.id, text, reference: size.reference },
    label: frame.toPane(place, -(top + 24 + width / 2)),
    width,
    upright: true,
    lines: [small ? [frame.toPane(a, r + 12), ends[1]] : ends],
    witnesses: [
      [ends[1], bend],
      [bend, start],
    ],
    arrows: small ? pointingIn(frame, a, r) : pointingOut(ends),
  }
}

/**
 * Diameters whose other half lies beyond the pane, with the axis: half a dimension line with one arrow, drawn up to the
 * break line, and its label on it, in as many rows as it takes.
 */
function halfAcross({ frame, edge }: Setting, items: readonly AcrossItem[]): SizeDrawing[] {
  const rows: number[] = []
  return apart(items)
    .sort((x, y) => x.a - y.a)
    .map(({ size, text, a, r }) => {
      const width = labelWidth(text)
      const { along, across } = frame.extent(width)
      const found = rows.findIndex((end) => a - along / 2 >= end)
      const row = found < 0 ? rows.length : found
      rows[row] = a + along / 2 + 4
      const label = edge + BREAK_IN + 4 + across / 2 + row * (across + 4)
      return {
        ...{ id: size.id, text, reference: size.reference },
        label: frame.toPane(a, label),
        width,
        lines: [[frame.toPane(a, r), frame.toPane(a, edge + BREAK_IN)]],
        witnesses: [],
        arrows: [[frame.toPane(a, r), frame.toPane(a, edge)]],
      }
    })
}

/** A dimension line across the part, its label beyond the mirror image. */
function acrossDrawing({ frame, top }: Setting, { size, text, a, r }: AcrossItem): SizeDrawing {
  const width = labelWidth(text)
  const label = -(top + 18 + frame.extent(width).across / 2)
  const ends = [frame.toPane(a, r), frame.toPane(a, -r)] as const
  const small = 2 * r < 26
  return {
    ...{ id: size.id, text, reference: size.reference },
    label: frame.toPane(a, label),
    width,
    lines: [small ? [frame.toPane(a, r + 12), ends[1]] : ends],
    witnesses: [[ends[1], frame.toPane(a, label)]],
    arrows: small ? pointingIn(frame, a, r) : pointingOut(ends),
  }
}

/** A diameter whose label was dragged: its line runs through the label, or up to it. */
export function acrossAt(
  { frame }: Setting,
  { size, text, foot, r }: AcrossItem,
  label: Place,
): SizeDrawing {
  const { a } = label
  const ends = [frame.toPane(a, r), frame.toPane(a, -r)] as const
  const small = 2 * r < 26
  const side = Math.sign(a - foot)
  const witness = (sign: number): [Px, Px] => [
    frame.toPane(foot + side * WITNESS_GAP, sign * r),
    frame.toPane(a + side * WITNESS_BEYOND, sign * r),
  ]
  const low = Math.min(label.r, small ? -r - 12 : -r)
  const high = Math.max(label.r, small ? r + 12 : r)
  return {
    ...{ id: size.id, text, reference: size.reference },
    label: frame.toPane(a, label.r),
    width: labelWidth(text),
    lines: [[frame.toPane(a, low), frame.toPane(a, high)]],
    witnesses: side === 0 ? [] : [witness(1), witness(-1)],
    arrows: small ? pointingIn(frame, a, r) : pointingOut(ends),
  }
}

/** Dimension lines beside an end of the part, small diameters nearer, each with its label on it. */
function besideEnd(
  { frame }: Setting,
  items: readonly AcrossItem[],
  end: number,
  side: 1 | -1,
): SizeDrawing[] {
  const pitch = 8 + Math.max(0, ...items.map((i) => frame.extent(labelWidth(i.text)).along))
  return [...items]
    .sort((x, y) => x.r - y.r)
    .map(({ size, text, foot, r }, k) => {
      const a = end + side * (12 + pitch / 2 + k * pitch)
      const ends = [frame.toPane(a, r), frame.toPane(a, -r)] as const
      const small = 2 * r < 60
      const witness = (sign: number): [Px, Px] => [
        frame.toPane(foot + side * WITNESS_GAP, sign * r),
        frame.toPane(a + side * WITNESS_BEYOND, sign * r),
      ]
      return {
        ...{ id: size.id, text, reference: size.reference },
        label: frame.toPane(a, small ? -(r + 24) : -24),
        width: labelWidth(text),
        lines: [small ? [frame.toPane(a, r + 12), frame.toPane(a, -(r + 24))] : ends],
        witnesses: [witness(1), witness(-1)],
        arrows: small ? pointingIn(frame, a, r) : pointingOut(ends),
      }
    })
}

function pointingOut([a, b]: readonly [Px, Px]): (readonly [Px, Px])[] {
  return [
    [a, b],
    [b, a],
  ]
}

/** Arrows from outside, for diameters too small to hold them. */
function pointingIn(frame: Frame, a: number, r: number): (readonly [Px, Px])[] {
  return [1, -1].map((sign) => [frame.toPane(a, sign * r), frame.toPane(a, sign * (r + 12))])
}
