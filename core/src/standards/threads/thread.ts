import { fail, succeed, type Result } from '../../result'
import { INCH, INCH_SERIES, PIPE, inches, type InchSeries } from './inch'
import { METRIC } from './metric'
import { TRAPEZOIDAL, crestClearance } from './trapezoidal'

/** A screw thread as it is called out, with its basic dimensions in mm. */
export interface Thread {
  readonly form: 'metric' | 'unified' | 'pipe' | 'trapezoidal'
  /** The standard it is of. */
  readonly standard: string
  /** As it is written: M16×1.5-6g LH. */
  readonly words: string
  /** The tolerance class, as it is written; empty where none is. */
  readonly grade: string
  /** Outside or inside, where the class tells it. */
  readonly side: 'outside' | 'inside' | undefined
  readonly left: boolean
  readonly starts: number
  /** From one flank to the next like one. */
  readonly pitch: number
  /** Along the axis in one turn. */
  readonly lead: number
  /** Threads per inch, of inch threads. */
  readonly perInch: number | undefined
  readonly major: number
  readonly pitchDiameter: number
  /** Of the crest of an inside thread: what is drilled or turned for it, without allowances. */
  readonly minor: number
  /** Of the root of an outside thread. */
  readonly root: number
  /** In mm², of fastening threads. */
  readonly stressArea: number | undefined
  /** The drill for an inside thread of full depth, where one is usual. */
  readonly drill: number | undefined
}

const INCH_MM = 25.4

/** Heights of the 60° profile as shares of the pitch, ISO 68-1: 3/4 H, 5/4 H and 17/12 H of the diameter. */
const H = Math.sqrt(3) / 2
const [TO_PITCH, TO_MINOR, TO_ROOT] = [(3 / 4) * H, (5 / 4) * H, (17 / 12) * H]

/** The 55° profile, ISO 228-1: h = 0.640327 P, which the standard rounds to a thousandth before it goes on. */
const PIPE_DEPTH = 0.640327

interface Common {
  readonly grade: string
  readonly side: Thread['side']
  readonly left: boolean
}

/**
 * Reads a callout: `M16x1.5-6g LH`, `M20`, `M16×Ph3P1.5`, `1/2-13 UNC-2A`, `#10-32 UNF`, `G 3/4 A`, `Tr 24 x 5`,
 * `Tr 40x14(P7) LH-7e`. What cannot be read is told word by word.
 */
export function readThread(text: string): Result<Thread> {
  const plain = text.trim().replaceAll('×', 'x').replaceAll('−', '-').replaceAll('–', '-')
  if (plain === '') {
    return fail('thread.empty', 'There is no thread here.', `Type one, such as ${EXAMPLES}.`)
  }
  const left = /(?<=^|[\s)-])LH(?=$|[\s-])/i.test(plain)
  const rest = plain.replace(/[\s-]*(?<=[\s)-])(?:LH|RH)(?=$|[\s-])/gi, '').trim()
  if (/^M/i.test(rest)) return readMetric(rest.slice(1), left)
  if (/^Tr/i.test(rest)) return readTrapezoidal(rest.slice(2), left)
  if (/^G/i.test(rest)) return readPipe(rest.slice(1), left)
  if (/UN/i.test(rest)) return readUnified(rest, left)
  const word = /^\S+/.exec(rest)?.[0] ?? ''
  return fail(
    'thread.form',
    `“${word}” begins no thread that is known here.`,
    `Write one such as ${EXAMPLES}.`,
  )
}

const EXAMPLES = 'M16x1.5-6g, 1/2-13 UNC-2A, G 3/4 A or Tr 24x5'

const unread = (word: string, wanted: string): Result<never> =>
  fail('thread.word', `“${word.trim()}” cannot be read here.`, wanted)

