import { vec, type Vec } from '../../geometry'
import type { Land } from '../../solid'
import { Places } from '../places'
import { SAME, type Cut, type Spot } from './cuts'
import { Ring } from './rings'
import type { OnLine } from './shell'
import { NEAR } from './stations'

const ringKey = (x: number, radius: number): string =>
  `${Math.round(x / NEAR)} ${Math.round(radius / NEAR)}`

/** The points in which faces meet: on circles about the axis, and across the floors of tools. */
export class Meetings {
  readonly places = new Places()
  private readonly rings = new Map<string, Ring>()
  /** By tool and station: where points of its floor lie across. */
  private readonly floors = new Map<string, OnLine[]>()

  /** @param outside what looks outwards of the full turn */
  constructor(
    readonly stations: readonly number[],
    private readonly outside: readonly Land[],
    private readonly circle: Float64Array,
  ) {}

  at(station: number): number {
    return this.stations[station] ?? 0
  }

  /** The number of the station at a place along the axis; -1 for none. */
  stationAt(x: number): number {
    return this.stations.findIndex((s) => Math.abs(s - x) < 2 * NEAR)
  }

  ringAt(x: number, radius: number): Ring {
    const key = ringKey(x, radius)
    const known = this.rings.get(key)
    if (known) return known
    const ring = new Ring(x, radius, this.circle, this.places)
    this.rings.set(key, ring)
    return ring
  }

  spotOn(ring: Ring, cut: Cut, spot: Spot): number {
    const { x, y } = cut.put(spot)
    return ring.put(x, y)
  }

  placeAt(station: number, cut: Cut, spot: Spot): number {
    const { x, y } = cut.put(spot)
    return this.places.numberOf(x, y, this.at(station))
  }

  /** Puts down a point of a floor. @param id its number where it is a point of a circle too */
  markFloor(station: number, cut: Cut, t: number, id?: number): void {
    if (cut.ground === undefined) return
    const key = `${cut.number} ${station}`
    const own = this.floors.get(key) ?? []
    this.floors.set(key, own)
    if (own.some((p) => Math.abs(p.at - t) < SAME)) return
    own.push({ at: t, id: id ?? this.placeAt(station, cut, { t, w: cut.floor }) })
    own.sort((a, b) => a.at - b.at)
  }

  /** The number of a point at the foot of a wall. */
  footAt(station: number, cut: Cut, t: number, w: number): number {
    if (cut.ground === undefined) {
      if (cut.opens === 0) return this.placeAt(station, cut, { t, w })
      return this.spotOn(this.ringAt(this.at(station), cut.opens), cut, { t, w })
    }
    const known = this.floorBetween(station, cut, t, t)[0]
    return known?.id ?? this.placeAt(station, cut, { t, w })
  }

  /** The points of a floor at a station from one place across it to another. */
  floorBetween(station: number, cut: Cut, from: number, to: number): readonly OnLine[] {
    const own = this.floors.get(`${cut.number} ${station}`) ?? []
    return own.filter((p) => p.at > from - SAME && p.at < to + SAME)
  }

  /** How far out there is material on either side of a station, 0 where there is none. */
  radiusBeside(station: number, side: -1 | 1): number {
    const x = this.at(station)
    const isBeside = ({ from, to }: Land): boolean =>
      side < 0 ? from < x - NEAR && to > x - NEAR : from < x + NEAR && to > x + NEAR
    const radii = this.outside
      .filter(isBeside)
      .map((l) => l.radiusAt(Math.min(l.to, Math.max(l.from, x))))
    return Math.max(0, ...radii)
  }

  /** How far round a tool a place lies, in mm. */
  across(cut: Cut, id: number): number {
    const { x, y } = this.flatAt(id)
    const one = cut.put({ t: 1, w: 0 })
    return x * one.x + y * one.y
  }

  /** Where a place lies square to the axis. */
  flatAt(id: number): Vec {
    const { positions } = this.places
    return vec(positions[3 * id] ?? 0, positions[3 * id + 1] ?? 0)
  }

  /** The circle through a place, if it has points of its own. */
  markedAt({ x, y }: Vec): Ring | undefined {
    const ring = this.rings.get(ringKey(x, y))
    return ring?.isMarked === true ? ring : undefined
  }
}
