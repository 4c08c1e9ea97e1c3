/**
 * A plain figure turned up or down by an arrow key: by one, with Shift by ten, with Alt by a tenth. What is no plain
 * figure, as a formula, stays.
 */
export function turnedFigure(text: string, by: 1 | -1, event: KeyboardEvent): string {
  const now = Number(text)
  if (text.trim() === '' || !Number.isFinite(now)) return text
  const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1
  return String(Number((now + by * step).toFixed(9)))
}
