import type { Problem, Result } from '@lathica/core/result'
import type { Measure } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import { valuesOf } from '@lathica/core/part'
import { usePartStore } from '../../store/part'

/** Reads what is typed in fields that belong to no step, in the units and with the values of the part. */
export function useTyped(): {
  readonly read: (text: string, want: Measure) => Result<number>
  readonly fault: (text: string, want: Measure) => Problem | undefined
} {
  const parts = usePartStore()
  const read = (text: string, want: Measure): Result<number> => {
    const lookup = parts.part ? valuesOf(parts.part).table.lookup : () => undefined
    return evaluateFormula(text, { want, units: parts.units, lookup })
  }
  const fault = (text: string, want: Measure): Problem | undefined => {
    const result = read(text, want)
    return result.ok ? undefined : result.problem
  }
  return { read, fault }
}
