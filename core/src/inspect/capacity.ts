import { boundsOf, coursesOf, line, type Course } from '../geometry'
import {
  EMPTY_SECTION,
  combine,
  edgesOf,
  extentOf,
  liesOnAxis,
  loopsOf,
  sectionArea,
  type EdgeName,
  type Section,
  type SectionEdge,
} from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { lastFor, once } from '../once'
import type { BodyState } from '../route'
import type { SolidPlan } from '../solid'
import { sweptBy } from './along'
import { openingsOf, type Opening } from './openings'

/** The room inside a vessel that stands upright, its open end up at growing x; lengths in mm. */
export interface Cavity {
  /** True for a room that is closed all round. */
  readonly closed: boolean
  /** The lowest place inside, and the brim or, in a closed room, its top. */
  readonly floor: number
  readonly brim: number
  /** What it holds, in mm³. */
  readonly volume: number
  /** The outline of the room, as functions of the place along the axis. */
  readonly courses: readonly Course[]
  /** The room itself as a section. */
  readonly room: Section
  /** The step that made an opening below the brim, where it runs out. */
  readonly opening?: string
  /** Whether nothing else was done that could change what it holds: to a body that is no full turn. */
  readonly isWhole: boolean
}

/** Rooms smaller than this in mm³ hold nothing worth telling. */
const LEAST_ROOM = 1e-3

/**
 * The largest room of a body that holds liquid: closed all round, or open at the top and filled to
 * its brim. @returns undefined for a body that holds nothing
 */
export const cavityOf = once((section: Section): Cavity | undefined => largestOf(roomsOf(section)))

/**
 * The same of a body that may be no full turn: what it holds up to where holes, slots and notches let it run out, if that is
 * below the brim.
 */
export const cavityIn = ({ section, plan }: Pick<BodyState, 'section' | 'plan'>) =>
  plan ? openedIn(section, plan) : cavityOf(section)

const openedIn = lastFor((section: Section, plan: SolidPlan): Cavity | undefined => {
  const [low, high] = section.regions.length === 0 ? [0, 0] : extentOf(section)
  const free = around(section, high + 1)
  return largestOf(
    roomsOf(section).map((cavity): Cavity => {
      const outside = free && combine(free, cavity.room, 'cut')
      const { all, isWhole } = openingsOf(plan, cavity.room, outside ?? EMPTY_SECTION)
      const lowest = all.reduce<Opening | undefined>(
        (best, one) => (best && best.level <= one.level ? best : one),
        undefined,
      )
      if (!lowest || lowest.level >= cavity.brim - VERTEX_TOLERANCE) return { ...cavity, isWhole }
      const brim = Math.max(low, lowest.level)
      const volume = filledTo(cavity.courses, brim)
      return { ...cavity, isWhole, closed: false, brim, volume, opening: lowest.step }
    }),
  )
})

const roomsOf = (section: Section): Cavity[] =>
  section.regions.length === 0 ? [] : [...closedRooms(section), ...openRooms(section)]

function largestOf(rooms: readonly Cavity[]): Cavity | undefined {
  const largest = rooms.reduce<Cavity | undefined>(
    (best, room) => (best && best.volume >= room.volume ? best : room),
    undefined,
  )
  return largest && largest.volume > LEAST_ROOM ? largest : undefined
}

const LID: EdgeName = { step: 'lid', entity: 'lid', role: 'made' }

/** All that is between two places along the axis, further out than anything of a section. */
function slab(from: number, to: number, beyond: Section): Section {
  const reach = Math.max(...edgesOf(beyond).map((e) => boundsOf(e.piece).max.y)) + 1
  const corners = [
    { x: from, y: 0 },
    { x: to, y: 0 },
    { x: to, y: reach },
    { x: from, y: reach },
  ]
  const outer = corners.map((p, i): SectionEdge => {
    const next = corners[(i + 1) % 4] ?? p
    return { piece: line(p, next), name: i === 0 ? { ...LID, role: 'axis' } : LID }
  })
  return { regions: [{ outer, holes: [] }] }
}

