import { fail, succeed, type Result } from '../result'
import { FIT_LETTERS, holeDeviations, isGrade, shaftDeviations } from './deviations'
import { LARGEST_FITTED } from './grades'

/** How far a size may lie above its nominal value; in mm for lengths, in radians for angles. */
export interface Limits {
  readonly upper: number
  readonly lower: number
}

/** A tolerance class such as H7 or k6 (ISO 286-1:2010, clause 4.4). */
export interface FitClass {
  readonly of: 'hole' | 'shaft'
  /** Small, also of a hole. */
  readonly letter: string
  readonly grade: string
}

/** Reads a class as it is written: capitals for a hole, small letters for a shaft. */
export function readFitClass(text: string): Result<FitClass> {
  const found = /^([A-Za-z]{1,2})(\d{1,2})$/.exec(text)
  const [letters = '', grade = ''] = found?.slice(1) ?? []
  const letter = letters.toLowerCase()
  const isHole = letters === letters.toUpperCase()
  if (!isHole && letters !== letter) {
    const mend = `Write ${letters.toUpperCase()}${grade} for a hole, or ${letter}${grade} for a shaft.`
    return fail('tolerance.mixed', `“${letters}” is half a hole’s and half a shaft’s.`, mend)
  }
  if (!FIT_LETTERS.includes(letter)) {
    return fail(
      'tolerance.letter',
      `ISO 286 has no deviation “${letters}”.`,
      isHole ? 'Take a letter such as H, K or P.' : 'Take a letter such as h, k or p.',
    )
  }
  if (!isGrade(grade)) {
    const mend = 'Grades are 01, 0 and 1 to 18.'
    return fail('tolerance.grade', `ISO 286 has no grade “${grade}”.`, mend)
  }
  return succeed({ of: isHole ? 'hole' : 'shaft', letter, grade })
}

/** A class as it is written. */
export const fitWords = ({ of, letter, grade }: FitClass): string =>
  `${of === 'hole' ? letter.toUpperCase() : letter}${grade}`

/**
 * The limits of a class for a nominal size.
 * @param nominal in mm
 */
export function fitLimits(fit: FitClass, nominal: number): Result<Limits> {
  const words = fitWords(fit)
  if (!(nominal > 0 && nominal <= LARGEST_FITTED)) {
    return fail(
      'tolerance.size',
      `ISO 286 has no ${words} for this size: it ends at ${LARGEST_FITTED} mm.`,
      'Write the limits themselves, as in 5000 ±0.5.',
    )
  }
  const deviations = fit.of === 'hole' ? holeDeviations : shaftDeviations
  const found = deviations(fit.letter, fit.grade, nominal)
  if (!found) {
    return fail(
      'tolerance.none',
      `ISO 286 has no ${words} for this size.`,
      'Take another letter or grade, or write the limits themselves.',
    )
  }
  return succeed({ upper: found.upper / 1000, lower: found.lower / 1000 })
}
