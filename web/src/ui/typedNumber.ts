/**
 * The figure in a plain field, with a point or a comma. What is none, or cannot be, is put back to what stood there.
 * @param before what stood there
 * @param isGood whether it can be
 */
export function typedNumber(
  event: Event,
  before: number | undefined,
  isGood: (typed: number) => boolean,
): number | undefined {
  const input = event.target as HTMLInputElement
  const typed = Number(input.value.replace(',', '.'))
  if (input.value.trim() !== '' && Number.isFinite(typed) && isGood(typed)) return typed
  input.value = String(before ?? '')
  return undefined
}
