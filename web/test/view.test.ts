import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  emptyBox,
  fittedView,
  pannedBy,
  roundLength,
  toPlane,
  toScreen,
  zoomedAt,
  type View,
} from '../src/board/view'
import { besideAxis, edgeOut } from '../src/board/beyond'

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const view = fc.record({
  lie: fc.constantFrom('lying' as const, 'standing' as const),
  scale: number(0.01, 100),
  origin: fc.record({ x: number(-2000, 2000), y: number(-2000, 2000) }),
})
const place = fc.record({ x: number(-500, 500), y: number(-500, 500) })
const MARGINS = { axial: 40, outer: 60, mirror: 50 }

describe('the board’s view', () => {
  it('leads from the plane to the screen and back', () => {
    fc.assert(
      fc.property(view, place, (v: View, p) => {
        const back = toPlane(v, toScreen(v, p))
        expect(back.x).toBeCloseTo(p.x, 6)
        expect(back.y).toBeCloseTo(p.y, 6)
      }),
    )
  })

  it('puts the radius up for lying parts and to the right for standing ones', () => {
    const origin = { x: 100, y: 100 }
    const lying = toScreen({ lie: 'lying', scale: 2, origin }, { x: 10, y: 5 })
    const standing = toScreen({ lie: 'standing', scale: 2, origin }, { x: 10, y: 5 })
    expect(lying).toEqual({ x: 120, y: 90 })
    expect(standing).toEqual({ x: 110, y: 80 })
  })

  it('keeps what is under the pointer there while it zooms', () => {
    fc.assert(
      fc.property(view, place, number(0.2, 5), (v, at, factor) => {
        const before = toPlane(v, at)
        const after = toScreen(zoomedAt(v, at, factor), before)
        expect(after.x).toBeCloseTo(at.x, 5)
        expect(after.y).toBeCloseTo(at.y, 5)
      }),
    )
  })

  it('stops zooming before numbers run out, in either direction', () => {
    const start: View = { lie: 'lying', scale: 1, origin: { x: 0, y: 0 } }
    const zoomed = (factor: number): number =>
      Array.from({ length: 200 }).reduce<View>((v) => zoomedAt(v, { x: 9, y: 9 }, factor), start)
        .scale
    expect(zoomed(3)).toBeLessThan(1e5)
    expect(zoomed(0.3)).toBeGreaterThan(1e-4)
  })

  it('pans by pixels', () => {
    const start: View = { lie: 'standing', scale: 3, origin: { x: 5, y: 6 } }
    expect(pannedBy(start, 10, -4).origin).toEqual({ x: 15, y: 2 })
  })

  it('fits a part with its mirror image and the room for its sizes into any pane', () => {
    const box = fc.record({
      from: number(-300, 300),
      length: number(1, 600),
      radius: number(1, 200),
    })
    fc.assert(
      fc.property(
        box,
        fc.constantFrom('lying' as const, 'standing' as const),
        number(300, 1600),
        number(300, 1600),
        ({ from, length, radius }, lie, width, height) => {
          const bounds = { min: { x: from, y: 0 }, max: { x: from + length, y: radius } }
          const v = fittedView(lie, bounds, width, height, MARGINS)
          for (const x of [from, from + length]) {
            for (const y of [-radius, radius]) {
              const p = toScreen(v, { x, y })
              expect(p.x).toBeGreaterThanOrEqual(-1e-6)
              expect(p.x).toBeLessThanOrEqual(width + 1e-6)
              expect(p.y).toBeGreaterThanOrEqual(-1e-6)
              expect(p.y).toBeLessThanOrEqual(height + 1e-6)
            }
          }
        },
      ),
    )
  })

  it('brings a thin ring up by itself where its axis and the empty middle would leave it small', () => {
    const ring = { min: { x: 0, y: 190 }, max: { x: 30, y: 214 } }
    for (const lie of ['lying', 'standing'] as const) {
      const whole = fittedView(lie, ring, 740, 400, MARGINS)
      expect(edgeOut(whole, 400)).toBe(0)
      const near = besideAxis(ring, whole, 740, 400, MARGINS)
      if (!near) throw new Error('it is a thin ring')
      expect(near.scale).toBeGreaterThan(5 * whole.scale)
      const corners = [ring.min, ring.max].map((c) => toScreen(near, c))
      for (const { x, y } of corners) {
        expect(x).toBeGreaterThan(0)
        expect(x).toBeLessThan(740)
        expect(y).toBeGreaterThan(0)
        expect(y).toBeLessThan(400)
      }
      // The axis lies beyond the pane, as far as told.
      const edge = edgeOut(near, 400)
      expect(edge).toBeGreaterThan(100)
      const axis = toScreen(near, { x: 15, y: 0 })
      expect(lie === 'lying' ? axis.y - 400 : -axis.x).toBeCloseTo(edge, 9)
      // Thick ones, and those that gain little by it, stay as they are.
      const thick = { ...ring, min: { x: 0, y: 100 } }
      expect(besideAxis(thick, whole, 740, 400, MARGINS)).toBeUndefined()
      const long = { min: { x: 0, y: 190 }, max: { x: 900, y: 214 } }
      const fitted = fittedView(lie, long, 740, 400, MARGINS)
      expect(besideAxis(long, fitted, 740, 400, MARGINS)).toBeUndefined()
    }
  })

  it('shows a usual length while nothing is drawn', () => {
    const v = fittedView('lying', emptyBox('mm'), 800, 400, MARGINS)
    expect(toScreen(v, { x: 0, y: 0 }).x).toBeGreaterThan(0)
    expect(toPlane(v, { x: 800, y: 0 }).x).toBeGreaterThan(100)
    // Of inches a round number of them, about as large.
    const { max } = emptyBox('in')
    expect(max.x).toBeCloseTo(6 * 25.4, 9)
    expect(max.y).toBeCloseTo(1.5 * 25.4, 9)
    expect(emptyBox('m').max.x).toBeCloseTo(emptyBox('cm').max.x * 10, 9)
  })

  it('measures out scale bars of 1, 2 or 5 times a power of ten', () => {
    fc.assert(
      fc.property(view, fc.constantFrom(1, 10, 25.4), (v, unit) => {
        const length = roundLength(v, 110, unit)
        const leading = Number((length / unit).toExponential(6).split('e')[0])
        expect([1, 2, 5].some((n) => Math.abs(leading - n) < 1e-6)).toBe(true)
        expect(length * v.scale).toBeLessThanOrEqual(110 + 1e-9)
        expect(length * v.scale).toBeGreaterThan(110 / 2.6)
      }),
    )
  })
})
