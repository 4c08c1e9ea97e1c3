/** Between the names of the two faces that meet in an edge. */
const MEETS = '&'

/** Before the number of one stretch of an edge. */
const STRETCH = '#'

/** The edge in which two faces meet, or one stretch of it where they meet in several. */
export interface EdgeCalled {
  readonly faces: readonly [string, string]
  /** The number of the stretch, from 1 on, in the order of `stretchesInOrder`. */
  readonly stretch?: number
}

/** The name of the edge in which two faces meet, whichever is told first. */
export const meetingKey = (a: string, b: string): string => [a, b].sort().join(MEETS)

/** The name of one stretch of an edge. */
export const stretchKey = (edge: string, stretch: number): string => `${edge}${STRETCH}${stretch}`

/** The name of the whole edge that a stretch is of; of an edge its own. */
export const wholeKey = (key: string): string => key.split(STRETCH)[0] ?? key

/** What a name of an edge or of a stretch means; undefined of what is none. */
export function edgeCalled(key: string): EdgeCalled | undefined {
  const [a, b, more] = wholeKey(key).split(MEETS)
  if (a === undefined || b === undefined || more !== undefined) return undefined
  const told = key.split(STRETCH)[1]
  return { faces: [a, b], ...(told === undefined ? {} : { stretch: Number(told) }) }
}

/**
 * The names with one more of them or less. A whole edge stands for all its stretches, and takes their
 * place when all are there.
 * @param all the names of all stretches of the edge; empty where it has one only
 */
export function edgesToggled(
  keys: readonly string[],
  key: string,
  all: readonly string[],
): readonly string[] {
  const whole = wholeKey(key)
  const others = keys.filter((k) => wholeKey(k) !== whole)
  const isWhole = keys.includes(whole)
  if (key === whole) return isWhole ? others : [...others, whole]
  const had = isWhole ? all : keys.filter((k) => wholeKey(k) === whole)
  const has = had.includes(key) ? had.filter((k) => k !== key) : [...had, key]
  return [...others, ...(has.length > 0 && all.every((k) => has.includes(k)) ? [whole] : has)]
}
