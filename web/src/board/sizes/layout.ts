import {
  entityMap,
  formatAngle,
  formatLength,
  lineEnds,
  locator,
  measureSize,
  type Entity,
  type Locate,
  type Size,
  type Sketch,
  type UnitSettings,
  type Vec,
} from '@lathica/core'
import type { Px, View } from '../view'
import { frameOf, LABEL_HEIGHT, type Frame } from './frame'

/** How one size is drawn: its lines, arrows and where its label goes, in pixels. */
export interface SizeDrawing {
  readonly id: string
  readonly text: string
  readonly reference: boolean
  readonly label: Px
  readonly width: number
  /** dimension lines, full weight */
  readonly lines: readonly (readonly [Px, Px])[]
  /** witness and leader lines, hairlines */
  readonly witnesses: readonly (readonly [Px, Px])[]
  /** arrow heads: the tip, and a point it points away from */
  readonly arrows: readonly (readonly [Px, Px])[]
  readonly arc?: {
    readonly centre: Px
    readonly radius: number
    readonly from: Px
    readonly to: Px
  }
}

/** What the layout goes round: the greatest radius of anything drawn, in mm. */
interface Setting {
  readonly sketch: Sketch
  readonly lines: ReadonlyMap<string, Entity>
  readonly locate: Locate
  readonly frame: Frame
  readonly top: number
  /** where the part begins and ends along the axis, in pixels */
  readonly ends: readonly [number, number]
  readonly text: (size: Size) => string
}

const FIRST_LEVEL = 26
const LEVEL_GAP = 4
const WITNESS_GAP = 4
const WITNESS_BEYOND = 5
const CHARACTER = 7.25

export function labelWidth(text: string): number {
  return Math.round(text.length * CHARACTER + 10)
}

/**
 * Lays sizes out without overlaps: axial ones in levels outside the section, short ones nearer;
 * diameters across the part with their labels in rows beyond its mirror image (ISO 129-1).
 * @param top greatest radius in mm that the levels keep clear of
 */
export function layoutSizes(
  sketch: Sketch,
  sizes: readonly Size[],
  view: View,
  top: number,
  units: UnitSettings,
): SizeDrawing[] {
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const setting: Setting = {
    sketch,
    lines,
    locate,
    frame: frameOf(view),
    top: top * view.scale,
    ends: [
      Math.min(...sketch.points.map((p) => p.x)) * view.scale,
      Math.max(...sketch.points.map((p) => p.x)) * view.scale,
    ],
    text: (size) => labelText(size, measureSize(size, lines, locate), units),
  }
  const axial: AxialItem[] = []
  const across: AcrossItem[] = []
  const drawings: SizeDrawing[] = []
  for (const size of sizes) {
    const item = axialItem(setting, size)
    if (item) axial.push(item)
    else if (size.kind === 'diameter') across.push(acrossItem(setting, size))
    else if (size.kind === 'length') drawings.push(alignedSize(setting, size))
    else if (size.kind === 'angle') drawings.push(angleSize(setting, size))
  }
  return [...drawings, ...stackAxial(setting, axial), ...stackAcross(setting, across)]
}

function labelText(size: Size, value: number, units: UnitSettings): string {
  const sign = size.kind === 'diameter' ? '⌀' : ''
  const figure = size.kind === 'angle' ? formatAngle(value, units) : formatLength(value, units)
  return size.reference ? `(${sign}${figure})` : `${sign}${figure}`
}

interface AxialItem {
  readonly size: Size
  readonly text: string
  /** both ends along the axis and how far out they lie, in pixels, the lesser first */
  readonly ends: readonly [{ a: number; r: number }, { a: number; r: number }]
}

/** Axial distances, and lengths of lines that run along the axis. */
function axialItem(setting: Setting, size: Size): AxialItem | undefined {
  const points = axialEnds(setting, size)
  if (!points) return undefined
  const { scale } = setting.frame
  const [p, q] = points.map((v) => ({ a: v.x * scale, r: v.y * scale }))
  if (!p || !q) return undefined
  return { size, text: setting.text(size), ends: p.a <= q.a ? [p, q] : [q, p] }
}

function axialEnds({ lines, locate }: Setting, size: Size): readonly Vec[] | undefined {
  if (size.kind === 'axialDistance') return [locate(size.a), locate(size.b)]
  if (size.kind !== 'length') return undefined
  const [a, b] = lineEnds(lines, locate, size.line)
  const axial = Math.abs(b.y - a.y) < 1e-6 * Math.max(1, Math.abs(b.x - a.x))
  return axial ? [a, b] : undefined
}

