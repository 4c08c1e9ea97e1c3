import { create, parseDependencies } from 'mathjs/number'
import { UNITS } from '../units'
import { fail, succeed, type Problem, type Result, type TextRange } from '../result'

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

/** The part of the parser's tree that is read here. */
interface ParsedNode {
  readonly type: string
  readonly value?: unknown
  readonly name?: string
  readonly fn?: string | ParsedNode
  readonly args?: readonly ParsedNode[]
  readonly content?: ParsedNode
}

let parser: { parse(text: string): unknown } | undefined

/**
 * Makes the parser, which takes a good part of a second on a slow machine. Formulas that are plain
 * numbers do without; a page calls this in a quiet moment before the first real formula is typed.
 */
export function prepareFormulas(): void {
  parser ??= create({ ...parseDependencies })
}

const PLAIN_NUMBER = /^\s*(?:\d+\.?\d*|\.\d+)\s*$/

const OPERATORS: Readonly<Record<string, Operator>> = {
  add: '+',
  subtract: '-',
  multiply: '*',
  divide: '/',
  pow: '^',
  unaryMinus: 'negate',
}

// The parser reads `in` as a conversion and knows no degree sign; letters of the same width that
// nobody types stand in for them, so that positions stay true.
const INCH_STAND_IN = 'ƖƝ'
const DEGREE_STAND_IN = 'Ɗ'

const memo = new Map<string, Result<Formula>>()

/**
 * Parses a formula: numbers, units behind numbers, names, + − * / ^, brackets, function calls.
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

function parse(text: string): Result<Formula> {
  const bad = refuse(text)
  if (bad) return { ok: false, problem: bad }
  const plain = PLAIN_NUMBER.test(text) ? Number(text) : NaN
  if (Number.isFinite(plain)) {
    const from = text.length - text.trimStart().length
    return succeed({ kind: 'number', value: plain, at: { from, to: text.trimEnd().length } })
  }
  const readable = text
    .replace(/(?<![A-Za-z_])in(?![A-Za-z0-9_])/g, INCH_STAND_IN)
    .replace(/°/g, DEGREE_STAND_IN)
    .replace(/[−–]/g, '-')
    .replace(/[×·]/g, '*')
  let tree: ParsedNode
  try {
    prepareFormulas()
    tree = (parser?.parse(readable) ?? { type: 'none' }) as ParsedNode
  } catch (error) {
    return syntaxProblem(error, text)
  }
  const leaves = findLeaves(readable)
  try {
    return succeed(convert(tree, leaves, text))
  } catch (error) {
    if (error instanceof Refused) return { ok: false, problem: error.problem }
    throw error
  }
}

function refuse(text: string): Problem | undefined {
  if (text.trim() === '') {
    return fail('formula.empty', 'There is no value here.', 'Type a number or a formula.').problem
  }
  if (text.length > LONGEST_FORMULA) {
    const mend = `Keep it under ${LONGEST_FORMULA} characters; give parts of it names of their own.`
    return fail('formula.long', 'This formula is too long.', mend).problem
  }
  const comma = /\d,\d/.exec(text)
  if (comma && !text.includes('(')) {
    const at = { from: comma.index + 1, to: comma.index + 2 }
    return fail('formula.comma', 'A comma does not mark decimals.', 'Use a point, as in 3.5.', {
      at,
    }).problem
  }
  const odd = /[^\p{L}\p{N}\s+\-*/^().,_°−–×·]/u.exec(text)
  if (odd) {
    const at = { from: odd.index, to: odd.index + odd[0].length }
    return fail(
      'formula.character',
      `“${odd[0]}” has no meaning in a formula.`,
      'Use numbers, units, names, + - * / ^ and brackets.',
      { at },
    ).problem
  }
  return undefined
}

function syntaxProblem(error: unknown, text: string): Result<Formula> {
  const char = (error as { char?: number }).char
  const from = Math.min(Math.max(0, (char ?? text.length + 1) - 1), text.length)
  const message =
    from >= text.trimEnd().length
      ? 'The formula stops before it is complete.'
      : `The formula cannot be read from “${text.slice(from, from + 12)}” on.`
  return fail('formula.syntax', message, 'Check for a missing number, sign or bracket.', {
    at: { from, to: Math.max(from + 1, text.length) },
  })
}

class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

/** Ranges of numbers and names in reading order: the same order in which the tree holds them. */
function findLeaves(text: string): TextRange[] {
  const pattern = /(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?|[\p{L}_][\p{L}\p{N}_]*/gu
  return Array.from(text.matchAll(pattern), (m) => ({ from: m.index, to: m.index + m[0].length }))
}

function convert(node: ParsedNode, leaves: TextRange[], text: string): Formula {
  const next = (): TextRange => leaves.shift() ?? { from: 0, to: text.length }
  switch (node.type) {
    case 'ParenthesisNode':
      if (node.content) return convert(node.content, leaves, text)
      break
    case 'ConstantNode': {
      const at = next()
      if (typeof node.value !== 'number') break
      if (Number.isFinite(node.value)) return { kind: 'number', value: node.value, at }
      throw new Refused(
        fail('formula.overflow', 'This number is too large.', 'Type a smaller number.', { at })
          .problem,
      )
    }
    case 'SymbolNode': {
      const at = next()
      return { kind: 'name', name: plainName(node.name ?? ''), at }
    }
    case 'FunctionNode': {
      const at = next()
      const args = (node.args ?? []).map((a) => convert(a, leaves, text))
      const fn = typeof node.fn === 'string' ? node.fn : (node.fn?.name ?? '')
      return { kind: 'call', name: plainName(fn), args, at }
    }
    case 'OperatorNode': {
      const operator = typeof node.fn === 'string' ? OPERATORS[node.fn] : undefined
      const args = (node.args ?? []).map((a) => convert(a, leaves, text))
      const [first] = args
      if (node.fn === 'unaryPlus' && first) return first
      if (operator && first) {
        return { kind: 'operation', operator, args, at: spanOf(args) }
      }
    }
  }
  throw new Refused(
    fail(
      'formula.unsupported',
      'This formula uses something that has no meaning for a value.',
      'Use numbers, units, names, + - * / ^, brackets and functions such as sqrt or sin.',
      { at: { from: 0, to: text.length } },
    ).problem,
  )
}

function plainName(name: string): string {
  if (name === INCH_STAND_IN) return 'in'
  if (name === DEGREE_STAND_IN) return 'deg'
  return name
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
