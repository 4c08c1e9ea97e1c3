import { defineAsyncComponent, type Component } from 'vue'
import type { Problem } from '@lathica/core/result'
import { tellProblem } from '../notices'

/** Told where something that is fetched late does not come. */
export const NOT_FETCHED: Problem = {
  code: 'page.fetch',
  message: 'What this takes could not be fetched.',
  mend: 'See that the server runs, and try again.',
}

/**
 * A component that is fetched when it is first shown.
 * @param failed what lets go of it where it cannot be fetched, which is told; then it can be asked for again
 */
export const later = <T extends Component>(
  load: () => Promise<{ readonly default: T }>,
  failed: () => void,
): T =>
  defineAsyncComponent({
    loader: async () => (await load()).default,
    onError: (_error, _retry, fail) => {
      tellProblem(NOT_FETCHED)
      failed()
      fail()
    },
  })