/** Short ones first; each goes one level above all it overlaps, so that no witness line is crossed. */
function stackAxial({ frame, top }: Setting, items: readonly AxialItem[]): SizeDrawing[] {
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
        const below = placed.filter((o) => o.from < to - 1 && o.to > from + 1)
        return { label, from, to, level: 1 + Math.max(-1, ...below.map((o) => o.level)) }
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

interface AcrossItem {
  readonly size: Size
  readonly text: string
  readonly a: number
  readonly r: number
  /** where the measured point is along the axis, in pixels */
  readonly foot: number
  /** how far the dimension line may stand off to either side on its land, in pixels */
  readonly room: number
}

/** A diameter stands in the middle of its land where there is one, else at its point. */
function acrossItem(setting: Setting, size: Size & { kind: 'diameter' }): AcrossItem {
  const { sketch, frame, locate } = setting
  const at = locate(size.point)
  const land = sketch.entities
    .filter((e) => e.role === 'outline' && (e.from === size.point || e.to === size.point))
    .map((e) => [locate(e.from), locate(e.to)] as const)
    .find(([p, q]) => Math.abs(p.y - q.y) < 1e-6 && Math.abs(p.x - q.x) > 1e-6)
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

/**
 * Labels stand in a row beyond the mirror image. Those for which the row has no room, as on discs,
 * are measured outside the part instead, beside the end they are nearer to.
 */
function stackAcross(setting: Setting, items: readonly AcrossItem[]): SizeDrawing[] {
  const { frame, ends } = setting
  const row: { from: number; to: number }[] = []
  const inside: AcrossItem[] = []
  const outside: AcrossItem[] = []
  for (const item of apart(items).sort((x, y) => x.a - y.a)) {
    const { along } = frame.extent(labelWidth(item.text))
    const [from, to] = [item.a - along / 2 - 2, item.a + along / 2 + 2]
    if (row.some((o) => o.from < to && o.to > from)) outside.push(item)
    else {
      row.push({ from, to })
      inside.push(item)
    }
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

/** A dimension line across the part, its label beyond the mirror image. */
function acrossDrawing({ frame, top }: Setting, { size, text, a, r }: AcrossItem): SizeDrawing {
  const width = labelWidth(text)
  const label = -(top + 18 + frame.extent(width).across / 2)
  const ends = [frame.toPane(a, r), frame.toPane(a, -r)] as const
  const small = 2 * r < 26
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: frame.toPane(a, label),
    width,
    lines: [small ? [frame.toPane(a, r + 12), ends[1]] : ends],
    witnesses: [[ends[1], frame.toPane(a, label)]],
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
        id: size.id,
        text,
        reference: size.reference,
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

/** The length of a line that is not axial: along the line, on its outer side. */
function alignedSize(setting: Setting, size: Size & { kind: 'length' }): SizeDrawing {
  const { lines, locate, frame } = setting
  const [p, q] = lineEnds(lines, locate, size.line)
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  const [ux, uy] = [(q.x - p.x) / length, (q.y - p.y) / length]
  // Outwards, or to the right of a radial line.
  const sign = ux === 0 || Math.abs(ux) < 1e-9 ? Math.sign(uy) || 1 : -Math.sign(ux)
  const [nx, ny] = [sign * uy, sign * -ux]
  const off = 22
  const s = frame.scale
  const pane = (v: Vec, by: number): Px => frame.toPane(v.x * s + nx * by, v.y * s + ny * by)
  const text = setting.text(size)
  const width = labelWidth(text)
  const inside = length * s >= LABEL_HEIGHT + 24
  const [a, b] = [pane(p, off), pane(q, off)]
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  const beside = frame.toPane(
    ((p.x + q.x) / 2) * s + nx * (off + 8 + frame.extent(width).along / 2),
    ((p.y + q.y) / 2) * s + ny * (off + LABEL_HEIGHT),
  )
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: inside ? middle : beside,
    width,
    lines: [[a, b]],
    witnesses: [
      [pane(p, WITNESS_GAP), pane(p, off + WITNESS_BEYOND)],
      [pane(q, WITNESS_GAP), pane(q, off + WITNESS_BEYOND)],
    ],
    arrows: [
      [a, b],
      [b, a],
    ],
  }
}

/** An angle: an arc about the place where the directions meet, from one to the other. */
function angleSize(setting: Setting, size: Size & { kind: 'angle' }): SizeDrawing {
  const { lines, locate, frame } = setting
  const first = lineEnds(lines, locate, size.line)
  const [p, q] = size.reversed ? [first[1], first[0]] : first
  const second = lines.has(size.to) ? lineEnds(lines, locate, size.to) : undefined
  const vertex = second ? (meeting([p, q], second) ?? p) : p
  const toward = second ? direction(second[0], second[1]) : { x: 1, y: 0 }
  const s = frame.scale
  const radius = 38
  const centre = frame.toPane(vertex.x * s, vertex.y * s)
  const at = (v: Vec, reach: number): Px =>
    frame.toPane(vertex.x * s + v.x * reach, vertex.y * s + v.y * reach)
  const one = direction(p, q)
  const half = direction({ x: 0, y: 0 }, { x: one.x + toward.x, y: one.y + toward.y })
  const text = setting.text(size)
  const width = labelWidth(text)
  const ends = [at(one, radius), at(toward, radius)] as const
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: at(half, radius + 8 + width / 2),
    width,
    lines: [],
    witnesses: [[at(toward, 4), at(toward, radius + WITNESS_BEYOND)]],
    arrows: [],
    arc: { centre, radius, from: ends[0], to: ends[1] },
  }
}

function direction(p: Vec, q: Vec): Vec {
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  return { x: (q.x - p.x) / length, y: (q.y - p.y) / length }
}

/** Where two lines meet when drawn out; undefined when they are parallel. */
function meeting([p, q]: readonly [Vec, Vec], [a, b]: readonly [Vec, Vec]): Vec | undefined {
  const [dx, dy, ex, ey] = [q.x - p.x, q.y - p.y, b.x - a.x, b.y - a.y]
  const determinant = dx * ey - dy * ex
  if (Math.abs(determinant) < 1e-12) return undefined
  const t = ((a.x - p.x) * ey - (a.y - p.y) * ex) / determinant
  return { x: p.x + t * dx, y: p.y + t * dy }
}
