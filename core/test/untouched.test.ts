import { describe, expect, it } from 'vitest'
import { place, prismTool, rectangleOf, turnedTool, untouchedAngle, vec } from '../src'
import type { SolidOp, SolidPlan, SolidTool } from '../src'
import { outlineOf } from './support/sections'

const shaft = outlineOf([
  { at: vec(0, 0) },
  { at: vec(40, 0) },
  { at: vec(40, 10) },
  { at: vec(0, 10) },
])
const cut = (tools: readonly SolidTool[]): SolidOp => ({
  ...{ kind: 'combine', step: 's1', effect: 'cut', tools },
})
const after = (...ops: SolidOp[]): SolidPlan => ({ base: shaft, ops })
/** A flat so far from the axis, turned by so many degrees. */
const flat = (degrees: number, floor: number): SolidTool => {
  const angle = (degrees * Math.PI) / 180
  const x = place(Math.cos(angle), Math.sin(angle), 0)
  const frame = { at: place(0, 0, 0), x, z: place(0, 0, 1) }
  return prismTool(rectangleOf('flat', vec(floor, -11), vec(11, 11)), frame, -1, 20, `@${degrees}`)
}
const deg = (angle: number | undefined): number => ((angle ?? NaN) * 180) / Math.PI

describe('an angle at which nothing was taken', () => {
  it('lies between flats, and is none where they go all round', () => {
    // A flat at half the radius takes 60° either way.
    expect(deg(untouchedAngle([after(cut([flat(0, 5), flat(180, 5)]))])) % 180).toBeCloseTo(90, 6)
    const three = [0, 120, 240].map((a) => flat(a, 5.1))
    expect(untouchedAngle([after(cut(three))])).toBeDefined()
    expect(untouchedAngle([after(cut([0, 120, 240].map((a) => flat(a, 4.9))))])).toBeUndefined()
  })

  it('is none that something covers which reaches past the first turn', () => {
    const small = [10, 70].map((a) => after(cut([flat(a, 9.9)])))
    const angle = deg(untouchedAngle([after(cut([flat(0, 5)])), ...small]))
    expect(angle).toBeGreaterThan(60)
    expect(angle).toBeLessThan(300)
  })

  it('is one of all bodies at once', () => {
    const one = after(cut([flat(0, 5), flat(180, 5)]))
    const other = after(cut([flat(90, 5), flat(270, 5)]))
    expect(untouchedAngle([one])).toBeDefined()
    expect(untouchedAngle([one, other])).toBeUndefined()
    expect(untouchedAngle([])).toBe(0)
  })

  it('is not told of where more was done than is known', () => {
    expect(
      untouchedAngle([after({ ...cut([flat(0, 5)]), effect: 'add' } as SolidOp)]),
    ).toBeUndefined()
    const shell = { kind: 'shell', step: 's2', thickness: 1, open: [] } as const
    expect(untouchedAngle([after(cut([flat(0, 5)]), shell)])).toBeUndefined()
    const about = turnedTool(rectangleOf('bore', vec(-1, 0), vec(9, 3)), {
      ...{ at: place(0, 0, 0), x: place(1, 0, 0), z: place(0, 0, 1) },
    })
    expect(untouchedAngle([after(cut([about]))])).toBeUndefined()
  })
})
