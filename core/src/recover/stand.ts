import { crossPlaces, dotPlaces, place, unitPlace, type Frame } from '../geometry'
import { axisOf } from './axis'
import { reachAlong } from './reach'
import type { ForeignSolid, Line } from './types'

/** The axis that solids are turned about, if the largest is, and where they begin along it. */
export function standOf(solids: readonly ForeignSolid[]): {
  readonly axis: Line
  readonly start: number
} {
  const [largest] = [...solids].sort((a, b) => b.volume - a.volume)
  const axis = (largest && axisOf(largest)) ?? { at: place(0, 0, 0), along: place(0, 0, 1) }
  return { axis, start: Math.min(...solids.map((s) => reachAlong(s, axis)[0])) }
}

/** What takes the file's own places to those of the part: its axis to z, its start to nought. */
export function frameOf({ at, along }: Line, start: number): Frame {
  const across = Math.abs(along.x) < 0.9 ? place(1, 0, 0) : place(0, 1, 0)
  const first = unitPlace(crossPlaces(crossPlaces(along, across), along))
  const second = crossPlaces(along, first)
  const foot = place(at.x + start * along.x, at.y + start * along.y, at.z + start * along.z)
  const rows = [first, second, along]
  const [x, y, z] = rows.map((row) => -dotPlaces(row, foot))
  return {
    at: place(x ?? 0, y ?? 0, z ?? 0),
    x: place(first.x, second.x, along.x),
    z: place(first.z, second.z, along.z),
  }
}
