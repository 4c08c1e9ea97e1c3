import { fitLimits, fitWords, readFitClass, type Limits } from '../standards'
import { fail, succeed, type Result, type TextRange } from '../result'

/** What a formula is written with: the value, and the tolerance behind it. */
export interface Toleranced {
  readonly value: string
  readonly tolerance?: ToleranceText
}

/** A tolerance as it was typed behind a value. */
export type ToleranceText = ToleranceLimits & {
  /** Whether the envelope of the size holds too: Ⓔ behind it (ISO 14405-1). */
  readonly envelope?: true
}

type ToleranceLimits =
  | { readonly kind: 'class'; readonly text: string; readonly at: TextRange }
  | { readonly kind: 'either'; readonly by: string; readonly at: TextRange }
  | {
      readonly kind: 'both'
      readonly upper: string
      readonly lower: string
      readonly at: TextRange
    }

/** A tolerance, with its limits in mm or radians. */
export interface Tolerance extends Limits {
  readonly kind: ToleranceText['kind']
  /** The class as it is written; empty for limits. */
  readonly words: string
}

/** A class behind a number or a name; `e` right behind a digit is a power of ten. */
const CLASS = /^(.*[^\s+\-−–*/^(,])(?:\s+|(?<=\d)(?![eE]))([A-Za-z]{1,2}\d{1,2})\s*$/u
const EITHER = /^(.*\S)\s*(?:±|\+\/-|\+\/−)\s*(\S.*?)\s*$/u
/** Two deviations: each with its sign joined to it, or 0. */
const BOTH = /^(.*\S)\s+([+\-−–](?=[\d.,])[\d.,]+|0)\s+([+\-−–](?=[\d.,])[\d.,]+|0)\s*$/u

/** The envelope's mark behind a tolerance: Ⓔ, or E by itself. */
const ENVELOPE = /^(.*\S)\s*(?:Ⓔ|\(E\)|(?<=\s)E)\s*$/u

/**
 * Parts a text into its value and the tolerance behind it: a class (`35 k6`), as much to either side (`24 ±0.05`,
 * `24 +/-0.05`), or two deviations, the upper one first (`40 +0.1 0`). A sign with a space behind it adds. Ⓔ or E behind
 * the tolerance asks for the envelope.
 */
export function splitTolerance(text: string): Toleranced {
  const known = memo.get(text)
  if (known) return known
  const made = split(text)
  if (memo.size > 2000) memo.clear()
  memo.set(text, made)
  return made
}

const memo = new Map<string, Toleranced>()

function split(text: string): Toleranced {
  // Most values have none.
  if (!/[±A-Za-z]\d|[±Ⓔ]|\/[-−]|\s\S+\s*$/u.test(text)) return { value: text }
  const marked = ENVELOPE.exec(text)
  const inner = marked ? split(marked[1] ?? '') : undefined
  if (inner?.tolerance) {
    return {
      value: inner.value,
      tolerance: { ...inner.tolerance, envelope: true, at: rest(text, inner.value) },
    }
  }
  const either = EITHER.exec(text)
  if (either) {
    const [, value = '', by = ''] = either
    return { value, tolerance: { kind: 'either', by, at: rest(text, value) } }
  }
  const both = BOTH.exec(text)
  if (both && !(both[2] === '0' && both[3] === '0')) {
    const [, value = '', upper = '', lower = ''] = both
    if (/[+\-−–*/^(,]$/u.test(value)) return { value: text }
    return { value, tolerance: { kind: 'both', upper, lower, at: rest(text, value) } }
  }
  // Numbers in other digits are no classes, and told as what they are.
  const fit = /(?<![\d.])0[xXbBoO]\d/.test(text) ? null : CLASS.exec(text)
  if (fit) {
    const [, value = '', words = ''] = fit
    return { value, tolerance: { kind: 'class', text: words, at: rest(text, value) } }
  }
  return { value: text }
}

const rest = (text: string, value: string): TextRange => ({
  from: value.length + (/^\s*/.exec(text.slice(value.length))?.[0].length ?? 0),
  to: text.trimEnd().length,
})

/**
 * What a tolerance comes to.
 * @param nominal the value it stands behind, in mm or radians
 * @param read reads a deviation, in mm or radians
 */
export function readTolerance(
  tolerance: ToleranceText,
  nominal: number,
  isLength: boolean,
  read: (text: string) => Result<number>,
): Result<Tolerance> {
  const { at } = tolerance
  if (tolerance.kind === 'class') {
    if (!isLength) {
      const mend = 'Write the limits themselves, as in 30 ±0.5.'
      return fail('tolerance.length', 'ISO 286 has classes for lengths only.', mend, { at })
    }
    const fit = readFitClass(tolerance.text)
    const limits = fit.ok ? fitLimits(fit.value, nominal) : fit
    if (!limits.ok || !fit.ok) return { ok: false, problem: { ...problemOf(limits, fit), at } }
    return succeed({ kind: 'class', words: fitWords(fit.value), ...limits.value })
  }
  if (tolerance.kind === 'either') {
    const by = read(tolerance.by)
    if (!by.ok) return { ok: false, problem: { ...by.problem, at } }
    if (!(by.value > 0)) {
      const mend = 'Type how far it may lie to either side, above 0.'
      return fail('tolerance.sign', 'This tolerance leaves nothing.', mend, { at })
    }
    return succeed({ kind: 'either', words: '', upper: by.value, lower: -by.value })
  }
  const [upper, lower] = [read(tolerance.upper), read(tolerance.lower)]
  if (!upper.ok) return { ok: false, problem: { ...upper.problem, at } }
  if (!lower.ok) return { ok: false, problem: { ...lower.problem, at } }
  if (!(upper.value > lower.value)) {
    const mend = `Type the greater one first: ${tolerance.lower} ${tolerance.upper}.`
    return fail('tolerance.reversed', 'The upper limit does not lie above the lower one.', mend, {
      at,
    })
  }
  return succeed({ kind: 'both', words: '', upper: upper.value, lower: lower.value })
}

const problemOf = (...results: readonly Result<unknown>[]) => {
  for (const r of results) if (!r.ok) return r.problem
  throw new Error('one of them has a problem')
}
