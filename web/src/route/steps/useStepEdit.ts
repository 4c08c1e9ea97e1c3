import type { Problem } from '@lathica/core/result'
import type { Measure } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import { valuesOf, type Part, type Step } from '@lathica/core/part'
import type { StepState } from '@lathica/core/route'
import { changeStep, perform } from '@lathica/core/edit'
import { computed, onBeforeUnmount, type ComputedRef } from 'vue'
import { useFindingsStore } from '../../store/findings'
import { usePartStore } from '../../store/part'

/** Changes to a step while they are typed, and when they are taken. */
export function useStepEdit(stepId: string): {
  /** How the step stands, with what is typed just now. */
  readonly state: ComputedRef<StepState | undefined>
  readonly preview: (next: Step) => void
  readonly stopPreview: () => void
  /** Takes a change; a step that worked is not broken by a value, and the refusal says why. */
  readonly take: (next: Step) => Problem | undefined
  /** Why a text is no value for a field. */
  readonly fault: (text: string, want: Measure) => Problem | undefined
} {
  const parts = usePartStore()
  const findings = useFindingsStore()
  const state = computed(() => parts.state?.steps.find((s) => s.stepId === stepId))

  const withStep = (next: Step): Part | undefined => {
    const part = parts.history?.part
    const result =
      part &&
      perform(
        part,
        changeStep(stepId, () => next),
      )
    return result?.ok === true ? result.value : undefined
  }
  const stateIn = (part: Part | undefined): StepState | undefined =>
    part && findings.stateOf(part).steps.find((s) => s.stepId === stepId)

  const stopPreview = (): void => {
    if (parts.preview) parts.preview = undefined
  }
  onBeforeUnmount(stopPreview)

  return {
    state,
    stopPreview,
    preview(next) {
      const part = withStep(next)
      if (part) parts.preview = part
    },
    take(next) {
      const before = stateIn(parts.history?.part)
      const after = stateIn(withStep(next))
      if (before?.status === 'done' && after?.status === 'failed') return after.problem
      stopPreview()
      const result = parts.attempt(changeStep(stepId, () => next))
      return result.ok ? undefined : result.problem
    },
    fault(text, want) {
      const part = parts.history?.part
      if (!part) return undefined
      const { lookup } = valuesOf(part).table
      const result = evaluateFormula(text, { want, units: part.units, lookup })
      return result.ok ? undefined : result.problem
    },
  }
}
