import type { Problem } from '@lathica/core/result'
import type { Figure } from '@lathica/core/part'
import { figureWords, figuresOf, pickedIn, unitOfFigure } from '@lathica/core/inspect'
import { tolerancedIn, type Variation } from '@lathica/core/vary'
import type { ShownUnit } from '@lathica/core/units/shown'
import { computed, onBeforeUnmount, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import { vary, type Job } from '../vary/client'

/** A figure that can be asked what it varies by. */
export interface Varied {
  /** `picks/KIND`, or `row/ID` of the sheet. */
  readonly value: string
  readonly label: string
  readonly figure: Figure
}

/** The figure that is asked for, and what it varies by; worked out beside the page. */
export function useVaried(): {
  readonly choices: ComputedRef<readonly Varied[]>
  readonly choice: ComputedRef<Varied | undefined>
  readonly chosen: Ref<string>
  readonly variation: Ref<Variation | undefined>
  readonly problem: Ref<Problem | undefined>
  readonly isBusy: Ref<boolean>
  /** How far the work is, from 0 to 1. */
  readonly done: Ref<number>
  readonly unit: ComputedRef<ShownUnit | undefined>
} {
  const parts = usePartStore()
  const inspect = useInspectStore()

  /** Figures to choose from: of what is picked, then of the sheet's rows. */
  const choices = computed<readonly Varied[]>(() => {
    const part = parts.history?.part
    if (!part) return []
    const picked = inspect.picks.flatMap((p) => pickedIn(inspect.standing, p) ?? [])
    const ofPicks =
      picked.length === inspect.picks.length && picked.length > 0
        ? [...figuresOf(picked)].sort((a, b) => Number(b === 'axial') - Number(a === 'axial'))
        : []
    const words = (figure: Figure): string => figureWords(figure, part, inspect.standing)
    return [
      ...ofPicks.map((kind) => {
        const figure: Figure = { kind, picks: inspect.picks }
        return { value: `picks/${kind}`, label: words(figure), figure }
      }),
      ...part.checks.map(({ id, name, figure }) => ({
        ...{ value: `row/${id}`, figure },
        label: `sheet: ${name.trim() === '' ? words(figure) : name}`,
      })),
    ]
  })
  const wanted = ref('')
  const choice = computed(
    () => choices.value.find((c) => c.value === wanted.value) ?? choices.value[0],
  )
  const chosen = computed({
    get: () => choice.value?.value ?? '',
    set: (value: string) => (wanted.value = value),
  })
  watch(
    () => inspect.picks,
    () => (wanted.value = ''),
  )

  const hasTolerances = computed(
    () => parts.history?.part !== undefined && tolerancedIn(parts.history?.part).length > 0,
  )
  const variation = shallowRef<Variation>()
  const problem = shallowRef<Problem>()
  const done = ref(0)
  const isBusy = ref(false)
  let job: Job<Variation> | undefined
  watch(
    [() => parts.history?.part, () => JSON.stringify(choice.value?.figure), hasTolerances],
    async () => {
      job?.end()
      job = undefined
      isBusy.value = false
      problem.value = undefined
      const part = parts.history?.part
      const figure = choice.value?.figure
      if (!part || !figure || !hasTolerances.value) {
        variation.value = undefined
        return
      }
      isBusy.value = true
      done.value = 0
      const own = vary(part, figure, (share) => {
        if (job === own) done.value = share
      })
      job = own
      const answer = await own.answer
      if (job !== own) return
      isBusy.value = false
      variation.value = answer?.ok === true ? answer.value : undefined
      problem.value = answer && !answer.ok ? answer.problem : undefined
    },
    { immediate: true },
  )
  onBeforeUnmount(() => job?.end())

  const unit = computed(() => {
    const part = parts.history?.part
    return part && choice.value ? unitOfFigure(choice.value.figure.kind, part) : undefined
  })
  return { choices, choice, chosen, variation, problem, isBusy, done, unit }
}
