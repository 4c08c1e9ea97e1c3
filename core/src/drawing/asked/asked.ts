import type { ArcPiece, Vec } from '../../geometry'
import { splitTolerance } from '../../formula'
import { formatAngle, formatLength, type UnitSettings } from '../../units'

/** What a size says: its value with signs and a tolerance class, and limits one above the other where they differ. */
export interface SizeText {
  readonly text: string
  readonly upper?: string
  readonly lower?: string
}

/** What a size is of, in mm of the half-section. */
export type Shape =
  /** Along the axis from one place to another; inside where it is of a bore. */
  | { readonly kind: 'along'; readonly from: Vec; readonly to: Vec; readonly inside: boolean }
  /** A diameter, at a place of its face. */
  | { readonly kind: 'across'; readonly at: Vec; readonly inside: boolean }
  /** Square to the axis. */
  | { readonly kind: 'radial'; readonly from: Vec; readonly to: Vec }
  | { readonly kind: 'slant'; readonly from: Vec; readonly to: Vec }
  /** Between two directions from where they meet; `far` as far out as the places are that it is told of. */
  | {
      readonly kind: 'angle'
      readonly at: Vec
      readonly one: Vec
      readonly other: Vec
      readonly far?: readonly [number, number]
    }
  | { readonly kind: 'radius'; readonly arc: ArcPiece }
  /** Told at a place, with the way out of the material there. */
  | { readonly kind: 'place'; readonly at: Vec; readonly out: Vec }
  /** Told at a place of the view along the axis: x to the right, y upwards, in mm from the axis. */
  | { readonly kind: 'end'; readonly at: Vec; readonly out: Vec; readonly from: 'left' | 'right' }
  /** Of a sketch square to the axis, on the view from an end. */
  | { readonly kind: 'onEnd'; readonly from: 'left' | 'right'; readonly of: FlatShape }
  /** On the section across the axis at a place of it, seen from the left: x to the right, y upwards, in mm from the axis. */
  | {
      readonly kind: 'section'
      readonly at: number
      readonly way: 'level' | 'upright'
      readonly from: Vec
      readonly to: Vec
    }
  /** Told at a place of such a section. */
  | { readonly kind: 'onSection'; readonly at: number; readonly place: Vec; readonly out: Vec }

/** A shape in a view square to the axis, x to the right, y upwards. */
export type FlatShape = Extract<
  Shape,
  { readonly kind: 'along' | 'radial' | 'slant' | 'angle' | 'radius' | 'place' }
>

/** Where along the axis a shape wants the part to be cut across; undefined of all others. */
export const cutPlace = (shape: Shape): number | undefined =>
  shape.kind === 'section' || shape.kind === 'onSection' ? shape.at : undefined

/** A shape of the half-section at other places of it; what is seen elsewhere stays. */
export function placedShape(
  shape: Shape,
  put: (p: Vec) => Vec,
  putArc: (arc: ArcPiece) => ArcPiece,
): Shape {
  switch (shape.kind) {
    case 'along':
    case 'radial':
    case 'slant':
      return { ...shape, from: put(shape.from), to: put(shape.to) }
    case 'across':
    case 'angle':
    case 'place':
      return { ...shape, at: put(shape.at) }
    case 'radius':
      return { ...shape, arc: putArc(shape.arc) }
    case 'end':
    case 'onEnd':
    case 'section':
    case 'onSection':
      return shape
  }
}

/** From which end a shape is seen; undefined of what is seen elsewhere. */
export const endOf = (shape: Shape): 'left' | 'right' | undefined =>
  shape.kind === 'end' || shape.kind === 'onEnd' ? shape.from : undefined

/** A size or a call-out that the sheet has to show. */
export interface Asked {
  /** The first of what it shows. */
  readonly id: string
  /** All values it shows, by the ids they have among toleranced values. */
  readonly shows: readonly string[]
  readonly shape: Shape
  readonly lines: readonly SizeText[]
  /** In mm or radians; of call-outs of the first of them. */
  readonly value: number
  readonly body: string
  /** What it is of, to be said where it is not seen. */
  readonly named?: string
  /** The ends of other stretches that it tells too, by a count, or by symmetry that is seen. */
  readonly alike?: readonly (readonly [Vec, Vec])[]
  /** What stands instead of it where sections across the axis are drawn: it shows the same values. */
  readonly parts?: readonly Asked[]
}

/** A value as drawings have it, with what stands behind it. */
export function sizeText(
  value: number,
  formula: string,
  measure: 'length' | 'angle' | 'number',
  units: UnitSettings,
  before = '',
): SizeText {
  const figure =
    measure === 'angle'
      ? formatAngle(value, units)
      : measure === 'number'
        ? String(Number(value.toFixed(6)))
        : formatLength(value, units)
  const { tolerance } = splitTolerance(formula)
  const plain = `${before}${figure}`
  if (!tolerance) return { text: plain }
  const mark = tolerance.envelope ? ' Ⓔ' : ''
  const unit = measure === 'angle' && units.angle === 'deg' ? '°' : ''
  switch (tolerance.kind) {
    case 'class':
      return { text: `${plain} ${tolerance.text}${mark}` }
    case 'either':
      return { text: `${plain} ±${tolerance.by}${unit}${mark}` }
    case 'both':
      return {
        text: `${plain}${mark}`,
        upper: signed(tolerance.upper),
        lower: signed(tolerance.lower),
      }
  }
}

/** A deviation with the sign that drawings have. */
const signed = (text: string): string => text.replace(/^[-–]/, '−')

/** All of a size in one line, to be read out. */
export const saidText = ({ text, upper, lower }: SizeText): string =>
  upper === undefined ? text : `${text} ${upper} ${lower ?? ''}`.trimEnd()
