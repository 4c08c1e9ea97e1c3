import { LONGEST_FORMULA } from '../../formula'
import type { Check, NewCheck, Part } from '../../part'
import { fail, succeed, type Result } from '../../result'
import type { Command } from '../command'

/** The most rows a sheet may have: beyond it no one reads them. */
export const MOST_CHECKS = 500

/** Puts rows at the end of the inspection sheet. */
export function addChecks(rows: readonly NewCheck[]): Command {
  return {
    label: rows.length === 1 ? 'add to the sheet' : `add ${rows.length} rows to the sheet`,
    run: (part) => {
      if (part.checks.length + rows.length > MOST_CHECKS) {
        return fail(
          'check.many',
          `A sheet has at most ${MOST_CHECKS} rows.`,
          'Delete some that are no longer needed.',
        )
      }
      const made = rows.map((row, i) => newCheck(`check${part.nextId + i}`, row))
      return succeed({
        ...part,
        nextId: part.nextId + rows.length,
        checks: [...part.checks, ...made],
      })
    },
  }
}

function newCheck(id: string, row: NewCheck): Check {
  const empty = { name: '', unit: '', limit: 'about', target: '', above: '', below: '' } as const
  return { ...empty, ...row, id }
}

/**
 * Changes a row. What is typed into it is kept even where it has no meaning: the row then says so,
 * as a target may be written before the part it is for.
 */
export function changeCheck(id: string, change: Partial<Omit<Check, 'id'>>): Command {
  return {
    label: 'change the sheet',
    run: (part) => {
      const texts = [change.target, change.above, change.below, change.name]
      if (texts.some((t) => (t?.length ?? 0) > Math.min(LONGEST_FORMULA, 120))) {
        return fail('check.long', 'This is too long for a row.', 'Keep it under 120 letters.')
      }
      return withCheck(part, id, (check) => ({ ...check, ...change }))
    },
  }
}

function withCheck(part: Part, id: string, change: (check: Check) => Check): Result<Part> {
  const checks = part.checks.map((c) => (c.id === id ? change(c) : c))
  return succeed({ ...part, checks })
}

export function removeCheck(id: string): Command {
  return {
    label: 'delete a row of the sheet',
    run: (part) => succeed({ ...part, checks: part.checks.filter((c) => c.id !== id) }),
  }
}

/** Moves a row to another place. @param to how many rows stand before it then */
export function moveCheck(id: string, to: number): Command {
  return {
    label: 'move a row of the sheet',
    run: (part) => {
      const row = part.checks.find((c) => c.id === id)
      if (!row) return succeed(part)
      const rest = part.checks.filter((c) => c.id !== id)
      const place = Math.max(0, Math.min(rest.length, to))
      return succeed({ ...part, checks: [...rest.slice(0, place), row, ...rest.slice(place)] })
    },
  }
}
