import { UNITS } from '../units'
import { fail, succeed, type Problem, type Result, type TextRange } from '../result'
import { isUnit, tokensOf, type Token } from './tokens'
import { splitTolerance } from './tolerance'

/** A formula as a tree; every node knows where in the text it stands. */
export type Formula =
  | { readonly kind: 'number'; readonly value: number; readonly at: TextRange }
  | { readonly kind: 'name'; readonly name: string; readonly at: TextRange }
  | {
      readonly kind: 'operation'
      readonly operator: Operator
      readonly args: readonly Formula[]
      readonly at: TextRange
    }
  | {
      readonly kind: 'call'
      readonly name: string
      readonly args: readonly Formula[]
      readonly at: TextRange
    }

export type Operator = '+' | '-' | '*' | '/' | '^' | 'negate'

/** Longer texts are refused: nobody types them, and they only cost time. */
export const LONGEST_FORMULA = 400

const memo = new Map<string, Result<Formula>>()

/**
 * Parses a formula: numbers, units behind numbers, names, + − * / ^, brackets, function calls.
 *
 * - A product needs its sign, but for a number and its unit: `2 mm`, not `2b`.
 * - `^` binds before a sign, signs before * and /, and those before + and −; powers are read from the right.
 * - A unit belongs to the number before it, and to a whole fraction of numbers: `1/2 in`.
 * - Mixed numbers are read as inch drawings have them: `1 1/2`, `3-5/16 in`, `1' 2 1/2"`.
 * - What stands behind it as its tolerance is no part of it: see {@link splitTolerance}.
 * - A comma marks decimals, but for the brackets of a function, where it parts values.
 * @returns the tree, or a problem with the range of text it concerns
 */
export function parseFormula(text: string): Result<Formula> {
  const known = memo.get(text)
  if (known) return known
  const result = parse(text)
  if (memo.size > 2000) memo.clear()
  memo.set(text, result)
  return result
}

class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

function parse(text: string): Result<Formula> {
  if (text.trim() === '') {
    return fail('formula.empty', 'There is no value here.', 'Type a number or a formula.')
  }
  if (text.length > LONGEST_FORMULA) {
    const mend = `Keep it under ${LONGEST_FORMULA} characters; give parts of it names of their own.`
    return fail('formula.long', 'This formula is too long.', mend)
  }
  const tokens = tokensOf(splitTolerance(text).value)
  if (!tokens.ok) return tokens
  try {
    return succeed(readTokens(tokens.value, text))
  } catch (error) {
    if (error instanceof Refused) return { ok: false, problem: error.problem }
    throw error
  }
}

/** Denominators on a rule: a dash before such a fraction of an inch joins it to the whole inches. */
const RULE: ReadonlySet<string> = new Set(['2', '4', '8', '16', '32', '64'])

