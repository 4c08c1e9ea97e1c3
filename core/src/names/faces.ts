const OF_STEP = '/'
const COPY = '@'

/** The name of a face, or of the edge of a section, within its step. */
export const faceName = (step: string, what: string): string => `${step}${OF_STEP}${what}`

/** The step that a face is from; empty where a text names none. */
export const stepOfFace = (name: string): string =>
  isFaceName(name) ? name.slice(0, name.indexOf(OF_STEP)) : ''

/** What a face is within its step, of copies what their first is. */
export const faceInStep = (name: string): string =>
  isFaceName(name) ? withoutCopy(name.slice(name.indexOf(OF_STEP) + 1)) : ''

/** Whether a text is the name of a face. */
export const isFaceName = (text: string): boolean => text.includes(OF_STEP)

/** Whether a face is from a step. */
export const isFaceOf = (step: string, name: string): boolean => name.startsWith(step + OF_STEP)

/** The same face as that of another step. */
export const faceOfOtherStep = (name: string, from: string, to: string): string =>
  isFaceOf(from, name) ? to + name.slice(from.length) : name

/** What is put behind the names of a copy. @param which the step that makes it, its number, or both */
export const copyMark = (...which: readonly (string | number)[]): string => COPY + which.join('.')

/** Which of several alike a face is, where its name tells a number; empty else. */
export const copyNumber = (name: string): string => /@(\d+)$/.exec(name)?.[1] ?? ''

/** The name of what a face is a copy of. */
export const withoutCopy = (name: string): string => name.split(COPY)[0] ?? name
