import { arc, line, rotate, vec, type Piece, type Vec } from '../../geometry'
import { saidText, type Asked, type SizeText } from '../asked'
import {
  GAP,
  head,
  narrow,
  textHeight,
  textPlot,
  textWidth,
  written,
  type Placed,
  type Style,
} from './marks'
import type { Seg, Space } from './space'

/** Sizes that run neither along the axis nor square to it, and angles. */

const OFFSETS = [8, 12, 16, 20, 26, 32, 40, 50]

/** Between two places of the paper, beside the line that joins them. */
export function laySlant(
  asked: Asked,
  from: Vec,
  to: Vec,
  isInside: (p: Vec) => boolean,
  space: Space,
  style: Style,
  moved?: Vec,
): Placed | undefined {
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  if (length === 0) return undefined
  const way = vec((to.x - from.x) / length, (to.y - from.y) / length)
  const sides = ([1, -1] as const).map((side) => vec(-way.y * side, way.x * side))
  if (moved) return slant(asked, from, to, way, vec(-way.y, way.x), moved.y, moved.x, style)
  const tries = OFFSETS.flatMap((offset) =>
    sides.map((out) => slant(asked, from, to, way, out, offset, 0, style)),
  )
  return tries.find((made) => isFree(made, isInside, space))
}

const isFree = ({ labels, lines }: Placed, isInside: (p: Vec) => boolean, space: Space): boolean =>
  labels.every(
    (l) =>
      space.hasRoom(l) &&
      ![
        vec(l.x0, l.y0),
        vec(l.x1, l.y0),
        vec(l.x0, l.y1),
        vec(l.x1, l.y1),
        vec((l.x0 + l.x1) / 2, (l.y0 + l.y1) / 2),
      ].some(isInside),
  ) && lines.every((l) => space.isClear(l))

function slant(
  asked: Asked,
  from: Vec,
  to: Vec,
  way: Vec,
  out: Vec,
  offset: number,
  along: number,
  style: Style,
): Placed {
  const text: SizeText = asked.lines[0] ?? { text: '' }
  const beside = (p: Vec, by: number): Vec => vec(p.x + out.x * by, p.y + out.y * by)
  const [a, b] = [beside(from, offset), beside(to, offset)]
  const isTight = Math.hypot(to.x - from.x, to.y - from.y) < 2 * style.arrow + 1.5
  const turn = isTight ? -1 : 1
  const reach = isTight ? style.arrow + 2.5 : 0
  const lines: Seg[] = [
    {
      a: vec(a.x - way.x * reach, a.y - way.y * reach),
      b: vec(b.x + way.x * reach, b.y + way.y * reach),
    },
    { a: beside(from, GAP * Math.sign(offset)), b: beside(from, offset + 1.8 * Math.sign(offset)) },
    { a: beside(to, GAP * Math.sign(offset)), b: beside(to, offset + 1.8 * Math.sign(offset)) },
  ]
  const [w, h] = [textWidth(text, style.letter), textHeight(text, style.letter)]
  const away = 1.6 + (Math.abs(out.x) * w) / 2 + (Math.abs(out.y) * h) / 2
  const middle = beside(vec((from.x + to.x) / 2, (from.y + to.y) / 2), offset + away)
  const at = vec(middle.x - w / 2 + way.x * along, middle.y - h / 2 + way.y * along)
  return {
    ...{ id: asked.id, said: saidText(text), lines, at },
    moves: {
      by: vec(along, out.x === -way.y ? offset : -offset),
      along: way,
      across: vec(-way.y, way.x),
    },
    labels: [textPlot(text, at, false, style.letter)],
    items: [
      narrow(lines),
      head(a, vec(-way.x * turn, -way.y * turn), style.arrow),
      head(b, vec(way.x * turn, way.y * turn), style.arrow),
      ...written(text, at, false, style.letter),
    ],
  }
}

const RADII = [14, 18, 22, 27, 33, 40, 50, 62]

/** Two directions from a place of the paper. */
interface Round {
  readonly at: Vec
  readonly one: Vec
  readonly other: Vec
  /** As far out as the places are that are told of: lines lead from there to the arc. */
  readonly far?: readonly number[] | undefined
}

/**
 * Between two directions from a place, as an arc with its value beyond it.
 * @param clear of the middle of a view, how far out it reaches: arcs beyond that are tried as well
 */
export function layAngle(
  asked: Asked,
  round: Round,
  isInside: (p: Vec) => boolean,
  space: Space,
  style: Style,
  moved?: Vec,
  clear = 0,
): Placed | undefined {
  const { one, other, far } = round
  const turn = Math.atan2(one.x * other.y - one.y * other.x, one.x * other.x + one.y * other.y)
  const made = (radius: number, from = one): Placed =>
    angle(asked, { ...round, one: from }, turn, radius, style)
  if (moved) return made(Math.max(4, moved.y))
  const radii = [...RADII, ...OFFSETS.map((off) => clear + off)]
  // Told between two places it stands on their side only.
  const tries = radii.flatMap((r) => (far ? [made(r)] : [made(r), made(r, vec(-one.x, -one.y))]))
  return tries.find((t) => isFree(t, isInside, space))
}

function angle(
  asked: Asked,
  { at, one, far = [] }: Round,
  turn: number,
  radius: number,
  style: Style,
): Placed {
  const text: SizeText = asked.lines[0] ?? { text: '' }
  const on = (by: number, far = radius): Vec => {
    const way = rotate(one, by)
    return vec(at.x + way.x * far, at.y + way.y * far)
  }
  const bow: Piece = arc(on(0), on(turn), at, turn > 0)
  const chords = 8
  const lines: Seg[] = Array.from({ length: chords }, (_, i) => ({
    a: on((turn * i) / chords),
    b: on((turn * (i + 1)) / chords),
  }))
  const ends = [0, turn].map((by, i): Seg => {
    const from = far[i] === undefined ? radius - 4 : far[i] + GAP
    return { a: on(by, Math.min(from, radius)), b: on(by, radius + 2) }
  })
  const [w, h] = [textWidth(text, style.letter), textHeight(text, style.letter)]
  const way = rotate(one, turn / 2)
  const middle = on(turn / 2, radius + 1.6 + (Math.abs(way.x) * w) / 2 + (Math.abs(way.y) * h) / 2)
  const corner = vec(middle.x - w / 2, middle.y - h / 2)
  const sign = Math.sign(turn)
  const tangent = (by: number, side: number): Vec => {
    const out = rotate(one, by)
    return vec(-out.y * side, out.x * side)
  }
  return {
    ...{ id: asked.id, said: saidText(text), lines: [...lines, ...ends], at: corner },
    moves: { by: vec(0, radius), along: vec(0, 0), across: way },
    labels: [textPlot(text, corner, false, style.letter)],
    items: [
      { kind: 'stroke', line: 'narrow', runs: [[bow], ...ends.map(({ a, b }) => [line(a, b)])] },
      head(on(0), tangent(0, -sign), style.arrow),
      head(on(turn), tangent(turn, sign), style.arrow),
      ...written(text, corner, false, style.letter),
    ],
  }
}
