import type { Problem } from '@lathica/core/result'
import { arc, arcThrough, cross, line, subtract, type Vec } from '@lathica/core/geometry'
import { AXIS_ID, entityName, isEndSketch } from '@lathica/core/sketch'
import { type DraftSize, type End } from '@lathica/core/edit'
import { problem, readFields } from '../entry'
import { toPlane } from '../../view'
import { leaving, type Chain, type Stroke } from './stroke'
import type { Snap } from '../../snapping'
import type { EntryField, PointerAt } from '../tool'

/** The fields of the next piece, and what it is when they hold these texts, in the same order. */
export interface Typing {
  readonly fields: readonly EntryField[]
  readonly strokeFor: (texts: readonly string[]) => Stroke | Problem
}

/** Typing the length, the diameter at the end, or the angle of the next line. */
export function typedLine(chain: Chain, from: End, snap: Snap | undefined): Typing {
  const toward = snap?.end.at ?? { x: from.at.x + 1, y: from.at.y }
  const way = subtract(toward, from.at)
  // Across the axis no place has a diameter.
  const isEnd = isEndSketch(chain.board.sketch())
  const diameterField: EntryField = {
    ...{ label: '⌀ at the end', want: 'length', sign: '⌀', now: 2 * toward.y },
  }
  const level = entityName(chain.board.sketch(), AXIS_ID)
  const fields: EntryField[] = [
    { label: 'length', want: 'length', now: Math.hypot(way.x, way.y) },
    ...(isEnd ? [] : [diameterField]),
    { label: `angle to ${level}`, want: 'angle', now: acute(way) },
  ]
  const strokeFor = (typedTexts: readonly string[]): Stroke | Problem => {
    const values = readFields(chain.board, fields, typedTexts)
    if (!values.ok) return values.problem
    const spread = <T>([first, second, third]: readonly T[]): readonly (T | undefined)[] =>
      isEnd ? [first, undefined, second] : [first, second, third]
    const [length, diameter, angle] = spread(values.value)
    const texts = spread(typedTexts)
    const typed = { length, diameter, angle }
    const bad = refuse(typed)
    if (bad) return bad
    const directions = diameterKeeps(from, diameter, snap)
    const place = placeOf(from.at, way, directions, typed)
    if (!place) {
      const mend = 'Make the length longer, or leave one of them out.'
      return problem('chain.reach', 'A line of this length does not reach there.', mend)
    }
    const to: End = { at: place }
    const offers: (DraftSize | undefined)[] = [
      length === undefined
        ? undefined
        : { offer: { kind: 'length', line: '~piece' }, formula: texts[0] ?? '' },
      diameter === undefined
        ? undefined
        : { offer: { kind: 'diameter', point: '~to' }, formula: texts[1] ?? '' },
      angle === undefined
        ? undefined
        : {
            offer: {
              kind: 'angle',
              line: '~piece',
              to: AXIS_ID,
              reversed: place.x < from.at.x && angle <= Math.PI / 2,
            },
            formula: texts[2] ?? '',
          },
    ]
    return {
      from,
      to,
      piece: line(from.at, place),
      directions: angle === undefined ? directions : [],
      ties: [],
      sizes: offers.flatMap((o) => o ?? []),
    }
  }
  return { fields, strokeFor }
}

const acute = (way: Vec): number => Math.atan2(Math.abs(way.y), Math.abs(way.x))

function refuse(typed: {
  readonly length: number | undefined
  readonly diameter: number | undefined
  readonly angle: number | undefined
}): Problem | undefined {
  if ((typed.length ?? 1) <= 0) {
    return problem('chain.length', 'A length is greater than zero.', 'Type another.')
  }
  if ((typed.diameter ?? 1) < 0) {
    return problem('chain.diameter', 'A diameter is not negative.', 'Type it without a sign.')
  }
  const { angle = 1 } = typed
  if (angle <= 0 || angle >= Math.PI) {
    return problem('chain.angle', 'An angle lies between 0° and 180°.', 'Type another.')
  }
  return undefined
}

/** A typed diameter makes an axial line impossible unless it is the one the line begins at. */
function diameterKeeps(
  from: End,
  diameter: number | undefined,
  snap: Snap | undefined,
): Snap['directions'] {
  const directions = snap?.directions ?? []
  const level = diameter === undefined || Math.abs(diameter / 2 - from.at.y) < 1e-9
  return directions[0] === 'axial' && !level ? [] : directions
}