/** Reads words from left to right, what binds more tightly first (recursive descent). */
function readTokens(tokens: readonly Token[], text: string): Formula {
  let next = 0
  const peek = (ahead = 0): Token | undefined => tokens[next + ahead]
  const isSign = (token: Token | undefined, sign: string): boolean =>
    token?.kind === 'sign' && token.text === sign
  const takes = (sign: string): boolean => {
    if (!isSign(peek(), sign)) return false
    next++
    return true
  }
  const operation = (operator: Operator, ...args: readonly Formula[]): Formula => ({
    kind: 'operation',
    operator,
    args,
    at: spanOf(args),
  })
  const wrong = (): Refused => {
    const from = peek()?.at.from ?? text.trimEnd().length
    const message =
      peek() === undefined
        ? 'The formula stops before it is complete.'
        : `The formula cannot be read from “${text.slice(from, from + 12)}” on.`
    return new Refused(
      fail('formula.syntax', message, 'Check for a missing number, sign or bracket.', {
        at: { from, to: Math.max(from + 1, text.length) },
      }).problem,
    )
  }

  const sum = (): Formula => {
    let value = product()
    for (;;) {
      if (takes('+')) value = operation('+', value, product())
      else if (takes('-')) value = operation('-', value, product())
      else return value
    }
  }
  const product = (): Formula => {
    let value = signed(true)
    for (;;) {
      if (takes('*')) value = operation('*', value, signed(true))
      else if (takes('/')) value = operation('/', value, signed(false))
      else return value
    }
  }
  const signed = (begins: boolean): Formula => {
    if (takes('-')) return operation('negate', signed(begins))
    if (takes('+')) return signed(begins)
    return power(begins)
  }
  const power = (begins: boolean): Formula => {
    const base = single(begins)
    const value = takes('^') ? operation('^', base, signed(false)) : base
    const behind = peek()
    if (behind && (behind.kind !== 'sign' || behind.text === '('))
      throw unsigned(text, value, behind)
    return value
  }
  const single = (begins: boolean): Formula => {
    const token = peek()
    if (token?.kind === 'number') return measure(begins)
    if (token?.kind === 'name') {
      next++
      return isSign(peek(), '(') ? call(token) : { kind: 'name', name: token.text, at: token.at }
    }
    if (!takes('(')) throw wrong()
    const inside = sum()
    if (!takes(')')) throw wrong()
    return isUnit(peek()) ? operation('*', inside, unit()) : inside
  }
  const call = (fn: Token): Formula => {
    next++
    const args: Formula[] = []
    if (!isSign(peek(), ')')) {
      do args.push(sum())
      while (takes(','))
    }
    if (!takes(')')) throw wrong()
    return { kind: 'call', name: fn.text, args, at: fn.at }
  }

  const number = (): Formula => {
    const token = peek()
    if (token?.kind !== 'number') throw wrong()
    next++
    const value = Number(token.text)
    if (Number.isFinite(value)) return { kind: 'number', value, at: token.at }
    throw new Refused(
      fail('formula.overflow', 'This number is too large.', 'Type a smaller number.', {
        at: token.at,
      }).problem,
    )
  }
  const unit = (): Formula => {
    const token = peek()
    next++
    const name: Formula = {
      kind: 'name',
      name: token?.text ?? '',
      at: token?.at ?? { from: 0, to: 0 },
    }
    return takes('^') ? operation('^', name, signed(false)) : name
  }
  const isWhole = (token: Token | undefined): boolean =>
    token?.kind === 'number' && /^\d+$/.test(token.text)
  /** Whether a fraction less than one stands so many words ahead. */
  const isFraction = (ahead: number): boolean => {
    const [above, below] = [peek(ahead), peek(ahead + 2)]
    return (
      isWhole(above) &&
      isSign(peek(ahead + 1), '/') &&
      isWhole(below) &&
      Number(above?.text) < Number(below?.text)
    )
  }
  const fraction = (): Formula => {
    const above = number()
    next++
    return operation('/', above, number())
  }
  const isInch = (token: Token | undefined): boolean =>
    token?.text === 'in' || token?.text === 'inch'
  /** Whether a dash joins inches to a fraction of an inch, as in 3-5/16 in. */
  const isDashed = (): boolean =>
    isSign(peek(1), '-') &&
    peek(1)?.spaced === false &&
    peek(2)?.spaced === false &&
    isFraction(2) &&
    RULE.has(peek(4)?.text ?? '') &&
    isInch(peek(5))
  const mixed = (): Formula => {
    if (isWhole(peek()) && peek(1)?.spaced === true && isFraction(1)) {
      return operation('+', number(), fraction())
    }
    if (!isWhole(peek()) || !isDashed()) return number()
    const whole = number()
    next++
    return operation('+', whole, fraction())
  }
  /** Whether inches follow that belong to the feet before them. */
  const inchesFollow = (): boolean => {
    const length = isFraction(0) ? 3 : isFraction(1) ? 4 : isDashed() ? 5 : 1
    return peek()?.kind === 'number' && isInch(peek(length))
  }
  /** A number with its unit, if it has one. */
  const measure = (begins: boolean): Formula => {
    // A quotient of two numbers before a unit is a fraction of that unit.
    const isQuotient =
      begins && isSign(peek(1), '/') && peek(2)?.kind === 'number' && isUnit(peek(3))
    const value = isQuotient ? fraction() : mixed()
    if (!isUnit(peek())) return value
    const isFeet = peek()?.text === 'ft'
    const first = operation('*', value, unit())
    if (!isFeet) return first
    // As on a drawing, feet may be joined to inches by a dash.
    const isJoined = isSign(peek(), '-') && peek()?.spaced === false && peek(1)?.spaced === false
    if (isJoined) next++
    if (inchesFollow()) {
      const inches = isFraction(0) ? fraction() : mixed()
      return operation('+', first, operation('*', inches, unit()))
    }
    if (isJoined) next--
    return first
  }

  const value = sum()
  if (next < tokens.length) throw wrong()
  return value
}

/** Two values side by side, where nothing says what is done with them. */
function unsigned(text: string, before: Formula, behind: Token): Refused {
  const [one, two] = [
    text.slice(before.at.from, before.at.to),
    text.slice(behind.at.from, behind.at.to),
  ]
  return new Refused(
    fail(
      'formula.product',
      behind.kind === 'name'
        ? `There is no sign between “${one}” and “${two}”, and “${two}” is no unit.`
        : `There is no sign between “${one}” and “${two}”.`,
      'Write * for a product; only a unit stands right behind its number.',
      { at: { from: before.at.from, to: behind.at.to } },
    ).problem,
  )
}

function spanOf(nodes: readonly Formula[]): TextRange {
  return {
    from: Math.min(...nodes.map((n) => n.at.from)),
    to: Math.max(...nodes.map((n) => n.at.to)),
  }
}

/** The names a formula reads that are not units: the values it depends on. */
export function namesIn(formula: Formula): string[] {
  const names = new Set<string>()
  const visit = (node: Formula): void => {
    if (node.kind === 'name' && !UNITS.has(node.name)) names.add(node.name)
    if (node.kind === 'operation' || node.kind === 'call') node.args.forEach(visit)
  }
  visit(formula)
  return [...names]
}
