/** The time of day as hours and minutes, from 00:00 to 23:59. */
export function clock(at: Date): string {
  return at.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })
}
