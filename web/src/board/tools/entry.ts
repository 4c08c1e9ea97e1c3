import { succeed, type Problem, type Result } from '@lathica/core/result'
import { evaluateFormula } from '@lathica/core/formula'
import { valuesOf } from '@lathica/core/part'
import type { Board, EntryField } from './tool'

/** What typed fields come to, in mm and radians; undefined where nothing was typed. */
export function readFields(
  board: Board,
  fields: readonly EntryField[],
  texts: readonly string[],
): Result<readonly (number | undefined)[]> {
  const part = board.part()
  const { lookup } = valuesOf(part).table
  const values: (number | undefined)[] = []
  for (const [i, { want }] of fields.entries()) {
    const text = texts[i]?.trim() ?? ''
    if (text === '' || want === 'words') {
      values.push(undefined)
      continue
    }
    const result = evaluateFormula(text, { want, units: part.units, lookup })
    if (!result.ok) return result
    values.push(result.value)
  }
  return succeed(values)
}

export function problem(code: string, message: string, mend: string): Problem {
  return { code, message, mend }
}
