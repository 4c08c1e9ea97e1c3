/** The time of day as hours and minutes, from 00:00 to 23:59. */
export function clock(at: Date): string {
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${two(at.getHours())}:${two(at.getMinutes())}`
}

/** A day as in “2 Nov 2026”. */
export function day(at: Date): string {
  return at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}
