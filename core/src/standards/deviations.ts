import { GRADE_NAMES, GRADE_STEPS, gradeTolerance, rowFor } from './grades'

/*
 * Fundamental deviations, ISO 286-1:2010, clause 4.3.2.3 and Tables 2 to 5. What is typed are the deviations of shafts;
 * those of holes follow by the general rule (as far on the other side of the line) and the special rule, which adds Δ,
 * the difference of a grade from the next finer one. CD, EF and FG are given to 10 mm, as in the earlier edition.
 */

/** The nominal sizes up to which each row of the finer tables goes, in mm. */
export const FINE_STEPS = [
  3, 6, 10, 14, 18, 24, 30, 40, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355,
  400, 450, 500, 560, 630, 710, 800, 900, 1000, 1120, 1250, 1400, 1600, 1800, 2000, 2240, 2500,
  2800, 3150,
] as const

const wide = (text: string): readonly (number | undefined)[] =>
  text.split(' ').map((t) => (t === '-' ? undefined : Number(t)))

type Table = Readonly<Record<string, readonly (number | undefined)[]>>

/** Upper deviations of shafts below the line, and lower ones above it, in µm, by the coarse rows. */
const COARSE: Table = {
  cd: wide('-34 -46 -56'),
  d: wide(
    '-20 -30 -40 -50 -65 -80 -100 -120 -145 -170 -190 -210 -230 -260 -290 -320 -350 -390 -430 -480 -520',
  ),
  e: wide(
    '-14 -20 -25 -32 -40 -50 -60 -72 -85 -100 -110 -125 -135 -145 -160 -170 -195 -220 -240 -260 -290',
  ),
  ef: wide('-10 -14 -18'),
  f: wide('-6 -10 -13 -16 -20 -25 -30 -36 -43 -50 -56 -62 -68 -76 -80 -86 -98 -110 -120 -130 -145'),
  fg: wide('-4 -6 -8'),
  g: wide('-2 -4 -5 -6 -7 -9 -10 -12 -14 -15 -17 -18 -20 -22 -24 -26 -28 -30 -32 -34 -38'),
  h: wide('0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0'),
  k: wide('0 1 1 1 2 2 2 3 3 4 4 4 5 0 0 0 0 0 0 0 0'),
  m: wide('2 4 6 7 8 9 11 13 15 17 20 21 23 26 30 34 40 48 58 68 76'),
  n: wide('4 8 10 12 15 17 20 23 27 31 34 37 40 44 50 56 66 78 92 110 135'),
  p: wide('6 12 15 18 22 26 32 37 43 50 56 62 68 78 88 100 120 140 170 195 240'),
}

/** By the fine rows. */
const FINE: Table = {
  a: wide(
    '-270 -270 -280 -290 -290 -300 -300 -310 -320 -340 -360 -380 -410 -460 -520 -580 -660 -740 -820 -920 -1050 -1200 -1350 -1500 -1650',
  ),
  b: wide(
    '-140 -140 -150 -150 -150 -160 -160 -170 -180 -190 -200 -220 -240 -260 -280 -310 -340 -380 -420 -480 -540 -600 -680 -760 -840',
  ),
  c: wide(
    '-60 -70 -80 -95 -95 -110 -110 -120 -130 -140 -150 -170 -180 -200 -210 -230 -240 -260 -280 -300 -330 -360 -400 -440 -480',
  ),
  r: wide(
    '10 15 19 23 23 28 28 34 34 41 43 51 54 63 65 68 77 80 84 94 98 108 114 126 132 150 155 175 185 210 220 250 260 300 330 370 400 440 460 550 580',
  ),
  s: wide(
    '14 19 23 28 28 35 35 43 43 53 59 71 79 92 100 108 122 130 140 158 170 190 208 232 252 280 310 340 380 430 470 520 580 640 720 820 920 1000 1100 1250 1400',
  ),
  t: wide(
    '- - - - - - 41 48 54 66 75 91 104 122 134 146 166 180 196 218 240 268 294 330 360 400 450 500 560 620 680 780 840 960 1050 1200 1350 1500 1650 1900 2100',
  ),
  u: wide(
    '18 23 28 33 33 41 48 60 70 87 102 124 144 170 190 210 236 258 284 315 350 390 435 490 540 600 660 740 840 940 1050 1150 1300 1450 1600 1850 2000 2300 2500 2900 3200',
  ),
  v: wide('- - - - 39 47 55 68 81 102 120 146 172 202 228 252 284 310 340 385 425 475 530 595 660'),
  x: wide(
    '20 28 34 40 45 54 64 80 97 122 146 178 210 248 280 310 350 385 425 475 525 590 660 740 820',
  ),
  y: wide(
    '- - - - - 63 75 94 114 144 174 214 254 300 340 380 425 470 520 580 650 730 820 920 1000',
  ),
  z: wide(
    '26 35 42 50 60 73 88 112 136 172 210 258 310 365 415 465 520 575 640 710 790 900 1000 1100 1250',
  ),
  za: wide(
    '32 42 52 64 77 98 118 148 180 226 274 335 400 470 535 600 670 740 820 920 1000 1150 1300 1450 1600',
  ),
  zb: wide(
    '40 50 67 90 108 136 160 200 242 300 360 445 525 620 700 780 880 960 1050 1200 1300 1500 1650 1850 2100',
  ),
  zc: wide(
    '60 80 97 130 150 188 218 274 325 405 480 585 690 800 900 1000 1150 1250 1350 1550 1700 1900 2100 2400 2600',
  ),
}

