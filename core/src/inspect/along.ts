import { courseUpTo, coursesOf, integrate, type Course } from '../geometry'
import { edgesOf, liesOnAxis, type Section } from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { once } from '../once'

/** A section seen along the axis: intervals between its corners, and what bounds it in each. */
export interface Lengthwise {
  /** Where intervals begin and end, in mm, growing. */
  readonly breaks: readonly number[]
  /** For every interval the outline's courses across it, from the axis outwards. */
  readonly courses: readonly (readonly Course[])[]
}

/** Cuts a section at every corner and extreme, so that between cuts its outline is a list of courses. */
export const lengthwise = once((section: Section): Lengthwise => {
  const all = edgesOf(section)
    .filter((e) => !liesOnAxis(e))
    .flatMap((e) => coursesOf(e.piece, 'x'))
    .filter((c) => c.high - c.low > VERTEX_TOLERANCE)
  const places = all.flatMap((c) => [c.low, c.high]).sort((a, b) => a - b)
  const breaks = places.filter((x, i) => i === 0 || x - (places[i - 1] ?? x) > VERTEX_TOLERANCE)
  const courses = breaks.slice(1).map((): Course[] => [])
  for (const course of all) {
    let i = before(breaks, course.low + VERTEX_TOLERANCE)
    for (; i < courses.length && (breaks[i + 1] ?? 0) <= course.high + VERTEX_TOLERANCE; i++) {
      courses[i]?.push(course)
    }
  }
  courses.forEach((list, i) => {
    const middle = ((breaks[i] ?? 0) + (breaks[i + 1] ?? 0)) / 2
    list.sort((a, b) => a.at(middle) - b.at(middle))
  })
  return { breaks, courses }
})

/** The number of the last break at or before a place. */
const before = (breaks: readonly number[], x: number): number =>
  Math.max(0, countUpTo(breaks, x) - 1)

/** How many of growing places lie at or before one. */
export function countUpTo(places: ArrayLike<number>, x: number): number {
  let [low, high] = [0, places.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((places[middle] ?? 0) <= x) low = middle + 1
    else high = middle
  }
  return low
}

/** Inner and outer radius in mm of every ring of material at a place along the axis, inside first. */
export function ringsAt(section: Section, x: number): (readonly [inner: number, outer: number])[] {
  const { breaks, courses } = lengthwise(section)
  if (x < (breaks[0] ?? 0) || x > (breaks.at(-1) ?? 0)) return []
  const list = courses[Math.min(courses.length - 1, before(breaks, x))] ?? []
  return paired(list.map((c) => c.at(x)))
}

/** Radii by twos; an odd count begins on the axis, where the part is solid. */
function paired(radii: readonly number[]): (readonly [number, number])[] {
  const all = radii.length % 2 === 1 ? [0, ...radii] : radii
  return all.flatMap((inner, i) => (i % 2 === 0 ? [[inner, all[i + 1] ?? inner] as const] : []))
}

/** What a body is at one place along the axis. Where nothing is, all are nought. */
export interface Station {
  /** in mm */
  readonly x: number
  /** Outermost and innermost diameter in mm; a solid part has no innermost. */
  readonly outer: number
  readonly inner: number
  /** Of the cross-section square to the axis, in mm². */
  readonly area: number
  /** Second moment of that area about a diameter, in mm⁴. */
  readonly secondMoment: number
  /** Volume up to there, in mm³. */
  readonly volume: number
}

/**
 * Stations along a section, from end to end. Every shoulder has two at one place, one from either
 * side, so that a curve through them steps where the part does.
 * @param count about how many
 */
export function stationsAlong(section: Section, count: number): Station[] {
  const { breaks, courses } = lengthwise(section)
  const length = (breaks.at(-1) ?? 0) - (breaks[0] ?? 0)
  const stations: Station[] = []
  let volume = 0
  courses.forEach((list, i) => {
    const [from, to] = [breaks[i] ?? 0, breaks[i + 1] ?? 0]
    const steps = Math.max(1, Math.round((count * (to - from)) / length))
    const start = volume
    for (let k = 0; k <= steps; k++) {
      const x = k === steps ? to : from + ((to - from) * k) / steps
      const here = crossSection(list, x)
      volume = start + volumeBetween(list, from, x)
      stations.push({ x, ...here, volume })
    }
  })
  return stations
}

/** Diameters and moments of a cross-section: π/4 (D² − d²) and π/64 (D⁴ − d⁴), ring by ring. */
function crossSection(list: readonly Course[], x: number): Omit<Station, 'x' | 'volume'> {
  let [area, secondMoment] = [0, 0]
  // By hand, since it runs for every station: rings begin at every other course, and on the axis
  // where their count is odd.
  let [from, first, last] = [0, 0, 0]
  let open = list.length % 2 === 1
  list.forEach((course, i) => {
    const radius = course.at(x)
    if (i === 0 && !open) first = 2 * radius
    if (open) {
      const [inner, outer] = [from * from, radius * radius]
      area += Math.PI * (outer - inner)
      secondMoment += (Math.PI / 4) * (outer * outer - inner * inner)
    }
    open = !open
    from = last = radius
  })
  return { outer: 2 * last, inner: first, area, secondMoment }
}

/** The volume of an interval's material from its start to a place in it, in mm³. */
function volumeBetween(list: readonly Course[], from: number, x: number): number {
  if (x <= from) return 0
  let sum = 0
  for (const course of list) sum += sweptBy(course, from, x)
  return sum
}

/** What a course adds to the volume between two places: −π∫y² dx in its own direction. */
export function sweptBy(course: Course, from: number, to: number): number {
  const [low, high] = [Math.max(from, course.low), Math.min(to, course.high)]
  if (high <= low) return 0
  if (course.piece.kind === 'line') {
    const [p, q] = [course.at(low), course.at(high)]
    return (-course.way * Math.PI * (high - low) * (p * p + p * q + q * q)) / 3
  }
  const whole = 2 * Math.PI * integrate(courseUpTo(course, 'x', high), 0).y
  if (low <= course.low) return whole
  return whole - 2 * Math.PI * integrate(courseUpTo(course, 'x', low), 0).y
}
