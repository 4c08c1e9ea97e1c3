import { UNITS } from '../units'
import { fail, succeed, type Problem, type Result, type TextRange } from '../result'

/** A word of a formula. */
export interface Token {
  readonly kind: 'number' | 'name' | 'sign'
  /** As it is read: decimals with a point, marks of feet and inches as `ft` and `in`, ° as `deg`. */
  readonly text: string
  readonly at: TextRange
  /** Whether there is space before it. */
  readonly spaced: boolean
}

export const isUnit = (token: Token | undefined): boolean =>
  token?.kind === 'name' && UNITS.has(token.text)

const WORD =
  /(?<number>(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+(?![\p{L}\p{N}_]))?)|(?<name>[\p{L}_][\p{L}\p{N}_]*)|(?<sign>\S)/gu

/** Signs that stand for others, and marks that stand for units. */
const SIGNS: Readonly<Record<string, string>> = { '−': '-', '–': '-', '×': '*', '·': '*' }
const MARKS: Readonly<Record<string, string>> = {
  ...{ '°': 'deg', "'": 'ft', '′': 'ft', '’': 'ft' },
  ...{ '"': 'in', '″': 'in', '”': 'in' },
}

/** The words of a formula, or the first that means nothing. */
export function tokensOf(text: string): Result<readonly Token[]> {
  const tokens: Token[] = []
  /** For each open bracket whether it is a function's, where a comma parts values. */
  const calls: boolean[] = []
  for (const match of text.matchAll(WORD)) {
    const [word] = match
    const at = { from: match.index, to: match.index + word.length }
    const before = tokens.at(-1)
    const spaced = at.from > (before?.at.to ?? 0)
    if (match.groups?.['number'] !== undefined) {
      if (word === '0' && /^[xXbBoO][0-9a-fA-F]/.test(text.slice(at.to))) return noNumber(text, at)
      const joined = calls.at(-1) === true ? undefined : decimals(tokens, word, at, spaced, text)
      if (joined && 'code' in joined) return { ok: false, problem: joined }
      if (joined) tokens.splice(-joined.replaces, joined.replaces, joined.token)
      else tokens.push({ kind: 'number', text: word, at, spaced })
    } else if (match.groups?.['name'] !== undefined) {
      tokens.push({ kind: 'name', text: word, at, spaced })
    } else if (MARKS[word] !== undefined) {
      if (before?.kind !== 'number') return odd(word, at)
      tokens.push({ kind: 'name', text: MARKS[word] ?? word, at, spaced })
    } else {
      const sign = SIGNS[word] ?? word
      if (!'+-*/^(),'.includes(sign)) return odd(word, at)
      if (sign === '(') calls.push(before?.kind === 'name' && !isUnit(before))
      if (sign === ')') calls.pop()
      tokens.push({ kind: 'sign', text: sign, at, spaced })
    }
  }
  return succeed(tokens)
}

/**
 * A number behind a comma that marks decimals, made one with what stands before the comma; undefined when
 * there is no comma.
 */
function decimals(
  tokens: readonly Token[],
  word: string,
  at: TextRange,
  spaced: boolean,
  text: string,
): { readonly token: Token; readonly replaces: number } | Problem | undefined {
  const comma = tokens.at(-1)
  if (comma?.kind !== 'sign' || comma.text !== ',' || spaced) return undefined
  const whole = tokens.at(-2)
  const isWhole = whole?.kind === 'number' && /^\d+$/.test(whole.text) && !comma.spaced
  const digits = isWhole ? whole.text : ''
  const from = isWhole ? whole.at.from : comma.at.from
  if (!/^\d+$/.test(word) || (/^[1-9]\d{0,2}$/.test(digits) && word.length === 3)) {
    const told = text.slice(from, at.to)
    const meant = /^\d+$/.test(word) ? ` It could be ${digits}.${word} or ${digits}${word}.` : ''
    return fail(
      'formula.comma',
      `It is not clear what the comma in “${told}” marks.${meant}`,
      'Use a point for decimals, and nothing between thousands.',
      { at: { from, to: at.to } },
    ).problem
  }
  return {
    token: {
      kind: 'number',
      text: `${digits || '0'}.${word}`,
      at: { from, to: at.to },
      spaced: isWhole ? whole.spaced : comma.spaced,
    },
    replaces: isWhole ? 2 : 1,
  }
}

function noNumber(text: string, { from }: TextRange): Result<never> {
  const word = /^[\p{L}\p{N}]+/u.exec(text.slice(from))?.[0] ?? ''
  return fail('formula.number', `“${word}” is no number.`, 'Type numbers in decimal digits.', {
    at: { from, to: from + word.length },
  })
}

function odd(word: string, at: TextRange): Result<never> {
  return fail(
    'formula.character',
    `“${word}” has no meaning ${MARKS[word] === undefined ? 'in a formula' : 'but behind a number'}.`,
    'Use numbers, units, names, + - * / ^ and brackets.',
    { at },
  )
}
