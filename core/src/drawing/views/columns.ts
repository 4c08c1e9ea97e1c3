import { coursesOf, type Course } from '../../geometry'
import { edgesOf, type Section } from '../../section'

/** Where material stands over a place of the axis: stretches of the radius, in order. */
export type Stack = readonly (readonly [number, number])[]

/** Stacks of a section by place, found among the courses near it. */
export interface Columns {
  readonly courses: readonly Course[]
  /** The courses over a place that is no end of any of them. */
  over(x: number): readonly Course[]
  stackAt(x: number): Stack
}

/** Stretches of the axis by which courses are found. */
const BINS = 256

export function columnsOf(section: Section): Columns {
  const courses = edgesOf(section).flatMap(({ piece }) => coursesOf(piece, 'x'))
  const low = courses.reduce((least, c) => Math.min(least, c.low), Infinity)
  const high = courses.reduce((most, c) => Math.max(most, c.high), -Infinity)
  const binOf = (x: number): number =>
    Math.max(0, Math.min(BINS - 1, Math.floor(((x - low) / (high - low)) * BINS) || 0))
  const bins = Array.from({ length: BINS }, (): Course[] => [])
  for (const course of courses) {
    for (let i = binOf(course.low); i <= binOf(course.high); i++) bins[i]?.push(course)
  }
  const over = (x: number): readonly Course[] =>
    (bins[binOf(x)] ?? []).filter((c) => c.low < x && x < c.high)
  return {
    courses,
    over,
    stackAt: (x) => {
      const heights = over(x)
        .map((c) => c.at(x))
        .sort((a, b) => a - b)
      return heights.flatMap((from, i) =>
        i % 2 === 0 ? [[from, heights[i + 1] ?? from]] : [],
      ) as Stack
    },
  }
}
