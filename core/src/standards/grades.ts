/*
 * Standard tolerance grades, ISO 286-1:2010, clause 4.1.2.5 and Table 1; IT01 and IT0 as in its Annex A, to 500 mm.
 * Values are typed from the table, as its rounding follows no one rule; tests hold them against the formulas of
 * ISO/R 286 that the table was made by.
 */

/** The nominal sizes up to which each row of the table goes, in mm; each row begins above the one before. */
export const GRADE_STEPS = [
  3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500,
  3150,
] as const

/** The largest nominal size of the tables in mm. */
export const LARGEST_FITTED = 3150

const wide = (text: string): readonly number[] => text.split(' ').map(Number)

/** Tolerances in µm by grade, a value for each row of nominal sizes. */
const GRADES: ReadonlyMap<string, readonly number[]> = new Map([
  ['01', wide('0.3 0.4 0.4 0.5 0.6 0.6 0.8 1 1.2 2 2.5 3 4')],
  ['0', wide('0.5 0.6 0.6 0.8 1 1 1.2 1.5 2 3 4 5 6')],
  ['1', wide('0.8 1 1 1.2 1.5 1.5 2 2.5 3.5 4.5 6 7 8 9 10 11 13 15 18 22 26')],
  ['2', wide('1.2 1.5 1.5 2 2.5 2.5 3 4 5 7 8 9 10 11 13 15 18 21 25 30 36')],
  ['3', wide('2 2.5 2.5 3 4 4 5 6 8 10 12 13 15 16 18 21 24 29 35 41 50')],
  ['4', wide('3 4 4 5 6 7 8 10 12 14 16 18 20 22 25 28 33 39 46 55 68')],
  ['5', wide('4 5 6 8 9 11 13 15 18 20 23 25 27 32 36 40 47 55 65 78 96')],
  ['6', wide('6 8 9 11 13 16 19 22 25 29 32 36 40 44 50 56 66 78 92 110 135')],
  ['7', wide('10 12 15 18 21 25 30 35 40 46 52 57 63 70 80 90 105 125 150 175 210')],
  ['8', wide('14 18 22 27 33 39 46 54 63 72 81 89 97 110 125 140 165 195 230 280 330')],
  ['9', wide('25 30 36 43 52 62 74 87 100 115 130 140 155 175 200 230 260 310 370 440 540')],
  ['10', wide('40 48 58 70 84 100 120 140 160 185 210 230 250 280 320 360 420 500 600 700 860')],
  [
    '11',
    wide('60 75 90 110 130 160 190 220 250 290 320 360 400 440 500 560 660 780 920 1100 1350'),
  ],
  [
    '12',
    wide(
      '100 120 150 180 210 250 300 350 400 460 520 570 630 700 800 900 1050 1250 1500 1750 2100',
    ),
  ],
  [
    '13',
    wide(
      '140 180 220 270 330 390 460 540 630 720 810 890 970 1100 1250 1400 1650 1950 2300 2800 3300',
    ),
  ],
  [
    '14',
    wide(
      '250 300 360 430 520 620 740 870 1000 1150 1300 1400 1550 1750 2000 2300 2600 3100 3700 4400 5400',
    ),
  ],
  [
    '15',
    wide(
      '400 480 580 700 840 1000 1200 1400 1600 1850 2100 2300 2500 2800 3200 3600 4200 5000 6000 7000 8600',
    ),
  ],
  [
    '16',
    wide(
      '600 750 900 1100 1300 1600 1900 2200 2500 2900 3200 3600 4000 4400 5000 5600 6600 7800 9200 11000 13500',
    ),
  ],
  [
    '17',
    wide(
      '1000 1200 1500 1800 2100 2500 3000 3500 4000 4600 5200 5700 6300 7000 8000 9000 10500 12500 15000 17500 21000',
    ),
  ],
  [
    '18',
    wide(
      '1400 1800 2200 2700 3300 3900 4600 5400 6300 7200 8100 8900 9700 11000 12500 14000 16500 19500 23000 28000 33000',
    ),
  ],
])

/** The grades there are, from the finest. */
export const GRADE_NAMES: readonly string[] = [...GRADES.keys()]

/** The row of a table that a nominal size belongs to; −1 beyond its last. */
export const rowFor = (steps: readonly number[], nominal: number): number =>
  nominal > 0 ? steps.findIndex((upTo) => nominal <= upTo) : -1

/**
 * The standard tolerance of a grade.
 * @param nominal in mm, above 0 and to 3,150
 * @returns in µm; undefined where the table has none
 */
export function gradeTolerance(grade: string, nominal: number): number | undefined {
  const row = rowFor(GRADE_STEPS, nominal)
  return row < 0 ? undefined : GRADES.get(grade)?.[row]
}
