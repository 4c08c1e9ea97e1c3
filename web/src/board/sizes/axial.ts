import type { Size } from '@lathica/core/sketch'
import type { Px } from '../view'
import { LABEL_HEIGHT, type Frame } from './frame'
import { measured } from './measured'
import { WITNESS_BEYOND, WITNESS_GAP, labelWidth, type Setting, type SizeDrawing } from './setting'

/** How far the first level stands off the part, in pixels. */
const FIRST_LEVEL = 26

/** Gap between two levels, in pixels. */
const LEVEL_GAP = 4

/** An axial size with both its ends. */
export interface AxialItem {
  readonly size: Size
  readonly text: string
  /** both ends along the axis and how far out they lie, in pixels, the lesser first */
  readonly ends: readonly [{ a: number; r: number }, { a: number; r: number }]
}

/** What is measured along the axis: distances, lengths, spans and gaps. */
export function axialItem(setting: Setting, size: Size): AxialItem {
  const { ends } = measured(size, setting.entities, setting.locate)
  const { scale } = setting.frame
  const [one, two] = ends
  const p = { a: one.x * scale, r: one.y * scale }
  const q = { a: two.x * scale, r: two.y * scale }
  return { size, text: setting.text(size), ends: p.a <= q.a ? [p, q] : [q, p] }
}

/** Short ones first; each goes one level above all it overlaps, so that no witness line is crossed. */
export function stackAxial({ frame, top }: Setting, items: readonly AxialItem[]): SizeDrawing[] {
  const span = (item: AxialItem): number => item.ends[1].a - item.ends[0].a
  const widest = Math.max(0, ...items.map((i) => frame.extent(labelWidth(i.text)).across))
  const pitch = widest + LEVEL_GAP
  const placed: { from: number; to: number; level: number }[] = []
  return [...items]
    .sort((a, b) => span(a) - span(b))
    .map((item) => {
      const [p, q] = item.ends
      const width = labelWidth(item.text)
      const along = frame.extent(width).along
      const fits = q.a - p.a >= along + 2
      const places = fits ? [(p.a + q.a) / 2] : [q.a + 12 + along / 2, p.a - 12 - along / 2]
      const choices = places.map((label) => {
        const from = Math.min(p.a, label - along / 2)
        const to = Math.max(q.a, label + along / 2)
        let level = 0
        for (const o of placed) {
          if (o.from < to - 1 && o.to > from + 1) level = Math.max(level, o.level + 1)
        }
        return { label, from, to, level }
      })
      const { label, from, to, level } = choices.reduce((x, y) => (y.level < x.level ? y : x))
      placed.push({ from, to, level })
      const r = top + FIRST_LEVEL + widest / 2 - LABEL_HEIGHT / 2 + level * pitch
      return axialDrawing(frame, item, { width, along, fits, label, r })
    })
}

function axialDrawing(
  frame: Frame,
  { size, text, ends: [p, q] }: AxialItem,
  at: { width: number; along: number; fits: boolean; label: number; r: number },
): SizeDrawing {
  const place = (a: number): Px => frame.toPane(a, at.r)
  const inside = q.a - p.a >= at.along + 22
  const line: [Px, Px] = inside
    ? [place(p.a), place(q.a)]
    : [place(Math.min(p.a - 12, at.label)), place(Math.max(q.a + 12, at.label))]
  const witness = (end: { a: number; r: number }): [Px, Px] => [
    frame.toPane(end.a, end.r + WITNESS_GAP),
    frame.toPane(end.a, at.r + WITNESS_BEYOND),
  ]
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: place(at.label),
    width: at.width,
    lines: [line],
    witnesses: [witness(p), witness(q)],
    arrows: inside
      ? [
          [place(p.a), place(q.a)],
          [place(q.a), place(p.a)],
        ]
      : [
          [place(p.a), place(p.a - 12)],
          [place(q.a), place(q.a + 12)],
        ],
  }
}