function readMetric(text: string, left: boolean): Result<Thread> {
  const found =
    /^\s*([\d.,]+)\s*(?:x\s*(?:Ph\s*([\d.,]+)\s*P\s*([\d.,]+)|([\d.,]+)))?\s*(?:[-\s]\s*(.*))?$/i.exec(
      text,
    )
  if (!found) return unread(text, 'Write a diameter and a pitch, as in M16x1.5.')
  const [size, lead, own, pitch] = [found[1], found[2], found[3], found[4]].map(numberOf)
  if (size === undefined) return unread(found[1] ?? '', 'Write a diameter, as in M16.')
  const pitches = METRIC.get(size)
  if (!pitches) {
    const near = nearest([...METRIC.keys()], size)
    const mend = `The nearest is M${near}; sizes go from M1 to M125.`
    return fail('thread.size', `ISO 261 has no M${size}.`, mend)
  }
  const wanted = own ?? pitch ?? pitches[0] ?? 0
  if (!pitches.includes(wanted)) {
    const mend = `M${size} has pitches of ${pitches.join(', ')} mm.`
    return fail('thread.pitch', `ISO 261 has no M${size} with a pitch of ${wanted} mm.`, mend)
  }
  const starts = lead === undefined ? 1 : lead / wanted
  if (!Number.isInteger(starts) || starts < 1 || starts > 8) {
    const mend = `Write a multiple of the pitch, as in M${size}xPh${2 * wanted}P${wanted}.`
    return fail('thread.lead', `A lead of ${lead} mm is no number of starts.`, mend)
  }
  const grade = metricGrade(found[5] ?? '')
  if (!grade.ok) return grade
  const isCoarse = wanted === pitches[0] && starts === 1
  const by =
    starts > 1
      ? `×Ph${told(starts * wanted)}P${wanted}`
      : isCoarse && pitch === undefined
        ? ''
        : `×${wanted}`
  const root = size - TO_ROOT * wanted
  const pitchDiameter = size - TO_PITCH * wanted
  return succeed({
    ...{ form: 'metric', standard: 'ISO 261, ISO 724', ...grade.value, left, starts },
    words: worded(`M${size}${by}`, grade.value.grade, left),
    ...{ pitch: wanted, lead: starts * wanted, perInch: undefined, major: size },
    ...{ pitchDiameter, minor: size - TO_MINOR * wanted, root },
    stressArea: (Math.PI / 4) * ((pitchDiameter + root) / 2) ** 2,
    drill: roundedDrill(size - wanted),
  })
}

/** Drills come in tenths, small ones in twentieths; halves between go to the even one, as ISO 2306 has them. */
function roundedDrill(diameter: number): number {
  const grain = diameter < 3 ? 0.05 : 0.1
  const steps = diameter / grain
  const low = Math.floor(steps + 1e-9)
  const isHalf = Math.abs(steps - low - 0.5) < 1e-6
  const whole = isHalf ? low + (low % 2) : Math.round(steps)
  return Number((whole * grain).toFixed(2))
}

function metricGrade(text: string): Result<Omit<Common, 'left'>> {
  const word = text.trim()
  if (word === '') return succeed({ grade: '', side: undefined })
  const found = /^(?:(\d)([eghEGH])){1,2}$/.exec(word)
  const letters = word.replace(/\d/g, '')
  const isOne = letters === letters.toLowerCase() || letters === letters.toUpperCase()
  if (!found || !isOne) {
    return unread(word, 'Write a tolerance class, as in 6g for outside or 6H for inside.')
  }
  const grades = word.replace(/\D/g, '')
  const isInside = letters === letters.toUpperCase()
  if (isInside && /E/.test(letters)) return unread(word, 'Inside threads have G and H.')
  if (![...grades].every((g) => '3456789'.includes(g))) {
    return unread(word, 'Grades of threads go from 3 to 9.')
  }
  return succeed({ grade: word, side: isInside ? 'inside' : 'outside' })
}

