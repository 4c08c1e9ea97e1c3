import {
  NOTHING_FOUND,
  withAnswer,
  type SolidAsk,
  type SolidPlan,
  type SolidTold,
} from '@lathica/core/solid'
import type { Part } from '@lathica/core/part'
import { evaluate, type PartState } from '@lathica/core/route'
import { withFault, withFigures, type BuiltSolid } from '@lathica/kernel'
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Answer } from '../kernel/answers'

/** What the kernel's thread has told of plans since the page was opened. The solids' store writes it. */
export const useFindingsStore = defineStore('findings', () => {
  const known = shallowRef(NOTHING_FOUND)

  /** Takes an answer in: the states of parts that hold the plan become others. */
  function note(plan: SolidPlan, answer: Answer<BuiltSolid['figures']>): void {
    known.value = answer.ok
      ? withFigures(known.value, plan, answer.value)
      : withFault(known.value, plan, answer.problem, answer.after)
  }

  /** Takes in what was told of solids. */
  function noteTold(ask: SolidAsk, answer: Answer<SolidTold>): void {
    known.value = withAnswer(known.value, ask, answer)
  }

  /** A part's state with what is known. */
  const stateOf = (part: Part): PartState => evaluate(part, known.value)

  return { known, note, noteTold, stateOf }
})
