import { usePartStore } from '../../store/part'

/**
 * While nothing is typed there is nothing to take back in the field: the last edit of the part is
 * meant.
 * @param isClean whether the field shows what the part has
 */
export function undoFromField(event: KeyboardEvent, isClean: boolean): void {
  const undoes = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z'
  if (!undoes || !isClean) return
  event.preventDefault()
  const parts = usePartStore()
  if (event.shiftKey) parts.stepForth()
  else parts.stepBack()
}
