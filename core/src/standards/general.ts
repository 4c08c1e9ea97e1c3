import { rowFor } from './grades'

/*
 * General tolerances for linear and angular dimensions without tolerances of their own, ISO 2768-1:1989: lengths by
 * Table 1, angles by Table 3 (with the shorter leg).
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

/**
 * How far an angle without a tolerance of its own may be off.
 * @param leg the shorter of its legs in mm
 * @returns in radians
 */
export function generalAngle(general: GeneralClass, leg: number): number | undefined {
  const minutes = ANGLES[general][rowFor(LEG_STEPS, leg)]
  return minutes === undefined ? undefined : (minutes / 60) * (Math.PI / 180)
}
