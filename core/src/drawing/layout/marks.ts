import { line, vec, type Piece, type Vec } from '../../geometry'
import type { SizeText } from '../asked'
import type { Fill, Item, Stroke, Words } from '../items'
import { widthOf } from '../lettering'
import { plot, type Plot, type Seg } from './space'

/** Heights and gaps of a sheet, in mm; all follow the height of its letters (ISO 129-1:2018, Annex A). */
export interface Style {
  /** Of capitals. */
  readonly letter: number
  /** From one dimension line to the next. */
  readonly pitch: number
  /** From the outline to the first. */
  readonly first: number
  /** Length of an arrow head. */
  readonly arrow: number
}

export const styleFor = (letter: number): Style => ({
  ...{ letter, pitch: letter * 2.3, first: letter * 2.8, arrow: letter * 0.9 },
})

/** From a dimension line to the letters above it, and from a feature to its extension line. */
export const ABOVE = 0.9
export const GAP = 0.8
/** So far do extension lines go beyond the dimension line. */
export const BEYOND = 1.8

/**
 * What stands beside labels: round numbers, as the inspection plan has them, and triangles where something was changed
 * since the drawing was released.
 */
export type BadgeKind = 'number' | 'change'

export interface Badge {
  readonly kind: BadgeKind
  readonly centre: Vec
}

/** Which badges labels get, by what they are and say. */
export type BadgesFor = (label: {
  readonly id: string
  readonly said: string
}) => readonly BadgeKind[]

/** Something placed on the paper: what is drawn, and what it takes up. */
export interface Placed {
  readonly id: string
  readonly said: string
  readonly items: readonly Item[]
  readonly labels: readonly Plot[]
  readonly lines: readonly Seg[]
  /** Where its label stands. */
  readonly at: Vec
  readonly moves: Moves
  /** Whether it is one of the lines beside the title block. */
  readonly isFixed?: true
  /** What stands beside its label. */
  readonly badges?: readonly Badge[]
}

/** How far a label stands from where it would, as it is kept, and the ways of the paper that this is told along. */
export interface Moves {
  readonly by: Vec
  readonly along: Vec
  readonly across: Vec
}

/** Told as the paper lies. */
export const straight = (by: Vec): Moves => ({ by, along: vec(1, 0), across: vec(0, 1) })

/** Limits one above the other are this much smaller than the figure before them. */
const STACKED = 0.7

/** How wide a size is written. */
export function textWidth({ text, upper, lower }: SizeText, letter: number): number {
  if (upper === undefined) return widthOf(text, letter)
  const limits = Math.max(widthOf(upper, STACKED * letter), widthOf(lower ?? '', STACKED * letter))
  return widthOf(text, letter) + 0.3 * letter + limits
}

/** How high a size is written above its base line. */
export const textHeight = ({ upper }: SizeText, letter: number): number =>
  upper === undefined ? letter : 1.9 * letter * STACKED + 0.25 * letter

/** A size in words at a place: where its base line begins, and which way it runs. */
export function written(
  { text, upper, lower }: SizeText,
  at: Vec,
  turned: boolean,
  letter: number,
): Words[] {
  const words = (t: string, along: number, up: number, height: number): Words => ({
    ...{ kind: 'words', height, turned, text: t },
    at: turned ? vec(at.x - up, at.y + along) : vec(at.x + along, at.y + up),
  })
  if (upper === undefined) return [words(text, 0, 0, letter)]
  const small = STACKED * letter
  const along = widthOf(text, letter) + 0.3 * letter
  return [
    words(text, 0, small * 0.6, letter),
    words(upper, along, small * 1.35, small),
    words(lower ?? '', along, 0, small),
  ]
}

/** A filled head with its point at a place, drawn the way it points (ISO 129-1:2018, 5.5: an angle of 15° to 30°). */
export function head(at: Vec, way: Vec, length: number): Fill {
  const half = length * 0.17
  const back = vec(at.x - way.x * length, at.y - way.y * length)
  const one = vec(back.x - way.y * half, back.y + way.x * half)
  const other = vec(back.x + way.y * half, back.y - way.x * half)
  return { kind: 'fill', tone: 'ink', loops: [[line(at, one), line(one, other), line(other, at)]] }
}

/** Narrow lines, as dimensions are drawn with. */
export const narrow = (segs: readonly Seg[]): Stroke => ({
  ...{ kind: 'stroke', line: 'narrow' },
  runs: segs.map(({ a, b }): Piece[] => [line(a, b)]),
})

/** The box of a text that begins at a place. */
export const textPlot = (text: SizeText, at: Vec, turned: boolean, letter: number): Plot => {
  const [w, h] = [textWidth(text, letter), textHeight(text, letter)]
  // Letters with tails reach a little below their line.
  const tail = 0.18 * letter
  return turned
    ? plot(at.x - h, at.y, at.x + tail, at.y + w)
    : plot(at.x, at.y - tail, at.x + w, at.y + h)
}
