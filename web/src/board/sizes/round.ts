import { radiusOf, pointAt, tangentAt, type Vec } from '@lathica/core/geometry'
import { lineEnds, pieceOf, type Size, isPlain } from '@lathica/core/sketch'
import type { Px } from '../view'
import type { Place } from './frame'
import { measured } from './measured'
import { WITNESS_BEYOND, labelWidth, type Setting, type SizeDrawing } from './setting'

type RoundSize = Extract<Size, { curve: string }>

/** A radius or an arc's own diameter: a leader from its curve to the label, in line with its centre. */
export function roundDrawing(setting: Setting, size: RoundSize, label: Place): SizeDrawing {
  const { entities, locate, frame } = setting
  const entity = entities.get(size.curve)
  const text = setting.text(size)
  const width = labelWidth(text)
  const s = frame.scale
  const plain = {
    id: size.id,
    text,
    reference: size.reference,
    label: frame.toPane(label.a, label.r),
    width,
  }
  const { ends } = measured(size, entities, locate)
  const [centre] = ends
  const piece = entity && isPlain(entity) ? pieceOf(entity, locate) : undefined
  if (piece?.kind !== 'arc') return leaderDrawing(setting, plain, ends[1])
  const radius = radiusOf(piece) * s
  const [ca, cr] = [centre.x * s, centre.y * s]
  if (size.kind === 'arcLength') return arcDrawing(setting, plain, piece, label)
  const length = Math.hypot(label.a - ca, label.r - cr) || 1
  const [ua, ur] = [(label.a - ca) / length, (label.r - cr) / length]
  const on = (by: number): Px => frame.toPane(ca + ua * by, cr + ur * by)
  const outside = length > radius
  const tip = on(radius)
  const far = on(length)
  if (size.kind === 'radius') {
    const tail = outside ? far : on(Math.min(length, radius - 1))
    return { ...plain, lines: [[tip, tail]], witnesses: [], arrows: [[tip, tail]] }
  }
  const opposite = on(-radius)
  return {
    ...plain,
    lines: [[opposite, outside ? far : tip]],
    witnesses: [],
    arrows: [
      [tip, opposite],
      [opposite, tip],
    ],
  }
}

/** What is read off a free curve: a leader to the place of it. */
function leaderDrawing(
  { frame }: Setting,
  plain: Pick<SizeDrawing, 'id' | 'text' | 'reference' | 'label' | 'width'>,
  place: Vec,
): SizeDrawing {
  const tip = frame.toPane(place.x * frame.scale, place.y * frame.scale)
  return { ...plain, lines: [[tip, plain.label]], witnesses: [], arrows: [[tip, plain.label]] }
}

/** The length of an arc: an arc beside it, with witness lines at its ends. */
function arcDrawing(
  { frame }: Setting,
  plain: Pick<SizeDrawing, 'id' | 'text' | 'reference' | 'label' | 'width'>,
  piece: Extract<ReturnType<typeof pieceOf>, { kind: 'arc' }>,
  label: Place,
): SizeDrawing {
  const s = frame.scale
  const { centre } = piece
  const radius = Math.max(8, Math.hypot(label.a - centre.x * s, label.r - centre.y * s))
  const at = (t: number, by: number): Px => {
    const p = pointAt(piece, t)
    const length = Math.hypot(p.x - centre.x, p.y - centre.y) || 1
    const [u, v] = [(p.x - centre.x) / length, (p.y - centre.y) / length]
    return frame.toPane(centre.x * s + u * by, centre.y * s + v * by)
  }
  const own = radiusOf(piece) * s
  const beyond = radius > own ? WITNESS_BEYOND : -WITNESS_BEYOND
  const parts = [0, 0.25, 0.5, 0.75]
  return {
    ...plain,
    lines: parts.flatMap((t) =>
      [0, 1, 2, 3].map((k) => [at(t + k / 16, radius), at(t + (k + 1) / 16, radius)] as const),
    ),
    witnesses: [0, 1].map((t) => [at(t, own), at(t, radius + beyond)] as const),
    arrows: [
      [at(0, radius), at(0.05, radius)],
      [at(1, radius), at(0.95, radius)],
    ],
  }
}

