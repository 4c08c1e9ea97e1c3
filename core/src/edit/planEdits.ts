import { fail, succeed } from '../result'
import { NO_PLAN, type InspectionPlan, type MeasuredValue, type Part } from '../part'
import type { Command } from './command'
import { withDrawing } from './sheetEdits'

/** So many pieces a plan has at most: beyond them no page shows them. */
export const MOST_PIECES = 200

/**
 * The plan of a part, changed. With its first change the numbers that stand on the sheet are kept.
 * @param numbers ids of what is asked now, in the order of their numbers
 */
function withPlan(
  part: Part,
  numbers: readonly string[],
  change: (plan: InspectionPlan) => InspectionPlan,
): Part {
  return withDrawing(part, (setup) => {
    const plan = setup.plan ?? NO_PLAN
    const known = new Set(plan.numbers)
    const kept = [...plan.numbers, ...numbers.filter((n) => !known.has(n))]
    return { ...setup, plan: change({ ...plan, numbers: kept }) }
  })
}

/** Puts so many pieces behind the others. */
export function addPieces(numbers: readonly string[], count = 1): Command {
  return {
    label: count === 1 ? 'add a piece' : `add ${count} pieces`,
    run: (part) => {
      const pieces = part.drawing?.plan?.pieces ?? []
      if (pieces.length + count > MOST_PIECES) return tooMany()
      return succeed(withNew(part, numbers, count))
    },
  }
}

const tooMany = () =>
  fail(
    'plan.pieces',
    `A plan has at most ${MOST_PIECES} pieces.`,
    'Take some off that are no longer needed.',
  )

function withNew(part: Part, numbers: readonly string[], count: number): Part {
  const before = part.drawing?.plan?.pieces.length ?? 0
  const made = Array.from({ length: count }, (_, i) => ({
    id: `piece${part.nextId + i}`,
    name: String(before + i + 1),
  }))
  const next = { ...part, nextId: part.nextId + count }
  return withPlan(next, numbers, (plan) => ({ ...plan, pieces: [...plan.pieces, ...made] }))
}

export function renamePiece(id: string, name: string): Command {
  return {
    label: 'name a piece',
    run: (part) =>
      succeed(
        withPlan(part, [], (plan) => ({
          ...plan,
          pieces: plan.pieces.map((p) => (p.id === id ? { ...p, name: name.slice(0, 120) } : p)),
        })),
      ),
  }
}

/** Takes a piece off with all that was measured of it. */
export function removePiece(id: string): Command {
  return {
    label: 'take a piece off',
    run: (part) =>
      succeed(
        withPlan(part, [], (plan) => ({
          ...plan,
          pieces: plan.pieces.filter((p) => p.id !== id),
          measured: plan.measured.filter((m) => m.piece !== id),
        })),
      ),
  }
}

/** What was measured, of a row on one piece; undefined for nothing. */
export interface Measuring {
  readonly row: string
  readonly piece: string
  readonly value: MeasuredValue['value'] | undefined
}

/** Writes what was measured. */
export function measure(numbers: readonly string[], values: readonly Measuring[]): Command {
  return {
    label:
      values.length === 1 ? 'write a measured value' : `write ${values.length} measured values`,
    run: (part) => succeed(withPlan(part, numbers, (plan) => written(plan, values))),
  }
}

function written(plan: InspectionPlan, values: readonly Measuring[]): InspectionPlan {
  const keyOf = ({ row, piece }: { readonly row: string; readonly piece: string }): string =>
    JSON.stringify([row, piece])
  const changed = new Set(values.map(keyOf))
  const added = values.flatMap(({ row, piece, value }) =>
    value === undefined ? [] : [{ row, piece, value }],
  )
  return { ...plan, measured: [...plan.measured.filter((m) => !changed.has(keyOf(m))), ...added] }
}

/**
 * Writes a block of values, its first column for the piece of an index; pieces that are missing are made.
 * @param columns how many columns the block has
 */
export function measureBlock(
  numbers: readonly string[],
  values: readonly {
    readonly row: string
    readonly column: number
    readonly value: MeasuredValue['value']
  }[],
  from: number,
  columns: number,
): Command {
  return {
    label: `paste ${values.length} measured values`,
    run: (part) => {
      const missing = from + columns - (part.drawing?.plan?.pieces.length ?? 0)
      if (from + columns > MOST_PIECES) return tooMany()
      const wide = missing > 0 ? withNew(part, numbers, missing) : part
      const pieces = wide.drawing?.plan?.pieces ?? []
      const own = values.flatMap(({ row, column, value }) => {
        const piece = pieces[from + column]
        return piece ? [{ row, piece: piece.id, value }] : []
      })
      return succeed(withPlan(wide, numbers, (plan) => written(plan, own)))
    },
  }
}

/** Measures a row with something else than what is proposed; with that again where nothing is named. */
export function chooseInstrument(numbers: readonly string[], id: string, words: string): Command {
  return {
    label: 'choose an instrument',
    run: (part) =>
      succeed(
        withPlan(part, numbers, (plan) => {
          const others = plan.instruments.filter((i) => i.id !== id)
          const own = words.trim().slice(0, 200)
          return { ...plan, instruments: own === '' ? others : [...others, { id, words: own }] }
        }),
      ),
  }
}

/**
 * Numbers all anew; what was measured stays with what it was measured of.
 * @param numbers ids of what is asked, in their new order
 */
export function numberAnew(numbers: readonly string[]): Command {
  return {
    label: 'number the plan anew',
    run: (part) => succeed(withPlan(part, [], (plan) => ({ ...plan, numbers }))),
  }
}
