import { message } from 'ant-design-vue'
import type { Problem } from '@lathica/core/result'

/** Says what went wrong and what mends it, without stopping the work. */
export function tellProblem(problem: Pick<Problem, 'message' | 'mend'>): void {
  void message.warning({
    content: `${problem.message} ${problem.mend}`,
    duration: 6,
    key: 'problem',
  })
}

export function tell(sentence: string): void {
  void message.info({ content: sentence, duration: 3 })
}
