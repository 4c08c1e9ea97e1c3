/** The time of day as hours and minutes, from 00:00 to 23:59. */
export function clock(at: Date): string {
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${two(at.getHours())}:${two(at.getMinutes())}`
}
