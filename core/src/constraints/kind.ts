import type { Vec } from '../geometry'
import type { Demand, Setting } from '../equations'
import type { Constraint, Entities, Locate, PlaneWords, Size, Sketch, Without } from '../sketch'

/** A constraint before it has an id. */
export type NewConstraint = Without<Constraint, 'id'>

/** Those members of a union that may be of a kind. */
type OfKind<T extends { readonly kind: string }, K> = T extends unknown
  ? K extends T['kind']
    ? T
    : never
  : never

/** Ids of what is picked: points, curves, the axis, the datum point. */
export type Picks = readonly string[]

/**
 * What a field holds: the id of something drawn in the sketch (`id`), or several; such an id or a
 * direction's word (`way`); the id of something else (`other`) or a name within it (`key`); a coordinate in
 * mm; yes or no; or one of some words.
 */
export type Field<T> = [T] extends [boolean]
  ? 'flag'
  : [T] extends [number]
    ? 'coordinate'
    : [T] extends [string]
      ? 'id' | 'way' | 'other' | 'key' | readonly T[]
      : [T] extends [readonly string[]]
        ? 'ids'
        : 'idLists'

/** What every field of a kind holds, in the order in which it names things. */
export type FieldsOf<T, Known extends PropertyKey> = {
  readonly [K in Exclude<keyof T, Known>]: Field<T[K]>
}

/** What things are called where a sentence about them is made. */
export interface Saying {
  readonly sketch: Sketch
  /** A point, curve, axis or datum point of an id in words. */
  readonly name: (id: string) => string
  /** What directions are called in the sketch's plane. */
  readonly words: PlaneWords
}

/** A kind of constraint: all there is to know of it but its looks. */
export interface ConstraintKind<C extends Constraint = Constraint> {
  readonly fields: FieldsOf<C, 'id' | 'kind'>
  /** The constraint in words, as in “line 3 axial”. */
  words(c: C, saying: Saying): string
  /** Puts on its plain ties, and returns what else it asks for. */
  demands(setting: Setting, c: C): readonly Demand[]
  /** Whether it makes points one or holds them: such are read before all others. */
  readonly joins?: true
  /** How it is put on picks; absent where only a tool makes it. */
  readonly offer?: {
    /** The constraints the picks would get; none when they do not fit. */
    make(sketch: Sketch, picks: Picks): readonly NewConstraint[]
    /** What must be picked, as a sentence. */
    readonly needs: string
  }
}

/** A kind of size: all there is to know of it but where its figure stands on the drawing. */
export interface SizeKind<S extends Size = Size> {
  readonly fields: FieldsOf<S, 'id' | 'kind' | 'name' | 'formula' | 'reference' | 'label'>
  readonly measures: 'length' | 'angle'
  /** The sign before its figure (ISO 129-1): ⌀ for diameters, R for radii. */
  readonly sign: '' | '⌀' | 'R' | '⌒'
  /** How names given to such sizes begin. */
  readonly prefix: string
  /** What it is called in a word or two, as in “axial distance”. */
  noun(words: PlaneWords): string
  /** What it measures, in words, as in “diameter at point 4”. */
  words(size: S, saying: Saying): string
  /** What it measures where the points stand, in mm or radians; never negative. */
  measure(size: S, entities: Entities, locate: Locate): number
  /** Puts on its plain ties, and returns what else it asks for. @param target in mm or radians */
  demands(setting: Setting, size: S, target: number): readonly Demand[]
}

export type ConstraintKinds = {
  readonly [K in Constraint['kind']]: ConstraintKind<OfKind<Constraint, K>>
}

export type SizeKinds = { readonly [K in Size['kind']]: SizeKind<OfKind<Size, K>> }

/** The distance of two places in the plane of the sketch, in mm. */
export const span = (p: Vec, q: Vec): number => Math.hypot(q.x - p.x, q.y - p.y)

/** The number of a point's x and of its y among all coordinates. */
export const x = (point: number): number => 2 * point
export const y = (point: number): number => 2 * point + 1