/** Places to try for the label of a round size: outside its curve, along it, then inside. */
export function roundPlaces(setting: Setting, size: RoundSize): Place[] {
  const { entities, locate, frame } = setting
  const entity = entities.get(size.curve)
  const piece = entity && isPlain(entity) ? pieceOf(entity, locate) : undefined
  const s = frame.scale
  if (piece?.kind !== 'arc') {
    const [, { x, y }] = measured(size, entities, locate).ends
    const { along, across } = frame.extent(labelWidth(setting.text(size)))
    const away = { a: 20 + along / 2, r: 14 + across / 2 }
    const ways = [
      [1, 1],
      [-1, 1],
      [1, 0],
      [-1, 0],
      [1, -1],
      [-1, -1],
    ] as const
    return ways.map(([a, r]) => ({ a: x * s + a * away.a, r: y * s + r * away.r }))
  }
  const radius = radiusOf(piece) * s
  const { along, across } = frame.extent(labelWidth(setting.text(size)))
  const full = entity?.kind === 'circle'
  const shares = full ? [0.125, 0.375, 0.625, 0.875] : [0.5, 0.35, 0.65, 0.2, 0.8]
  return [1, -1, 2].flatMap((side) =>
    shares.map((t): Place => {
      const tangent = tangentAt(piece, t)
      const p = pointAt(piece, t)
      const out = outward(p, piece.centre, tangent)
      const half = (Math.abs(out.x) * along + Math.abs(out.y) * across) / 2
      const by = side > 0 ? radius + side * 16 + half : Math.max(half, radius - 16 - half)
      return { a: piece.centre.x * s + out.x * by, r: piece.centre.y * s + out.y * by }
    }),
  )
}

function outward(p: Vec, centre: Vec, tangent: Vec): Vec {
  const length = Math.hypot(p.x - centre.x, p.y - centre.y)
  if (length === 0) return { x: tangent.y, y: -tangent.x }
  return { x: (p.x - centre.x) / length, y: (p.y - centre.y) / length }
}

/** An angle: an arc about the place where the directions meet, from one to the other. */
export function angleDrawing(
  setting: Setting,
  size: Size & { kind: 'angle' },
  label: Place | undefined,
): SizeDrawing {
  const { entities, locate, frame } = setting
  const first = lineEnds(entities, locate, size.line)
  const [p, q] = size.reversed ? [first[1], first[0]] : first
  const second = entities.has(size.to) ? lineEnds(entities, locate, size.to) : undefined
  const { ends } = measured(size, entities, locate)
  const [vertex] = ends
  const s = frame.scale
  const [va, vr] = [vertex.x * s, vertex.y * s]
  const text = setting.text(size)
  const width = labelWidth(text)
  let one = direction(p, q)
  let toward = second ? direction(second[0], second[1]) : { x: 1, y: 0 }
  const half = direction({ x: 0, y: 0 }, { x: one.x + toward.x, y: one.y + toward.y })
  // A label on the far side of the vertex shows the angle in the opposite sector.
  const opposite = label && (label.a - va) * half.x + (label.r - vr) * half.y < 0
  if (opposite) [one, toward] = [negative(one), negative(toward)]
  const away = label ? Math.hypot(label.a - va, label.r - vr) : 0
  const radius = label ? Math.max(14, away - 8 - width / 2) : 38
  const at = (v: Vec, reach: number): Px => frame.toPane(va + v.x * reach, vr + v.y * reach)
  const place = label ? frame.toPane(label.a, label.r) : at(half, radius + 8 + width / 2)
  return {
    id: size.id,
    text,
    reference: size.reference,
    label: place,
    width,
    lines: [],
    witnesses: [[at(toward, 4), at(toward, radius + WITNESS_BEYOND)]],
    arrows: [],
    arc: { centre: at(one, 0), radius, from: at(one, radius), to: at(toward, radius) },
  }
}

const negative = (v: Vec): Vec => ({ x: -v.x, y: -v.y })

function direction(p: Vec, q: Vec): Vec {
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
  return { x: (q.x - p.x) / length, y: (q.y - p.y) / length }
}