/** The end of a line by what was typed of it, on the side where the pointer is. */
function placeOf(
  from: Vec,
  way: Vec,
  directions: Snap['directions'],
  typed: {
    readonly length: number | undefined
    readonly diameter: number | undefined
    readonly angle: number | undefined
  },
): Vec | undefined {
  const { length, diameter, angle } = typed
  const right = way.x < 0 ? -1 : 1
  const rise = diameter === undefined ? undefined : diameter / 2 - from.y
  if (angle !== undefined) {
    const up = (rise ?? 0) !== 0 ? Math.sign(rise ?? 0) : way.y < 0 ? -1 : 1
    const along = angle > Math.PI / 2 ? 1 : right
    const direction = { x: along * Math.cos(angle), y: up * Math.sin(angle) }
    const reach = length ?? (rise === undefined ? Math.hypot(way.x, way.y) : rise / direction.y)
    return Number.isFinite(reach) && reach > 0
      ? { x: from.x + reach * direction.x, y: from.y + reach * direction.y }
      : undefined
  }
  if (length !== undefined && rise !== undefined) {
    const run = length * length - rise * rise
    return run < 0 ? undefined : { x: from.x + right * Math.sqrt(run), y: from.y + rise }
  }
  if (rise !== undefined) {
    return { x: directions[0] === 'radial' ? from.x : from.x + way.x, y: from.y + rise }
  }
  const share = (length ?? Math.hypot(way.x, way.y)) / (Math.hypot(way.x, way.y) || 1)
  return { x: from.x + way.x * share, y: from.y + way.y * share }
}

/** Typing the radius and the angle of turn of an arc that goes on smoothly. */
export function typedSmoothArc(chain: Chain, from: End, at: PointerAt | undefined): Typing {
  const { direction } = leaving(chain.board.sketch(), from)
  const toward = at ? toPlane(chain.board.view(), at.px) : from.at
  const left = cross(direction, subtract(toward, from.at)) >= 0
  const fields: EntryField[] = [
    { label: 'radius', want: 'length', sign: 'R' },
    { label: 'turn', want: 'angle', now: Math.PI / 2 },
  ]
  const strokeFor = (texts: readonly string[]): Stroke | Problem => {
    const values = readFields(chain.board, fields, texts)
    if (!values.ok) return values.problem
    const [radius, turn = Math.PI / 2] = values.value
    if (radius === undefined || radius <= 0) {
      return problem('chain.radius', 'A radius is greater than zero.', 'Type the radius.')
    }
    if (turn <= 0 || turn >= 2 * Math.PI) {
      return problem('chain.turn', 'The turn lies between 0° and 360°.', 'Type another.')
    }
    const sign = left ? 1 : -1
    const centre = {
      x: from.at.x - direction.y * radius * sign,
      y: from.at.y + direction.x * radius * sign,
    }
    const spoke = subtract(from.at, centre)
    const [c, s] = [Math.cos(sign * turn), Math.sin(sign * turn)]
    const to = {
      x: centre.x + c * spoke.x - s * spoke.y,
      y: centre.y + s * spoke.x + c * spoke.y,
    }
    return {
      from,
      to: { at: to },
      piece: arc(from.at, to, centre, left),
      directions: [],
      ties: [],
      sizes: [{ offer: { kind: 'radius', curve: '~piece' }, formula: texts[0] ?? '' }],
    }
  }
  return { fields, strokeFor }
}

/** Typing the radius of an arc between two places, bulging to the side of the pointer. */
export function typedArc(chain: Chain, from: End, to: End, at: PointerAt | undefined): Typing {
  const fields: EntryField[] = [{ label: 'radius', want: 'length', sign: 'R' }]
  const strokeFor = (texts: readonly string[]): Stroke | Problem => {
    const values = readFields(chain.board, fields, texts)
    if (!values.ok) return values.problem
    const [radius = 0] = values.value
    const chord = subtract(to.at, from.at)
    const half = Math.hypot(chord.x, chord.y) / 2
    if (radius < half) {
      const mend = 'Type a larger radius, or put the ends nearer to one another.'
      return problem('chain.radius', 'This radius does not reach from end to end.', mend)
    }
    const toward = at ? toPlane(chain.board.view(), at.px) : from.at
    const left = cross(chord, subtract(toward, from.at)) >= 0 ? 1 : -1
    const sagitta = radius - Math.sqrt(radius * radius - half * half)
    const through = {
      x: (from.at.x + to.at.x) / 2 - (left * sagitta * chord.y) / (2 * half),
      y: (from.at.y + to.at.y) / 2 + (left * sagitta * chord.x) / (2 * half),
    }
    const found = arcThrough(from.at, through, to.at)
    if (!found) return problem('chain.radius', 'This arc would be straight.', 'Type less.')
    return {
      from,
      to,
      piece: arc(from.at, to.at, found.centre, found.counterClockwise),
      directions: [],
      ties: [],
      sizes: [{ offer: { kind: 'radius', curve: '~piece' }, formula: texts[0] ?? '' }],
    }
  }
  return { fields, strokeFor }
}
