import { place, vec } from '@lathica/core/geometry'
import { turnedTool } from '@lathica/core/solid'
import { outlineOf } from '../../../core/test/support/sections'

/** A flange with a hub to its right and a bore, if it is wide. */
export function flange(radius: number, thick: number, hub: number, bore: number) {
  return outlineOf(
    [
      [0, bore],
      [thick + 20, bore],
      [thick + 20, hub],
      [thick, hub],
      [thick, radius],
      [0, radius],
    ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
  )
}

/** Part of a ring about the axis, so far round in radians. */
export function ringPart(inner: number, outer: number, half: number) {
  const at = (r: number, a: number) => vec(-r * Math.sin(a), r * Math.cos(a))
  const bulge = Math.tan(half / 2)
  return outlineOf([
    { at: at(inner, -half) },
    { at: at(outer, -half), bulge },
    { at: at(outer, half) },
    { at: at(inner, half), bulge: -bulge },
  ])
}

export interface Hole {
  readonly from: 'left' | 'right'
  readonly far: number
  readonly angle: number
  readonly radius: number
  /** Of its head, 0 for none. */
  readonly head: number
  readonly deep: number
  readonly tip: boolean
}

/** A hole from a face, with a counterbore and a cone at its end. */
export function drilled(thick: number, { from, far, angle, radius, head, deep, tip }: Hole) {
  const outline = [
    [-2, 0],
    [deep + (tip ? radius * 0.6 : 0), 0],
    [deep, radius],
    ...(head > 0
      ? [
          [deep / 3, radius],
          [deep / 3, head],
          [-2, head],
        ]
      : [[-2, radius]]),
  ]
  const section = outlineOf(outline.map(([x = 0, y = 0]) => ({ at: vec(x, y) })))
  const way = from === 'left' ? 1 : -1
  const frame = {
    at: place(far * Math.cos(angle), far * Math.sin(angle), from === 'left' ? 0 : thick),
    ...{ x: place(1, 0, 0), z: place(0, 0, way) },
  }
  return turnedTool(section, frame, '')
}
