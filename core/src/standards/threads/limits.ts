import type { Thread } from './thread'

/*
 * Limits of ISO metric threads for fastening, ISO 965-1:2013. Deviations (Table 1) and tolerances of crests (Tables 2
 * and 3) are typed from the tables; tolerances of the pitch diameter are reckoned by the formulas of clause 13 with
 * their rounding to the R 40 series of preferred numbers (ISO 3). Lengths of engagement are of group N.
 */

const [PITCHES, row] = [
  [
    0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.6, 0.7, 0.75, 0.8, 1, 1.25, 1.5, 1.75, 2, 2.5, 3, 3.5,
    4, 4.5, 5, 5.5, 6,
  ],
  (text: string): readonly number[] => text.split(' ').map(Number),
]

/** Fundamental deviations in µm by position and pitch, Table 1; those of e and f begin at a pitch of 0.5 and 0.35. */
const DEVIATIONS: Readonly<Record<string, readonly number[]>> = {
  e: [
    ...Array<number>(6).fill(Number.NaN),
    ...row('50 53 56 56 60 60 63 67 71 71 80 85 90 95 100 106 112 118'),
  ],
  f: [
    ...Array<number>(3).fill(Number.NaN),
    ...row('34 34 35 36 36 38 38 38 40 42 45 48 52 58 63 70 75 80 85 90 95'),
  ],
  g: row('17 18 18 19 19 20 20 21 22 22 24 26 28 32 34 38 42 48 53 60 63 71 75 80'),
}

/** Of the major diameter outside, grade 6, Table 3, in µm. */
const CREST_OUTSIDE = row(
  '56 67 75 85 95 100 106 125 140 140 150 180 212 236 265 280 335 375 425 475 500 530 560 600',
)
/** Of the minor diameter inside, grade 5, Table 2, in µm: the grade that pitches from 0.25 have. */
const CREST_INSIDE = row(
  '48 56 67 80 90 100 112 125 140 150 160 190 212 236 265 300 355 400 450 475 530 560 600 630',
)

/** Grades of crests: how many steps of the R 40 series from the one that is tabled, and the pitches they begin at. */
type CrestGrades = Readonly<Record<string, { readonly steps: number; readonly from: number }>>
const CREST_OUTSIDE_GRADES: CrestGrades = {
  4: { steps: -8, from: 0.2 },
  6: { steps: 0, from: 0.2 },
  8: { steps: 8, from: 0.8 },
}
const CREST_INSIDE_GRADES: CrestGrades = {
  4: { steps: -4, from: 0.2 },
  5: { steps: 0, from: 0.25 },
  6: { steps: 4, from: 0.3 },
  7: { steps: 8, from: 0.5 },
  8: { steps: 12, from: 0.8 },
}

/**
 * Grades of the pitch diameter: how many steps of the R 40 series from grade 6 outside. Clause 13 gives factors (0.5 to 2
 * outside, 0.85 to 2.12 inside); the tables are made of these steps.
 */
const PITCH_OUTSIDE: Readonly<Record<string, number>> = {
  ...{ 3: -12, 4: -8, 5: -4, 6: 0, 7: 4, 8: 8, 9: 12 },
}
const PITCH_INSIDE: Readonly<Record<string, number>> = { 4: -3, 5: 1, 6: 5, 7: 9, 8: 13 }

/** Diameters between which the pitch diameter has one tolerance, in mm. */
const RANGES = [0.99, 1.4, 2.8, 5.6, 11.2, 22.4, 45, 90, 180, 355]

/** The numbers of the R 40 series of ISO 3 in one decade. */
const R40 = row(
  '100 106 112 118 125 132 140 150 160 170 180 190 200 212 224 236 250 265 280 300 315 335 355 375 400 425 450 475 500 530 560 600 630 670 710 750 800 850 900 950 1000',
)

/** Tables have whole µm: halves go to the even one, 37.5 to 38 and 42.5 to 42. */
function wholeMicrons(value: number): number {
  const low = Math.floor(value + 1e-9)
  return Math.abs(value - low - 0.5) < 1e-6 ? low + (low % 2) : Math.round(value)
}

const nearR40Index = (inDecade: number): number =>
  R40.reduce((best, v, i) => {
    const known = R40[best] ?? 0
    return Math.abs(v - inDecade) < Math.abs(known - inDecade) ? i : best
  }, 0)