function readTrapezoidal(text: string, left: boolean): Result<Thread> {
  const found =
    /^\s*([\d.,]+)\s*(?:x\s*([\d.,]+)\s*(?:\(\s*P\s*([\d.,]+)\s*\))?)?\s*(?:[-\s]\s*(.*))?$/i.exec(
      text,
    )
  if (!found) return unread(text, 'Write a diameter and a pitch, as in Tr 24x5.')
  const [size, by, own] = [found[1], found[2], found[3]].map(numberOf)
  if (size === undefined) return unread(found[1] ?? '', 'Write a diameter, as in Tr 24x5.')
  const pitches = TRAPEZOIDAL.get(size)
  if (!pitches) {
    const near = nearest([...TRAPEZOIDAL.keys()], size)
    const mend = `The nearest is Tr ${near}; sizes go from Tr 8 to Tr 120.`
    return fail('thread.size', `ISO 2902 has no Tr ${size}.`, mend)
  }
  if (by === undefined) {
    return fail(
      'thread.pitch',
      'A trapezoidal thread is written with its pitch.',
      `Write Tr ${size}x${pitches[0]}.`,
    )
  }
  const pitch = own ?? by
  if (!pitches.includes(pitch)) {
    const mend = `Tr ${size} has pitches of ${pitches.join(', ')} mm.`
    return fail('thread.pitch', `ISO 2902 has no Tr ${size} with a pitch of ${pitch} mm.`, mend)
  }
  const starts = by / pitch
  if (!Number.isInteger(starts) || starts < 1 || starts > 8) {
    const mend = `Write a multiple of the pitch before it, as in Tr ${size}x${2 * pitch}(P${pitch}).`
    return fail('thread.lead', `A lead of ${by} mm is no number of starts.`, mend)
  }
  const word = (found[4] ?? '').trim()
  if (word !== '' && !/^[789][ceH]$/.test(word)) {
    return unread(word, 'Write a tolerance class, as in 7e for outside or 7H for inside.')
  }
  const side = word === '' ? undefined : word.endsWith('H') ? 'inside' : 'outside'
  const clear = crestClearance(pitch)
  return succeed({
    ...{ form: 'trapezoidal', standard: 'ISO 2902, ISO 2904', grade: word, side, left, starts },
    words: worded(`Tr ${size}×${starts > 1 ? `${told(by)}(P${pitch})` : pitch}`, word, left),
    ...{ pitch, lead: by, perInch: undefined, major: size, pitchDiameter: size - pitch / 2 },
    ...{ minor: size - pitch, root: size - pitch - 2 * clear },
    ...{ stressArea: undefined, drill: undefined },
  })
}

