import { describe, expect, it } from 'vitest'
import { cavityIn, place, prismTool, rectangleOf, slotOf, turnedTool, vec } from '../src'
import type { SolidOp, SolidTool } from '../src'
import { outlineOf } from './support/sections'

/** A can 100 high, ⌀60 inside, its floor 5 thick and its wall 4. */
const can = outlineOf(
  [
    [0, 0],
    [0, 34],
    [100, 34],
    [100, 30],
    [5, 30],
    [5, 0],
  ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
)
const holds = (height: number): number => Math.PI * 900 * height

const cut = (...tools: SolidTool[]): SolidOp => ({
  ...{ kind: 'combine', step: 'step7', effect: 'cut', tools },
})
const after = (...ops: SolidOp[]) => cavityIn({ section: can, plan: { base: can, ops } })

/** A hole across the axis, from outside in. */
const side = (at: number, radius: number, deep: number): SolidTool =>
  turnedTool(
    rectangleOf('hole', vec(-1, 0), vec(deep, radius)),
    { at: place(0, 34, at), x: place(0, 0, 1), z: place(0, -1, 0) },
    '',
  )
const ALONG = { at: place(0, 0, 0), x: place(1, 0, 0), z: place(0, 0, 1) }
const down = (far: number, radius: number, from: number, to: number): SolidTool =>
  turnedTool(rectangleOf('hole', vec(from, 0), vec(to, radius)), { ...ALONG, at: place(far, 0, 0) })

describe('what a vessel with holes holds', () => {
  it('ends at the lower edge of a hole in its side, which is named', () => {
    const room = after(cut(side(60, 5, 10)))
    expect(room?.volume).toBeCloseTo(holds(50), 6)
    expect(room).toMatchObject({ brim: 55, opening: 'step7', closed: false, isWhole: true })
  })

  it('goes by the lowest of several, and by the narrow part of one with a head', () => {
    expect(after(cut(side(60, 5, 80), side(40, 2, 10)))?.volume).toBeCloseTo(holds(33), 6)
    const headed = outlineOf(
      [
        [-1, 0],
        [10, 0],
        [10, 3],
        [2, 3],
        [2, 8],
        [-1, 8],
      ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
    )
    const frame = { at: place(0, 34, 60), x: place(0, 0, 1), z: place(0, -1, 0) }
    expect(after(cut(turnedTool(headed, frame)))?.brim).toBeCloseTo(57, 9)
  })

  it('ends at the bottom of a notch in its brim, and of a window', () => {
    const notch = prismTool(rectangleOf('notch', vec(25, -4), vec(40, 4)), ALONG, 92, 101)
    expect(after(cut(notch))?.volume).toBeCloseTo(holds(87), 6)
    const out = { at: place(0, 0, 0), x: place(0, 0, 1), z: place(1, 0, 0) }
    const window = prismTool(slotOf('window', 40, 70, 10), out, 28, 40)
    expect(after(cut(window))?.volume).toBeCloseTo(holds(35), 6)
  })

  it('is nothing where its floor is drilled through', () => {
    expect(after(cut(down(12, 3, -1, 6)))).toBeUndefined()
    expect(after(cut(down(0, 3, -1, 6)))).toBeUndefined()
  })

  it('stays what it was where nothing opens it', () => {
    // Into the wall from outside, down into the brim, and into the floor from below.
    for (const tool of [side(60, 5, 2), down(32, 1, 90, 101), down(12, 3, -1, 4)]) {
      const room = after(cut(tool))
      expect(room?.volume).toBeCloseTo(holds(95), 6)
      expect(room?.opening).toBeUndefined()
      expect(room?.isWhole).toBe(true)
    }
  })

  it('is told not to be all where something else may change it', () => {
    const blind = after(cut(down(12, 3, 2, 6)))
    expect(blind?.volume).toBeCloseTo(holds(95), 6)
    expect(blind?.isWhole).toBe(false)
    expect(after({ ...cut(side(60, 5, 10)), effect: 'add' } as SolidOp)?.isWhole).toBe(false)
    expect(
      after({ kind: 'shell', step: 'step8', thickness: 1, open: [] } as SolidOp)?.isWhole,
    ).toBe(false)
    const oblique = { at: place(0, 34, 60), x: place(1, 0, 0), z: place(0, -0.8, 0.6) }
    const drill = turnedTool(rectangleOf('hole', vec(-1, 0), vec(20, 3)), oblique)
    expect(after(cut(drill))?.isWhole).toBe(false)
  })

  it('lets a closed room run out through its hole', () => {
    const float = outlineOf(
      [
        [0, 0],
        [0, 20],
        [40, 20],
        [40, 0],
        [38, 0],
        [38, 18],
        [2, 18],
        [2, 0],
      ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
    )
    expect(cavityIn({ section: float, plan: undefined })?.closed).toBe(true)
    const hole = turnedTool(
      rectangleOf('hole', vec(-1, 0), vec(5, 2)),
      { at: place(20, 0, 20), x: place(0, 0, 1), z: place(-1, 0, 0) },
      '',
    )
    const room = cavityIn({ section: float, plan: { base: float, ops: [cut(hole)] } })
    expect(room?.closed).toBe(false)
    expect(room?.volume).toBeCloseTo(Math.PI * 18 * 18 * 16, 6)
  })
})