/** What is no material, from well below a part up to a level. */
function around(section: Section, level: number): Section | undefined {
  const [low] = extentOf(section)
  return combine(slab(low - 1, level, section), section, 'cut')
}

/** Rooms that do not reach the outside at all. */
function closedRooms(section: Section): Cavity[] {
  const [low, high] = extentOf(section)
  return inner(around(section, high + 1), low).map((room) => cavity(room, true, extentOf(room)[1]))
}

/** For every brim, the room below it that the liquid would leave over just that brim. */
function openRooms(section: Section): Cavity[] {
  const [low] = extentOf(section)
  return brimsOf(section).flatMap((brim) =>
    inner(around(section, brim), low)
      .filter((room) => extentOf(room)[1] >= brim - VERTEX_TOLERANCE)
      .map((room) => cavity(room, false, brim)),
  )
}

/** The parts of a section that do not reach below the part or beyond it outwards: all but the outside. */
function inner(section: Section | undefined, low: number): Section[] {
  return (section?.regions ?? []).flatMap((region) => {
    const outside = region.outer.some((e) => boundsOf(e.piece).min.x < low - 0.5)
    return outside ? [] : [{ regions: [region] }]
  })
}

function cavity(room: Section, closed: boolean, brim: number): Cavity {
  const courses = edgesOf(room)
    .filter((e) => !liesOnAxis(e))
    .flatMap((e) => coursesOf(e.piece, 'x'))
  const floor = extentOf(room)[0]
  const volume = filledTo(courses, brim)
  return { closed, floor, brim, courses, room, volume, isWhole: true }
}

/** Levels where the outline turns from rising to falling, over a flat rim or not, highest first. */
function brimsOf(section: Section): number[] {
  const levels = loopsOf(section).flatMap((loop) => {
    const ways = loop.flatMap(({ piece }) => {
      const courses = coursesOf(piece, 'x')
      return courses.map((c) => ({ rises: c.way > 0, top: Math.max(c.low, c.high) }))
    })
    // Flat pieces are none of these: what goes up before them must go down behind them.
    return ways.flatMap(({ rises, top }, i) => {
      const next = ways[(i + 1) % ways.length]
      return rises && next?.rises === false ? [top] : []
    })
  })
  const sorted = levels.sort((a, b) => b - a)
  return sorted.filter((x, i) => i === 0 || (sorted[i - 1] ?? x) - x > VERTEX_TOLERANCE)
}

/** The volume of a room up to a place along the axis: π∫y² dx round its outline. */
function filledTo(courses: readonly Course[], x: number): number {
  return courses.reduce((sum, c) => sum + sweptBy(c, c.low, Math.min(x, c.high)), 0)
}

/** What a room holds, filled to a height over its floor; beyond the brim no more than all. @returns mm³ */
export function capacityAt({ courses, floor }: Cavity, height: number): number {
  return height <= 0 ? 0 : filledTo(courses, floor + height)
}

/**
 * How high a volume stands in a room, over its floor in mm: by halving, since what it holds only
 * grows with the height. @returns undefined for more than it holds
 */
export function heightFor(room: Cavity, volume: number): number | undefined {
  if (volume <= 0) return 0
  if (volume > room.volume * (1 + 1e-12)) return undefined
  let [low, high] = [0, room.brim - room.floor]
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (capacityAt(room, middle) < volume) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** The room filled to a height, to be shown: what of it lies below the liquid's surface. */
export function filledRoom({ room, floor }: Cavity, height: number): Section {
  if (height <= 0 || sectionArea(room) === 0) return { regions: [] }
  return combine(room, slab(floor - 1, floor + height, room), 'common') ?? { regions: [] }
}

/** Heights and what a room holds at each, from empty to full, in mm and mm³. */
export function capacityCurve(room: Cavity, count: number): { height: number; volume: number }[] {
  const full = room.brim - room.floor
  return Array.from({ length: count + 1 }, (_, i) => {
    const height = (full * i) / count
    return { height, volume: capacityAt(room, height) }
  })
}
