import { rowFor } from './grades'

/*
 * General tolerances. For linear and angular dimensions without tolerances of their own, ISO 2768-1:1989: lengths by
 * Table 1, broken edges by Table 2, angles by Table 3 (with the shorter leg). For form and position, ISO 2768-2:1989, which is withdrawn but
 * stands on many drawings: straightness and flatness by Table 1, perpendicularity by Table 2, symmetry by Table 3,
 * circular run-out by Table 4. ISO 22081:2021 takes its place: one profile of a surface for all, from named datums.
 */

export const GENERAL_CLASSES = ['f', 'm', 'c', 'v'] as const
export type GeneralClass = (typeof GENERAL_CLASSES)[number]

/** The classes in words, ISO 2768-1. */
export const GENERAL_WORDS: Readonly<Record<GeneralClass, string>> = {
  f: 'fine',
  m: 'medium',
  c: 'coarse',
  v: 'very coarse',
}

const LENGTH_STEPS = [3, 6, 30, 120, 400, 1000, 2000, 4000]
/** Table 1, in mm to either side. */
const LENGTHS: Readonly<Record<GeneralClass, readonly (number | undefined)[]>> = {
  f: [0.05, 0.05, 0.1, 0.15, 0.2, 0.3, 0.5, undefined],
  m: [0.1, 0.1, 0.2, 0.3, 0.5, 0.8, 1.2, 2],
  c: [0.2, 0.3, 0.5, 0.8, 1.2, 2, 3, 4],
  v: [undefined, 0.5, 1, 1.5, 2.5, 4, 6, 8],
}
/** Sizes below this have their tolerances written beside them. */
const LEAST = 0.5

const LEG_STEPS = [10, 50, 120, 400, Infinity]
/** Table 3, in minutes of arc to either side. */
const ANGLES: Readonly<Record<GeneralClass, readonly number[]>> = {
  f: [60, 30, 20, 10, 5],
  m: [60, 30, 20, 10, 5],
  c: [90, 60, 30, 15, 10],
  v: [180, 120, 60, 30, 20],
}

/**
 * How far a length without a tolerance of its own may be off.
 * @param nominal in mm
 * @returns in mm; undefined where the table has none
 */
export function generalLength(general: GeneralClass, nominal: number): number | undefined {
  return nominal < LEAST ? undefined : LENGTHS[general][rowFor(LENGTH_STEPS, nominal)]
}

const BEVEL_STEPS = [3, 6, Infinity]
/** Table 2, in mm to either side: broken edges, that is rounds outside and heights of chamfers. */
const BEVELS: Readonly<Record<GeneralClass, readonly number[]>> = {
  f: [0.2, 0.5, 1],
  m: [0.2, 0.5, 1],
  c: [0.4, 1, 2],
  v: [0.4, 1, 2],
}

/** How far the height of a chamfer without a tolerance of its own may be off, in mm. */
export function generalBevel(general: GeneralClass, nominal: number): number | undefined {
  return nominal < LEAST ? undefined : BEVELS[general][rowFor(BEVEL_STEPS, nominal)]
}

/**
 * How far an angle without a tolerance of its own may be off.
 * @param leg the shorter of its legs in mm
 * @returns in radians
 */
export function generalAngle(general: GeneralClass, leg: number): number | undefined {
  const minutes = ANGLES[general][rowFor(LEG_STEPS, leg)]
  return minutes === undefined ? undefined : (minutes / 60) * (Math.PI / 180)
}

export const FORM_CLASSES = ['H', 'K', 'L'] as const
/** A class of ISO 2768-2. */
export type FormClass = (typeof FORM_CLASSES)[number]

/** As a drawing calls general tolerances: `ISO 2768-mK`; undefined where none are given. */
export function generalWords(given: {
  readonly general?: GeneralClass
  readonly generalForm?: FormClass
}): string | undefined {
  const classes = `${given.general ?? ''}${given.generalForm ?? ''}`
  return classes === '' ? undefined : `ISO 2768-${classes}`
}

const FLAT_STEPS = [10, 30, 100, 300, 1000, 3000]
/** Table 1, in mm, by the longer side of the face or its diameter. */
const FLATNESS: Readonly<Record<FormClass, readonly number[]>> = {
  H: [0.02, 0.05, 0.1, 0.2, 0.3, 0.4],
  K: [0.05, 0.1, 0.2, 0.4, 0.6, 0.8],
  L: [0.1, 0.2, 0.4, 0.8, 1.2, 1.6],
}
const SQUARE_STEPS = [100, 300, 1000, 3000]
/** Table 2, in mm, by the shorter leg. */
const SQUARENESS: Readonly<Record<FormClass, readonly number[]>> = {
  H: [0.2, 0.3, 0.4, 0.5],
  K: [0.4, 0.6, 0.8, 1],
  L: [0.6, 1, 1.5, 2],
}
/** Table 3, in mm. */
const SYMMETRY: Readonly<Record<FormClass, readonly number[]>> = {
  H: [0.5, 0.5, 0.5, 0.5],
  K: [0.6, 0.6, 0.8, 1],
  L: [0.6, 1, 1.5, 2],
}
/** Table 4, in mm. */
const RUN_OUT: Readonly<Record<FormClass, number>> = { H: 0.1, K: 0.2, L: 0.5 }

/** What a class of form leaves a feature of some length, in mm; undefined beyond the tables. */
export function generalForm(
  form: FormClass,
  of: 'flatness' | 'perpendicularity' | 'symmetry' | 'runOut',
  length: number,
): number | undefined {
  switch (of) {
    case 'flatness':
      return FLATNESS[form][rowFor(FLAT_STEPS, length)]
    case 'perpendicularity':
      return SQUARENESS[form][rowFor(SQUARE_STEPS, length)]
    case 'symmetry':
      return SYMMETRY[form][rowFor(SQUARE_STEPS, length)]
    case 'runOut':
      return RUN_OUT[form]
  }
}