function readPipe(text: string, left: boolean): Result<Thread> {
  const found = /^\s*(\d+(?:\s+\d+\/\d+)?|\d+\/\d+)\s*(?:["”])?\s*-?\s*([A-Za-z]?)\s*$/.exec(text)
  if (!found) return unread(text, 'Write a size in inches and A or B, as in G 3/4 A.')
  const size = (found[1] ?? '').replace(/\s+/g, ' ')
  const row = PIPE.get(size)
  if (!row) {
    const mend = `Sizes are ${[...PIPE.keys()].slice(0, 9).join(', ')} … 6.`
    return fail('thread.size', `ISO 228 has no G ${size}.`, mend)
  }
  const word = (found[2] ?? '').toUpperCase()
  if (word !== '' && word !== 'A' && word !== 'B') {
    return unread(word, 'Outside threads are of class A or B, inside ones of none.')
  }
  const [perInch, major] = row
  const pitch = INCH_MM / perInch
  const depth = Number((PIPE_DEPTH * pitch).toFixed(3))
  const minor = major - 2 * depth
  return succeed({
    ...{ form: 'pipe', standard: 'ISO 228-1', grade: word, left, starts: 1 },
    side: word === '' ? undefined : 'outside',
    words: `G ${size}${word === '' ? '' : ` ${word}`}${left ? ' LH' : ''}`,
    ...{ pitch, lead: pitch, perInch, major, pitchDiameter: major - depth, minor },
    ...{ root: minor, stressArea: undefined, drill: undefined },
  })
}

function readUnified(text: string, left: boolean): Result<Thread> {
  const found =
    /^\s*(#\d+|\d+(?:[\s-]+\d+\/\d+)?|\d+\/\d+)\s*["”]?\s*(?:-\s*([\d.]+))?\s*(UN\w*)\s*(?:[-\s]\s*(\S.*?))?\s*$/i.exec(
      text,
    )
  if (!found) return unread(text, 'Write size, threads per inch and series, as in 1/2-13 UNC-2A.')
  const size = (found[1] ?? '').replace(/[\s-]+/g, ' ')
  const series = INCH_SERIES.find((s) => s === (found[3] ?? '').toUpperCase())
  if (!series) return unread(found[3] ?? '', `The series are ${INCH_SERIES.join(', ')}.`)
  const perInch = INCH[series].get(size)
  if (perInch === undefined) {
    const others = INCH_SERIES.filter((s: InchSeries) => INCH[s].has(size))
    const mend =
      others.length > 0 ? `There is ${size} ${others.join(' and ')}.` : 'Sizes go from #0 to 4 in.'
    return fail('thread.size', `ASME B1.1 has no ${size} ${series}.`, mend)
  }
  if (found[2] !== undefined && Number(found[2]) !== perInch) {
    const mend = `${size} ${series} has ${perInch}.`
    return fail('thread.pitch', `“${found[2]}” is not how many threads to the inch it has.`, mend)
  }
  const word = (found[4] ?? '').toUpperCase()
  if (word !== '' && !/^[123][AB]$/.test(word)) {
    return unread(word, 'Classes are 1A, 2A, 3A outside and 1B, 2B, 3B inside.')
  }
  const pitch = INCH_MM / perInch
  const major = inches(size) * INCH_MM
  return succeed({
    ...{ form: 'unified', standard: 'ASME B1.1', grade: word, left, starts: 1 },
    side: word === '' ? undefined : word.endsWith('A') ? 'outside' : 'inside',
    words: worded(`${size}-${perInch} ${series}`, word, left),
    ...{ pitch, lead: pitch, perInch, major, pitchDiameter: major - TO_PITCH * pitch },
    ...{ minor: major - TO_MINOR * pitch, root: major - TO_ROOT * pitch },
    stressArea: (Math.PI / 4) * ((major / INCH_MM - 0.9743 / perInch) * INCH_MM) ** 2,
    drill: undefined,
  })
}

const worded = (size: string, grade: string, left: boolean): string =>
  `${size}${grade === '' ? '' : `-${grade}`}${left ? ' LH' : ''}`

const numberOf = (text: string | undefined): number | undefined => {
  const value = text === undefined ? Number.NaN : Number(text.replace(',', '.'))
  return Number.isFinite(value) ? value : undefined
}

const told = (value: number): string => String(Number(value.toFixed(6)))

const nearest = (list: readonly number[], to: number): number =>
  list.reduce((best, v) => (Math.abs(v - to) < Math.abs(best - to) ? v : best), list[0] ?? 0)

/**
 * Callouts of threads that fit a land: those whose major diameter it is, or whose minor one where it is a bore.
 * @param diameter in mm
 */
export function threadsFor(diameter: number, side: 'outside' | 'inside'): readonly string[] {
  const near = (thread: Result<Thread>): boolean =>
    thread.ok &&
    Math.abs((side === 'outside' ? thread.value.major : thread.value.minor) - diameter) <=
      (side === 'outside' ? 1e-6 : Math.max(0.06 * thread.value.pitch, 0.03))
  const metric = [...METRIC].flatMap(([size, pitches]) =>
    pitches.map((p, i) => (i === 0 ? `M${size}` : `M${size}x${p}`)),
  )
  const pipe = [...PIPE.keys()].map((size) => `G ${size}${side === 'outside' ? ' A' : ''}`)
  const trapezoidal = [...TRAPEZOIDAL].flatMap(([size, pitches]) =>
    pitches.map((p) => `Tr ${size}x${p}`),
  )
  const unified = INCH_SERIES.flatMap((series) =>
    [...INCH[series]].map(([size, n]) => `${size}-${n} ${series}`),
  )
  return [...metric, ...pipe, ...trapezoidal, ...unified].filter((t) => near(readThread(t)))
}
