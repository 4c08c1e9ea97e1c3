const PLACE = ':'
const POINT = '.'

/** The name of a place that tells part of an edge, or of something within it. */
export const placeName = (name: string, ...words: readonly (string | number)[]): string =>
  [name, ...words].join(PLACE)

/** What a place tells part of; undefined where a text names no place. */
export function edgeOfPlace(name: string): string | undefined {
  const cut = name.lastIndexOf(PLACE)
  return cut < 0 ? undefined : name.slice(0, cut)
}

/** The name of a point of a sketch. */
export const pointName = (sketch: string, point: string): string => sketch + POINT + point

/** The sketch and the point that a name means. */
export function pointCalled(name: string): { readonly sketch: string; readonly point: string } {
  const [sketch = '', point = ''] = name.split(POINT)
  return { sketch, point }
}

/** The ids of steps, profiles and points that a name is made of. */
export const idsInName = (name: string): readonly string[] => name.split(/[^A-Za-z0-9_-]+/)