/** Lower deviations of shafts j in µm by the coarse rows, to 500 mm: of grades 5 and 6, 7, and 8. */
const J_SHAFT: Table = {
  '5': wide('-2 -2 -2 -3 -4 -5 -7 -9 -11 -13 -16 -18 -20'),
  '6': wide('-2 -2 -2 -3 -4 -5 -7 -9 -11 -13 -16 -18 -20'),
  '7': wide('-4 -4 -5 -6 -8 -10 -12 -15 -18 -21 -26 -28 -32'),
  '8': wide('-6'),
}

/** Upper deviations of holes J in µm by the coarse rows, to 500 mm. */
const J_HOLE: Table = {
  '6': wide('2 5 5 6 8 10 13 16 18 22 25 29 33'),
  '7': wide('4 6 8 10 12 14 18 22 26 30 36 39 43'),
  '8': wide('6 10 12 15 20 24 28 34 41 47 55 60 66'),
}

/** Letters of deviations that begin below the line for a shaft, and above it for a hole. */
const CLEAR: ReadonlySet<string> = new Set('a b c cd d e ef f fg g h'.split(' '))

/** Every letter of the standard, small as for shafts. */
export const FIT_LETTERS: readonly string[] =
  'a b c cd d e ef f fg g h js j k m n p r s t u v x y z za zb zc'.split(' ')

/** Limits about the nominal size in µm. */
export interface Micrometres {
  readonly upper: number
  readonly lower: number
}

function tabled(letter: string, nominal: number): number | undefined {
  const [coarse, fine] = [COARSE[letter], FINE[letter]]
  if (coarse) return coarse[rowFor(GRADE_STEPS, nominal)]
  return fine?.[rowFor(FINE_STEPS, nominal)]
}

/**
 * The limit deviations of a shaft.
 * @param letter small
 * @param nominal in mm
 * @returns in µm; undefined where the tables have none
 */
export function shaftDeviations(
  letter: string,
  grade: string,
  nominal: number,
): Micrometres | undefined {
  const width = gradeTolerance(grade, nominal)
  if (width === undefined) return undefined
  if (letter === 'js') return { upper: width / 2, lower: -width / 2 }
  if (letter === 'j') return upwards(J_SHAFT[grade]?.[rowFor(GRADE_STEPS, nominal)], width)
  const isPlainK = letter === 'k' && !(isBetween(grade, 4, 7) && nominal > 3)
  const start = isPlainK ? 0 : tabled(letter, nominal)
  return CLEAR.has(letter) ? downwards(start, width) : upwards(start, width)
}

/** The limit deviations of a hole, as those of a shaft; the letter small too. */
export function holeDeviations(
  letter: string,
  grade: string,
  nominal: number,
): Micrometres | undefined {
  const width = gradeTolerance(grade, nominal)
  if (width === undefined) return undefined
  if (letter === 'js') return { upper: width / 2, lower: -width / 2 }
  if (letter === 'j') return downwards(J_HOLE[grade]?.[rowFor(GRADE_STEPS, nominal)], width)
  const shaft = tabled(letter, nominal)
  if (shaft === undefined) return undefined
  if (CLEAR.has(letter)) return upwards(0 - shaft, width)
  const isMiddling = ['k', 'm', 'n'].includes(letter)
  const isSpecial = nominal > 3 && nominal <= 500 && isBetween(grade, 3, isMiddling ? 8 : 7)
  if (isSpecial) {
    // M6 from 250 to 315 mm is an exception of the standard (Table 3, footnote).
    if (letter === 'm' && grade === '6' && nominal > 250 && nominal <= 315) {
      return downwards(-9, width)
    }
    const finer = gradeTolerance(String(Number(grade) - 1), nominal)
    return finer === undefined ? undefined : downwards(-shaft + width - finer, width)
  }
  // Above grade 8, K is given for the smallest sizes only, and N ends on the line.
  const isCoarse = nominal <= 500 && Number(grade) > 8
  if (letter === 'k') return isCoarse && nominal > 3 ? undefined : downwards(0, width)
  if (letter === 'n' && isCoarse && nominal > 3) return downwards(0, width)
  return downwards(0 - shaft, width)
}

const isBetween = (grade: string, least: number, most: number): boolean =>
  !grade.startsWith('0') && Number(grade) >= least && Number(grade) <= most

const upwards = (lower: number | undefined, width: number): Micrometres | undefined =>
  lower === undefined ? undefined : { lower, upper: lower + width }

const downwards = (upper: number | undefined, width: number): Micrometres | undefined =>
  upper === undefined ? undefined : { upper, lower: upper - width }

export const isGrade = (grade: string): boolean => GRADE_NAMES.includes(grade)
