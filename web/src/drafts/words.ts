import { clock, day } from '../clock'
import type { Draft } from './drafts'

/** When a draft was last changed: the time, with the day where that is not today. */
export function momentOf({ at }: Pick<Draft, 'at'>): string {
  const then = new Date(at)
  const isToday = then.toDateString() === new Date().toDateString()
  return isToday ? clock(then) : `${clock(then)} on ${day(then)}`
}

/** What a draft is called that becomes a part of its own. */
export const nameAsPart = (draft: Draft): string =>
  `${draft.name.slice(0, 50)} (work of ${momentOf(draft)})`
