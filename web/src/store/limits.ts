import { checkStatesAt, type Spans } from '@lathica/core/inspect'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { vary, type Job } from '../vary/client'
import { usePartStore } from './part'

/** What the rows of the sheet come to that ask for every limit; worked out beside the page, one after another. */
export const useLimitsStore = defineStore('limits', () => {
  const parts = usePartStore()
  const spans = shallowRef<Spans>(new Map())
  let running: { readonly job: Job<unknown> } | undefined

  async function work(): Promise<void> {
    running?.job.end()
    running = undefined
    spans.value = new Map()
    const part = parts.history?.part
    for (const { id, figure, everyLimit } of part?.checks ?? []) {
      if (!part || everyLimit !== true) continue
      const own = { job: vary(part, figure, () => undefined) }
      running = own
      const answer = await own.job.answer
      if (running !== own || !answer) return
      const span = answer.ok ? { ok: true as const, value: answer.value.worst } : answer
      spans.value = new Map([...spans.value, [id, span]])
    }
  }
  watch(
    () => parts.history?.part,
    () => void work(),
    { immediate: true },
  )

  const states = computed(() => (parts.state ? checkStatesAt(parts.state, spans.value) : []))
  return { states }
})