/** A number of the R 40 series some of its steps further on. */
function stepped(value: number, steps: number): number {
  const decade = 10 ** (Math.floor(Math.log10(value)) - 2)
  const start = nearR40Index(value / decade)
  const at = start + steps
  const wrapped = ((at % 40) + 40) % 40
  return wholeMicrons((R40[wrapped] ?? 0) * decade * 10 ** Math.floor(at / 40))
}

/** Where Table 4 has the number below the one next to the formula: pitch and the range's upper end in mm, and µm. */
const AS_TABLED: readonly (readonly [number, number, number])[] = [
  [0.5, 5.6, 75],
  [5, 90, 250],
]

/** The tolerance of the pitch diameter outside in grade 6, in µm: 90 P^0.4 d^0.1 (clause 13), not rounded yet. */
function pitchTolerance(pitch: number, major: number): number | undefined {
  const at = RANGES.findIndex((up) => major <= up)
  const [from, to] = [RANGES[at - 1], RANGES[at]]
  if (from === undefined || to === undefined) return undefined
  const tabled = AS_TABLED.find(([p, up]) => p === pitch && up === to)
  return tabled ? tabled[2] : 90 * pitch ** 0.4 * Math.sqrt(from * to) ** 0.1
}

/** Between what a diameter lies, in mm; no least one of a root, which the tool gives. */
export interface Between {
  readonly least: number | undefined
  readonly greatest: number | undefined
}

/** Limits of a thread's diameters, and the class they are of. */
export interface ThreadLimits {
  readonly grade: string
  readonly major: Between
  readonly pitch: Between
  readonly minor: Between
}

/**
 * The limits of a metric thread in its class; where it has none, of 6g outside and 6H inside, which a callout without a
 * class means (ISO 965-1, clause 9; from M1.6 on).
 * @returns undefined for other threads, and for classes that the tables leave out
 */
export function threadLimits(thread: Thread, side: 'outside' | 'inside'): ThreadLimits | undefined {
  if (thread.form !== 'metric' || thread.starts > 1) return undefined
  if (thread.side !== undefined && thread.side !== side) return undefined
  const medium = side === 'outside' ? '6g' : '6H'
  if (thread.grade === '' && thread.major < 1.6) return undefined
  const grade = thread.grade === '' ? medium : thread.grade
  const classes = [...grade.matchAll(/(\d)([a-zA-Z])/g)].map(([, g = '', p = '']) => ({ g, p }))
  const [pitchClass, crestClass = pitchClass] = classes
  const at = PITCHES.indexOf(thread.pitch)
  if (!pitchClass || !crestClass || at < 0) return undefined
  const whole = pitchTolerance(thread.pitch, thread.major)
  const steps = (side === 'outside' ? PITCH_OUTSIDE : PITCH_INSIDE)[pitchClass.g]
  const crestGrade = (side === 'outside' ? CREST_OUTSIDE_GRADES : CREST_INSIDE_GRADES)[crestClass.g]
  const crest = (side === 'outside' ? CREST_OUTSIDE : CREST_INSIDE)[at]
  const deviation = deviationOf(pitchClass.p, at)
  const crestDeviation = deviationOf(crestClass.p, at)
  if (whole === undefined || steps === undefined || !crestGrade || crest === undefined) {
    return undefined
  }
  if (thread.pitch < crestGrade.from) return undefined
  if (Number.isNaN(deviation) || Number.isNaN(crestDeviation)) return undefined
  const [pitchWide, crestWide] = [
    stepped(whole, steps) / 1000,
    stepped(crest, crestGrade.steps) / 1000,
  ]
  const outwards = side === 'outside' ? -1 : 1
  const between = (basic: number, off: number, wide: number): Between => {
    const near = basic + (outwards * off) / 1000
    const far = near + outwards * wide
    return { least: Math.min(near, far), greatest: Math.max(near, far) }
  }
  const pitch = between(thread.pitchDiameter, deviation, pitchWide)
  return side === 'outside'
    ? {
        ...{ grade, pitch, major: between(thread.major, crestDeviation, crestWide) },
        minor: { least: undefined, greatest: thread.minor - deviation / 1000 },
      }
    : {
        ...{ grade, pitch, minor: between(thread.minor, crestDeviation, crestWide) },
        major: { least: thread.major + deviation / 1000, greatest: undefined },
      }
}

/** How far a position stands off the basic profile, in µm, away from the other thread. */
function deviationOf(position: string, at: number): number {
  const letter = position.toLowerCase()
  return letter === 'h' ? 0 : (DEVIATIONS[letter]?.[at] ?? Number.NaN)
}
