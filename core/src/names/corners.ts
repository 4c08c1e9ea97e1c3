const MEETS = '|'
const NUMBER = '#'
const AXIS = 'axis'

/** The name of the corner in which two edges of a section meet, whichever is told first. */
export const cornerName = (a: string, b: string): string => (a < b ? a + MEETS + b : b + MEETS + a)

/** The name of the place where an edge of a section comes to the axis. */
export const poleName = (edge: string): string => edge + MEETS + AXIS

/** Whether a text is the name of a corner or a pole. */
export const isCornerName = (text: string): boolean => text.includes(MEETS)

/** The edges that a corner is made of. */
export const edgesOfCorner = (name: string): readonly string[] =>
  name.replace(/#\d+$/, '').split(MEETS)

/** The n-th of several that have one name, from 1 on; the first has it alone. */
export const numbered = (name: string, n: number): string => (n > 1 ? name + NUMBER + n : name)
