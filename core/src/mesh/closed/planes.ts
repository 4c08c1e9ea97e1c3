import { vec, type Vec } from '../../geometry'
import type { Strip } from '../lathe'
import { angleOf, chordOf, endsOf, openingsAt, type Cut } from './cuts'
import type { Meetings } from './meetings'
import type { Ring } from './rings'
import { NEAR } from './stations'

/** What a tool takes of a plane face square to the axis. */
interface Notch {
  readonly cut: Cut
  readonly low: number
  readonly high: number
}

/** A ring of places square to the axis. */
export type Round = readonly Vec[]

/** Plane faces square to the axis of which tools from outside take something. */
export class PlaneFaces {
  private readonly notches = new Map<number, readonly Notch[]>()

  constructor(private readonly meet: Meetings) {}

  /** Tells what is taken of a plane face. */
  mark(strip: number, { points, normals }: Strip, cuts: readonly Cut[]): void {
    const x = points[0]?.x ?? 0
    const high = Math.max(...points.map((p) => p.y))
    const station = this.meet.stationAt(x)
    if (station < 0) return
    // Of what lies on the side of its material.
    const first = (normals[0]?.x ?? 1) > 0 ? station - 1 : station
    const middle = (this.meet.at(first) + this.meet.at(first + 1)) / 2
    const found = openingsAt(cuts, middle, high).flatMap((opening): Notch[] => {
      if (first < 0 || first + 1 >= this.meet.stations.length) return []
      const { cut } = opening
      const chord = chordOf(cut.floor, high)
      const [one, other] = endsOf(opening, x, high)
      return cut.ground !== undefined && other.t > one.t && chord > 0
        ? [{ cut, low: one.t, high: other.t }]
        : []
    })
    this.notches.set(strip, found)
  }

  /** The rings of a plane face that something was taken of, or that has points of others. */
  ringsOf(strip: number, { points }: Strip): (readonly Round[])[] | undefined {
    const notches = this.notches.get(strip) ?? []
    const x = points[0]?.x ?? 0
    const radii = points.map((p) => p.y).sort((a, b) => b - a)
    const [high = 0, low = 0] = radii
    const marked = radii.some((y) => this.meet.markedAt(vec(x, y)) !== undefined)
    if (notches.length === 0 && !marked) return undefined
    const outer = this.meet.ringAt(x, high)
    const inner = low > 0 ? this.meet.ringAt(x, low) : undefined
    const station = this.meet.stationAt(x)
    const runs = notches.length === 0 ? [] : this.runsRound(notches, station, outer, inner)
    const loops = linked(runs)
    if (notches.length === 0) loops.push(outer.points.map((p) => p.id))
    const isInnerCut = inner && notches.some((n) => openOn(n, inner.radius))
    if (inner && !isInnerCut) loops.push(inner.points.map((p) => p.id).reverse())
    return nested(loops.map((ids) => ids.map((id) => this.meet.flatAt(id))))
  }

  /** The lines round what is left of a plane face, each with material to its left as seen against the axis. */
  private runsRound(
    notches: readonly Notch[],
    station: number,
    outer: Ring,
    inner: Ring | undefined,
  ): number[][] {
    const runs: number[][] = []
    const idOn = (ring: Ring, cut: Cut, t: number): number =>
      this.meet.spotOn(ring, cut, { t, w: chordOf(t, ring.radius) })
    const round = (ring: Ring, isIn: boolean): void => {
      const open = notches
        .flatMap((n) => {
          const span = openOn(n, ring.radius)
          return span ? [{ n, ...span }] : []
        })
        .map((o) => ({
          ...o,
          at: angleOf(o.n.cut, { t: o.low, w: chordOf(o.low, ring.radius) }),
        }))
        .sort((a, b) => a.at - b.at)
      open.forEach((o, i) => {
        const next = open[(i + 1) % open.length] ?? o
        const [from, to] = [idOn(ring, o.n.cut, o.high), idOn(ring, next.n.cut, next.low)]
        const ids = ring.from(from, to, open.length === 1).map((p) => p.id)
        runs.push(isIn ? ids.reverse() : ids)
      })
    }
    round(outer, false)
    if (inner) round(inner, true)
    for (const notch of notches) {
      const { cut, low, high } = notch
      const [start, end] = [idOn(outer, cut, low), idOn(outer, cut, high)]
      const span = inner && openOn(notch, inner.radius)
      if (!inner || !span) {
        const foot = this.meet.floorBetween(station, cut, low, high).map((p) => p.id)
        runs.push(withoutRepeats([start, ...foot, end]))
        continue
      }
      const [left, right] = [idOn(inner, cut, span.low), idOn(inner, cut, span.high)]
      const foot = (from: number, to: number): number[] =>
        to - from < NEAR ? [] : this.meet.floorBetween(station, cut, from, to).map((p) => p.id)
      runs.push(withoutRepeats([start, ...foot(low, span.low), left]))
      runs.push(withoutRepeats([right, ...foot(span.high, high), end]))
    }
    return runs
  }
}

/** What a notch opens of a circle. */
function openOn({ cut, low, high }: Notch, radius: number) {
  if (radius <= cut.floor) return undefined
  const chord = chordOf(cut.floor, radius)
  const span = { low: Math.max(low, -chord), high: Math.min(high, chord) }
  return span.high > span.low ? span : undefined
}

const withoutRepeats = (ids: readonly number[]): number[] =>
  ids.filter((id, i) => i === 0 || id !== ids[i - 1])

/** Lines joined end to end, to closed ones. */
function linked(runs: readonly (readonly number[])[]): number[][] {
  const byStart = new Map(runs.filter((r) => r.length > 1).map((r) => [r[0], r]))
  const loops: number[][] = []
  for (let [start] = byStart.keys(); start !== undefined; [start] = byStart.keys()) {
    const loop: number[] = []
    for (let run = byStart.get(start); run; run = byStart.get(run.at(-1))) {
      byStart.delete(run[0])
      loop.push(...run.slice(0, -1))
    }
    loops.push(loop)
  }
  return loops
}

/** Rings by what they are round: those that run to the left with the others that lie in them. */
function nested(rings: readonly Round[]): (readonly Round[])[] {
  const outer = rings.filter((r) => areaOf(r) > 0)
  const holes = rings.filter((r) => areaOf(r) <= 0)
  return outer.map((ring) => [ring, ...holes.filter((h) => h[0] && isWithin(ring, h[0]))])
}

export const areaOf = (ring: Round): number =>
  ring.reduce((sum, p, i) => {
    const q = ring[(i + 1) % ring.length] ?? p
    return sum + (p.x * q.y - q.x * p.y) / 2
  }, 0)

/** Whether a place lies within a ring. */
export function isWithin(ring: Round, { x, y }: Vec): boolean {
  let inside = false
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length] ?? a
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside
  })
  return inside
}
