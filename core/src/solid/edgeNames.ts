/** Between the names of the two faces that meet in an edge. */
const MEETS = '&'

/** The name of the edges in which two faces meet, whichever is told first. */
export const meetingKey = (a: string, b: string): string => [a, b].sort().join(MEETS)

/** The names of the two faces of such a name; undefined of what is none. */
export function facesMeeting(key: string): readonly [string, string] | undefined {
  const [a, b, more] = key.split(MEETS)
  return a === undefined || b === undefined || more !== undefined ? undefined : [a, b]
}
