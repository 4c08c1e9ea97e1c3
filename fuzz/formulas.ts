import { METRIC } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import type { Kind } from './kind'
import type { Random } from './random'

/** A formula as it is typed, with what it comes to, reckoned beside. */
interface Typed {
  readonly text: string
  readonly value: number
}

const NAMES: Readonly<Record<string, number>> = { bore: 12, wall: 4.5, b2: 0.75 }

const number = (random: Random): Typed => {
  const whole = random.below(40)
  switch (random.below(5)) {
    case 0:
      return { text: String(whole), value: whole }
    case 1: {
      const digits = String(random.below(1000)).padStart(3, '0')
      return { text: `${whole}.${digits}`, value: Number(`${whole}.${digits}`) }
    }
    case 2: {
      const below = random.pick([2, 4, 8, 16, 32, 64])
      const above = 1 + random.below(below - 1)
      return { text: `${whole} ${above}/${below}`, value: whole + above / below }
    }
    case 3: {
      const digits = String(random.below(100)).padStart(2, '0')
      return { text: `(${whole},${digits})`, value: Number(`${whole}.${digits}`) }
    }
    default: {
      const [name = '', value = 0] = random.pick(Object.entries(NAMES))
      return { text: name, value }
    }
  }
}

function sum(random: Random, depth: number): Typed {
  let { text, value } = product(random, depth)
  for (let i = random.below(3); i > 0; i--) {
    const next = product(random, depth)
    const adds = random.chance(0.5)
    text += adds ? ` + ${next.text}` : ` − ${next.text}`
    value += adds ? next.value : -next.value
  }
  return { text, value }
}

function product(random: Random, depth: number): Typed {
  const single = (): Typed => {
    if (depth === 0 || random.chance(0.6)) return number(random)
    const inside = sum(random, depth - 1)
    return random.chance(0.2)
      ? { text: `-(${inside.text})`, value: -inside.value }
      : { text: `(${inside.text})`, value: inside.value }
  }
  let { text, value } = single()
  for (let i = random.below(3); i > 0; i--) {
    const next = single()
    const multiplies = random.chance(0.6) || next.value === 0
    text += multiplies ? `*${next.text}` : ` / ${next.text}`
    value = multiplies ? value * next.value : value / next.value
  }
  return { text, value }
}

const LETTERS = [
  '1',
  '2',
  '/',
  ' ',
  '-',
  '+',
  '*',
  '^',
  '(',
  ')',
  ',',
  '.',
  "'",
  '"',
  'in',
  'mm',
  'bore',
  'b',
  '°',
  'max',
  'e',
  '0x',
]

/** Texts with known values, and texts of any letters, which have to come to something or be refused with a mend. */
export const formulas: Kind<Typed> = {
  name: 'formulas',
  batch: 500,
  make: (random) =>
    random.chance(0.3)
      ? {
          text: Array.from({ length: 1 + random.below(12) }, () => random.pick(LETTERS)).join(''),
          value: NaN,
        }
      : sum(random, 2),
  fault: ({ text, value }) => {
    const lookup = (
      name: string,
    ): ReturnType<NonNullable<Parameters<typeof evaluateFormula>[1]['lookup']>> => {
      const known = NAMES[name]
      if (known === undefined) return undefined
      return { ok: true, value: { value: known, dimension: { length: 0, angle: 0, mass: 0 } } }
    }
    try {
      const result = evaluateFormula(text, { want: 'number', units: METRIC, lookup })
      if (Number.isNaN(value)) {
        return result.ok || result.problem.mend !== ''
          ? undefined
          : `“${text}” is refused without a mend`
      }
      if (!Number.isFinite(value)) return undefined
      if (text.length > 400) return undefined
      if (!result.ok) return `“${text}” is refused: ${result.problem.message}`
      const off = Math.abs(result.value - value)
      return off > 1e-9 * Math.max(1, Math.abs(value))
        ? `“${text}” is ${value}, not ${result.value}`
        : undefined
    } catch (error) {
      return `“${text}” threw: ${String(error)}`
    }
  },
  *smaller() {
    // They are short as they are.
  },
}
