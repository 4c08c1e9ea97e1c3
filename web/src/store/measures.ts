import { askKey, type SolidAsk } from '@lathica/core/solid'
import type { Figure } from '@lathica/core/part'
import { asksOf, asksOfChecks } from '@lathica/core/inspect'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { isStopped } from '../kernel/answers'
import { measureSolid } from '../kernel/client'
import { useFindingsStore } from './findings'
import { usePartStore } from './part'

/** Has measured on solids what the inspection sheet and the figures in view ask for, one after another. */
export const useMeasuresStore = defineStore('measures', () => {
  const parts = usePartStore()
  const findings = useFindingsStore()
  /** The figures that are looked at besides the sheet. */
  const shown = shallowRef<readonly Figure[]>([])

  /** What is not told yet of the part as it stands; nothing while something is dragged. */
  const asks = computed<readonly SolidAsk[]>(() => {
    const state = parts.followed
    if (!state || parts.preview) return []
    const { part, bodies } = state
    if (!bodies.some((b) => b.plan)) return []
    return [...shown.value.flatMap((f) => asksOf(f, part, bodies)), ...asksOfChecks(state)]
  })

  let inHand: { readonly key: string; readonly stop: AbortController } | undefined
  async function work(): Promise<void> {
    if (inHand) return
    for (let [ask] = asks.value; ask; [ask] = asks.value) {
      const stop = new AbortController()
      inHand = { key: askKey(ask), stop }
      const answer = await measureSolid(ask, stop.signal)
      inHand = undefined
      if (!isStopped(answer)) findings.noteTold(ask, answer)
    }
  }
  watch(
    asks,
    (now) => {
      // What an edit has passed is left.
      if (inHand && !now.some((a) => askKey(a) === inHand?.key)) inHand.stop.abort()
      void work()
    },
    { immediate: true },
  )

  return { shown }
})
